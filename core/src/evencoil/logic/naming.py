"""Take the names of an I/O list over into a program: uses and declarations, comments kept.

Source: IEC 61131-3 (located variables); trade practice for the list.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from evencoil.logic.io_list import IoLine
from evencoil.logic.meaning import Checked, read_program
from evencoil.logic.names import point_of
from evencoil.logic.refusal import LogicError, Place
from evencoil.logic.tokens import Token, name_key, tokens

__all__ = ["with_names"]


def with_names(text: str, checked: Checked, lines: Sequence[IoLine]) -> str:
    """Return the text of a program in which each listed point has the name of the list.

    A point that has a name already is renamed wherever it is used; one that has none is declared
    with its address. A line without a name changes nothing.

    Parameters
    ----------
    text : str
        Of the program, of which nothing is wrong.
    checked : Checked
        The same program, read.
    lines : sequence of IoLine
        In the order of the list, its heading being line 1.

    Raises
    ------
    LogicError
        With the line of the list: ``csv`` for what is no name, ``duplicate`` for a name that
        another point, a variable or another line has.
    """
    wanted = {name_key(one.point): one.name for one in lines if one.name}
    _refuse_names(checked, lines)
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    found = list(tokens(text))
    old = {
        key: wanted[name_key(symbol.slot)]
        for key, symbol in checked.symbols.items()
        if name_key(symbol.slot) in wanted and symbol.slot != symbol.name
    }
    named = {name_key(checked.symbols[key].slot) for key in old}
    direct = {key: name for key, name in wanted.items() if key not in named}
    renamed = _renamed(text, found, {**old, **wanted, **direct})
    made = _declared(renamed, direct)
    read_program(made, checked.points)
    return made


def _refuse_names(checked: Checked, lines: Sequence[IoLine]) -> None:
    seen: set[str] = set()
    points = {name_key(one.point) for one in lines}
    for number, one in enumerate(lines, start=2):
        if not one.name:
            continue
        place = (number, 1)
        try:
            words = [token for token in tokens(one.name) if token.kind != "end"]
        except LogicError:
            words = []
        if len(words) != 1 or words[0].kind != "name":
            raise LogicError("csv", place, expected="a name", found=one.name[:40])
        key = name_key(one.name)
        taken = checked.symbols.get(key)
        is_own = taken is not None and name_key(taken.slot) == name_key(one.point)
        is_free = taken is None or is_own or name_key(taken.slot) in points
        if key in seen or not is_free or point_of(one.name, checked.points) is not None:
            raise LogicError("duplicate", place, found=one.name[:40])
        seen.add(key)


def _renamed(text: str, found: Sequence[Token], names: Mapping[str, str]) -> str:
    """Put new names in the place of old ones, but not of a block's own inputs and outputs."""
    lines = text.split("\n")
    for token in reversed(list(_uses(found, names))):
        row, column = token.place
        line = lines[row - 1]
        lines[row - 1] = (
            line[: column - 1] + names[name_key(token.text)] + line[column - 1 + len(token.text) :]
        )
    return "\n".join(lines)


def _uses(found: Sequence[Token], names: Mapping[str, str]) -> Iterator[Token]:
    depth = 0
    for before, token, after in zip((None, *found[:-1]), found, (*found[1:], None), strict=True):
        depth += {"(": 1, ")": -1}.get(token.text, 0)
        is_member = before is not None and before.text == "."
        is_own = depth > 0 and after is not None and after.text in {":=", "=>"}
        if token.kind == "name" and name_key(token.text) in names and not (is_member or is_own):
            yield token


def _declared(text: str, points: Mapping[str, str]) -> str:
    """Declare the names of points that had none, behind the declarations that stand there."""
    if not points:
        return text
    told = "\n".join(f"  {name} AT {_address(point)};" for point, name in points.items())
    block = f"VAR\n{told}\nEND_VAR\n"
    found = list(tokens(text))
    ends = [token for token in found if token.kind == "word" and token.text == "END_VAR"]
    if ends:
        row, column = ends[-1].place
        at = _offset(text, (row, column + len("END_VAR")))
        rest = text[at:].removeprefix("\n")
        return f"{text[:at]}\n{block}{rest}"
    is_named = found[0].kind == "word" and found[0].text == "PROGRAM"
    at = _offset(text, found[2 if is_named else 0].place)
    return f"{text[:at]}{block}{text[at:]}"


def _offset(text: str, place: Place) -> int:
    return sum(len(line) + 1 for line in text.split("\n")[: place[0] - 1]) + place[1] - 1


def _address(point: str) -> str:
    letter, number = point.rstrip("0123456789"), int(point.lstrip("AIQ")) - 1
    if letter == "AI":
        return f"%IW{number} : INT"
    return f"%{letter}X{number // 8}.{number % 8} : BOOL"
