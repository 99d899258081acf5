"""An XML file as elements with their lines: nothing is fetched, no entity is made, limits hold.

Source: XML 1.0; read by the expat parser of the standard library, document types refused.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from xml.parsers import expat

from evencoil.logic.refusal import LogicError

__all__ = ["Element", "read_elements"]

MOST_BYTES, MOST_DEEP = 2 * 1024 * 1024, 64
_BETWEEN = "\x1f"


@dataclass(slots=True)
class Element:
    """An element: its namespace, name, line, attributes, text and children."""

    space: str
    name: str
    line: int
    given: dict[str, str]
    text: str = ""
    inside: list[Element] = field(default_factory=list)

    def one(self, name: str) -> Element | None:
        """Return the first child of a name; None if there is none.

        Parameters
        ----------
        name : str
            Without its namespace.
        """
        return next((child for child in self.inside if child.name == name), None)

    def every(self, name: str) -> Iterator[Element]:
        """Go through the children of a name.

        Parameters
        ----------
        name : str
            Without its namespace.
        """
        return (child for child in self.inside if child.name == name)


def read_elements(data: bytes) -> Element:
    """Return the root of a file.

    Parameters
    ----------
    data : bytes
        The file.

    Raises
    ------
    LogicError
        ``xml-limit``, ``xml-doctype`` or ``xml-syntax``, with the line.
    """
    if len(data) > MOST_BYTES:
        raise LogicError("xml-limit", (1, 1), expected="2 MiB", found=f"{len(data):,} bytes")
    parser = expat.ParserCreate(namespace_separator=_BETWEEN)
    root: list[Element] = []
    above: list[Element] = []

    def opened(name: str, given: dict[str, str]) -> None:
        space, _, plain = name.rpartition(_BETWEEN)
        one = Element(space, plain, parser.CurrentLineNumber, given)
        if len(above) >= MOST_DEEP:
            raise LogicError(
                "xml-limit", (one.line, 1), expected=f"{MOST_DEEP} deep", found="deeper"
            )
        (above[-1].inside if above else root).append(one)
        above.append(one)

    def closed(name: str) -> None:
        del name
        above.pop()

    def told(text: str) -> None:
        if above:
            above[-1].text += text

    def typed(*told: object) -> None:
        raise LogicError("xml-doctype", (parser.CurrentLineNumber, 1), found=f"DOCTYPE {told[0]}")

    parser.StartElementHandler = opened
    parser.EndElementHandler = closed
    parser.CharacterDataHandler = told
    parser.StartDoctypeDeclHandler = typed
    try:
        parser.Parse(data, True)  # noqa: FBT003 - expat takes it by place
    except expat.ExpatError as broken:
        what = expat.ErrorString(broken.code)
        raise LogicError("xml-syntax", (broken.lineno, 1), found=what) from None
    return root[0]
