"""Stud boards: which bars make the joints, stacked in which order, what is left over.

Studs stand in rows. A bar lies between two neighbors of a row or a column; a
joint that neighbors cannot make needs a flying jumper. On a stud that clamps
its lead on an insulator, the nut under the bar sits lightly and the nut above
carries the torque.

Units: none. Source: the trade's practice with six- and nine-stud boards; the
maker's torque figure is what counts.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, RefusedError
from evencoil.winding import LINES, Joint, Winding, joinings

__all__ = ["BOARDS", "Bar", "Board", "Laid", "Layer", "Parts", "lay_bars"]

Nut = Literal["", "light", "full"]
#: rows of studs from top to bottom, by winding kind; usual orders, others exist
BOARDS: dict[str, tuple[tuple[str, ...], ...]] = {
    "6": (("T6", "T4", "T5"), ("T1", "T2", "T3")),
    "9-wye": (("T4", "T5", "T6"), ("T7", "T8", "T9"), ("T1", "T2", "T3")),
    "9-delta": (("T6", "T4", "T5"), ("T7", "T8", "T9"), ("T1", "T2", "T3")),
    "2-speed-ct": (("T4", "T6", "T5"), ("T1", "T2", "T3")),
    "2-speed-vt": (("T4", "T6", "T5"), ("T1", "T2", "T3")),
    "2-speed-cp": (("T4", "T6", "T5"), ("T1", "T2", "T3")),
}


@dataclass(frozen=True, slots=True)
class Board:
    """A stud board and the parts that came with it; None of bars or insulators is enough."""

    rows: tuple[tuple[str, ...], ...]
    bars: int | None = None
    nuts_per_stud: int = 3
    jumpers: int = 0
    insulators: int | None = None


@dataclass(frozen=True, slots=True)
class Bar:
    """A bar or flying jumper between two studs; ``level`` counts from the board up."""

    start: str
    end: str
    is_jumper: bool
    level: int


@dataclass(frozen=True, slots=True)
class Layer:
    """One part on a stud, from the board up; ``carries`` where current passes through it."""

    part: Literal["insulator", "lead lug", "bar", "jumper lug", "line lug", "washer", "nut"]
    nut: Nut = ""
    carries: bool = False


@dataclass(frozen=True, slots=True)
class Parts:
    """An account of parts: used, had, left over (below zero: missing)."""

    name: Literal["bars", "jumpers", "nuts", "insulators"]
    used: int
    had: int

    @property
    def left(self) -> int:
        """Return how many are left over; below zero they are missing."""
        return self.had - self.used


@dataclass(frozen=True, slots=True)
class Laid:
    """The bars of a connection, every stud's stack, and the account of parts."""

    rows: tuple[tuple[str, ...], ...]
    bars: tuple[Bar, ...]
    stacks: dict[str, tuple[Layer, ...]]
    parts: tuple[Parts, ...]


def _place(rows: Sequence[Sequence[str]]) -> dict[str, tuple[int, int]]:
    return {
        lead: (row, column)
        for row, leads in enumerate(rows)
        for column, lead in enumerate(leads)
        if lead
    }


def _check(winding: Winding, rows: Sequence[Sequence[str]]) -> None:
    studs = [lead for row in rows for lead in row if lead]
    wrong = next((lead for lead in studs if lead not in winding.leads), None)
    if wrong is not None:
        raise RefusedError(
            Message("joints.unknown", {"lead": wrong[:12]}),
            field="leads.board",
            hint=Message("joints.unknown.hint", {"leads": ", ".join(winding.leads)}),
        )
    twice = next((lead for lead, count in Counter(studs).items() if count > 1), None)
    if twice is not None:
        raise RefusedError(
            Message("board.twice", {"lead": twice}),
            field="leads.board",
            hint=Message("board.twice.hint"),
        )
    missing = [lead for lead in winding.leads if lead not in studs]
    if missing:
        raise RefusedError(
            Message("board.missing", {"leads": ", ".join(missing)}),
            field="leads.board",
            hint=Message("board.missing.hint"),
        )


def _tree(leads: Sequence[str], place: dict[str, tuple[int, int]]) -> list[tuple[str, str, bool]]:
    """Join the studs of one group by the shortest ways: neighbors first."""
    joined, left, found = {leads[0]}, set(leads[1:]), []
    while left:
        one, other = min(
            ((a, b) for a in joined for b in left),
            key=lambda pair: (_steps(place, *pair), pair),
        )
        found.append((one, other, _steps(place, one, other) > 1))
        joined.add(other)
        left.discard(other)
    return found


def _steps(place: dict[str, tuple[int, int]], one: str, other: str) -> int:
    (r1, c1), (r2, c2) = place[one], place[other]
    return abs(r1 - r2) + abs(c1 - c2)


def _bars(joints: Sequence[Joint], place: dict[str, tuple[int, int]]) -> list[Bar]:
    """Return the bars and jumpers of some joints, in the order they go on."""
    levels: Counter[str] = Counter()
    bars: list[Bar] = []
    for joint in joints:
        leads = [lead for lead in joint.leads if lead not in LINES and lead in place]
        if len(leads) < 2:
            continue
        for one, other, is_jumper in _tree(leads, place):
            level = max(levels[one], levels[other])
            bars.append(Bar(one, other, is_jumper, level))
            levels[one] = levels[other] = level + 1
    return bars


def _most_bars(winding: Winding, place: dict[str, tuple[int, int]]) -> int:
    """Return how many bars the largest connection of a winding needs on a board."""
    return max(
        sum(not bar.is_jumper for bar in _bars(known.joints, place))
        for known in joinings(winding.kind)
    )


def lay_bars(winding: Winding, joints: Sequence[Joint], board: Board) -> Laid:
    """Return how the joints are made on a board.

    Parameters
    ----------
    winding : Winding
        Whose leads stand on the studs.
    joints : sequence of Joint
        To be made.
    board : Board
        Order of the studs, bars and nuts that are there.

    Returns
    -------
    Laid
        Bars in the order they go on, what lies on each stud from the board
        up with the nut that sits lightly and the one that carries the torque,
        and what is left over.

    Raises
    ------
    RefusedError
        If a lead has no stud, or two.
    """
    _check(winding, board.rows)
    place = _place(board.rows)
    bars = _bars(joints, place)
    fed = {lead: joint.line for joint in joints if joint.line for lead in joint.leads[:1]}
    stacks = {lead: _stack(lead, bars, is_fed=lead in fed) for lead in place}
    nuts = sum(layer.part == "nut" for stack in stacks.values() for layer in stack)
    jumpers = sum(bar.is_jumper for bar in bars)
    straight = len(bars) - jumpers
    parts = (
        Parts("bars", straight, _most_bars(winding, place) if board.bars is None else board.bars),
        Parts("jumpers", jumpers, board.jumpers),
        Parts("nuts", nuts, board.nuts_per_stud * len(place)),
        Parts(
            "insulators",
            len(place),
            len(place) if board.insulators is None else board.insulators,
        ),
    )
    return Laid(board.rows, tuple(bars), stacks, parts)


def _stack(lead: str, bars: Sequence[Bar], *, is_fed: bool) -> tuple[Layer, ...]:
    """Stack a stud: insulator, the motor's lug, a light nut, then what carries line current."""
    own = sorted((bar for bar in bars if lead in (bar.start, bar.end)), key=lambda bar: bar.level)
    above = [Layer("jumper lug" if bar.is_jumper else "bar", carries=True) for bar in own]
    if is_fed:
        above.append(Layer("line lug", carries=True))
    if not above:
        # nothing leads on from this stud: its lug is only held
        return (Layer("insulator"), Layer("lead lug"), Layer("nut", "full"))
    # current goes from the lug through the light nut; washer and upper nut only press
    return (
        Layer("insulator"),
        Layer("lead lug", carries=True),
        Layer("nut", "light", carries=True),
        *above,
        Layer("washer"),
        Layer("nut", "full"),
    )
