"""Lead marks: T numbers, the letters of IEC practice, old letters, and what is found.

Inside, leads keep their T numbers for ever; a mark is only how a lead is called.

Units: none. Source: NEMA MG 1 part 2 and IEC 60034-8 terminal markings. The
letters of the second halves (U5, U6) and of two-speed leads are recalled:
compare with the motor's own diagram.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from evencoil.base import Message, RefusedError
from evencoil.winding.coils import Winding

__all__ = ["Style", "lead_of", "names_of", "style_of"]

Style = Literal["T", "UVW", "UVWXYZ", "custom"]
_PLAIN = "T1 U1,T2 V1,T3 W1,T4 U2,T5 V2,T6 W2,T7 U5,T8 V5,T9 W5,T10 U6,T11 V6,T12 W6"
_TWO_SPEED = "T1 1U,T2 1V,T3 1W,T6 2U,T4 2V,T5 2W,T11 2U,T12 2V,T13 2W"
_SINGLE = "T1 U1,T4 U2,T2 UA,T3 UB,T5 Z1,T8 Z2"
_OLD = "T1 U,T2 V,T3 W,T4 X,T5 Y,T6 Z"
_SAME = {"U3": "U5", "V3": "V5", "W3": "W5", "U4": "U6", "V4": "V6", "W4": "W6"}


def _pairs(text: str) -> dict[str, str]:
    return dict(pair.split() for pair in text.split(","))


def names_of(
    winding: Winding, style: Style = "T", own: Mapping[str, str] | None = None
) -> dict[str, str]:
    """Return how each lead is called.

    Parameters
    ----------
    winding : Winding
        Whose leads.
    style : str
        ``T`` numbers, ``UVW`` with digits, ``UVWXYZ`` of old motors, or
        ``custom``.
    own : mapping or None
        Marks as found, by T number; they go before the style's.

    Returns
    -------
    dict
        From T number to mark; a lead the style has no mark for keeps its own.

    Raises
    ------
    RefusedError
        If two leads have the same mark.
    """
    if style == "UVW":
        if winding.is_two_speed:
            known = _pairs(_TWO_SPEED)
        else:
            known = _pairs(_SINGLE if winding.phases == 1 else _PLAIN)
        if len(winding.leads) == 3:
            known = _pairs("T1 U,T2 V,T3 W")
    elif style == "UVWXYZ":
        known = _pairs(_OLD)
    else:
        known = {}
    found = {lead: known.get(lead, lead) for lead in winding.leads}
    for lead, mark in (own or {}).items():
        if lead in found and mark.strip():
            found[lead] = mark.strip()
    twice = [mark for mark in found.values() if list(found.values()).count(mark) > 1]
    if twice:
        raise RefusedError(
            Message("marks.twice", {"mark": twice[0][:12]}),
            field="leads.names",
            hint=Message("marks.twice.hint"),
        )
    return found


def style_of(marks: Sequence[str]) -> Style:
    """Return the style that a box's marks are in.

    Parameters
    ----------
    marks : sequence of str
        As read on the leads.
    """
    said = {mark.strip().upper() for mark in marks}
    if all(mark.removeprefix("T").isdigit() for mark in said):
        return "T"
    if said <= {"U", "V", "W", "X", "Y", "Z"} and said & {"X", "Y", "Z"}:
        return "UVWXYZ"
    singles = {*_pairs(_PLAIN).values(), *_pairs(_TWO_SPEED).values(), *_pairs(_SINGLE).values()}
    return "UVW" if said <= singles | {"U", "V", "W"} | set(_SAME) else "custom"


def lead_of(winding: Winding, mark: str, own: Mapping[str, str] | None = None) -> str:
    """Return the T number of a mark, whatever style it is in.

    Parameters
    ----------
    winding : Winding
        Whose leads.
    mark : str
        As read; a bare number is a T number.
    own : mapping or None
        Marks as found, by T number.

    Raises
    ------
    RefusedError
        If no lead of this winding is called so.
    """
    said = mark.strip().upper()
    for lead, name in (own or {}).items():
        if name.strip().upper() == said:
            return lead
    said = _SAME.get(said, said)
    if said.isdigit():
        said = f"T{said}"
    if said in winding.leads:
        return said
    styles: tuple[Style, ...] = ("UVW", "UVWXYZ")
    for style in styles:
        for lead, name in names_of(winding, style).items():
            if name == said:
                return lead
    raise RefusedError(
        Message("joints.unknown", {"lead": mark[:12]}),
        field="leads.joints",
        hint=Message("joints.unknown.hint", {"leads": ", ".join(winding.leads)}),
    )
