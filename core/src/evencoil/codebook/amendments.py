"""Local amendments: where a place asks for more than the code, by name, author and reason.

Only stricter figures are taken: a looser one needs the authority's own paper and the
engineer in charge, and is not for a tool to apply.

Units: percent; conductor sizes in AWG or kcmil.
Rules: NEC 90.4 (the authority having jurisdiction).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import (
    ConductorSize,
    CoreError,
    Message,
    OutOfRangeError,
    Step,
    Trail,
    number,
    plain,
)
from evencoil.codebook.steps import given

__all__ = [
    "SUBJECTS",
    "Amendment",
    "AmendmentSubject",
    "amended",
    "check_amendment",
    "smallest_conductor",
]

AmendmentSubject = Literal[
    "smallest_conductor",
    "conductor_percent",
    "disconnect_percent",
    "device_percent",
    "no_next_size_up",
]
#: least figure that is stricter, most that makes sense; None where it is no percentage
SUBJECTS: dict[AmendmentSubject, tuple[Decimal, Decimal] | None] = {
    "smallest_conductor": None,
    "conductor_percent": (Decimal(125), Decimal(200)),
    "disconnect_percent": (Decimal(115), Decimal(200)),
    "device_percent": (Decimal(100), Decimal(1100)),
    "no_next_size_up": None,
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Amendment:
    """One override of the code at this place.

    ``value`` is a percentage or a conductor size as text, empty where the name says all.
    """

    subject: AmendmentSubject
    value: str
    author: str
    reason: str


def check_amendment(amendment: Amendment) -> None:
    """Refuse an amendment that says nothing, names no one, or is looser than the code.

    Parameters
    ----------
    amendment : Amendment
        As entered.

    Raises
    ------
    OutOfRangeError
        With the field that is wrong.
    """
    for field in ("author", "reason"):
        if not getattr(amendment, field).strip():
            raise OutOfRangeError(
                Message(f"amendment.{field}"),
                field=f"amendments.{field}",
                hint=Message("amendment.who.hint"),
            )
    bounds = SUBJECTS[amendment.subject]
    if amendment.subject == "smallest_conductor":
        size = ConductorSize(amendment.value)
        if size < ConductorSize("14"):
            raise _looser(amendment, "14 AWG", "2000 kcmil")
    elif bounds is not None:
        value = number(amendment.value, field="amendments.value")
        if not bounds[0] <= value <= bounds[1]:
            raise _looser(amendment, f"{plain(bounds[0])} %", f"{plain(bounds[1])} %")


def _looser(amendment: Amendment, low: str, high: str) -> OutOfRangeError:
    return OutOfRangeError(
        Message("amendment.looser", {"value": amendment.value[:12], "low": low, "high": high}),
        field="amendments.value",
        hint=Message("amendment.looser.hint"),
    )


def amended(
    amendments: Sequence[Amendment], subject: AmendmentSubject, trail: Trail
) -> Step | None:
    """Return the step of an amendment that holds, or None.

    Parameters
    ----------
    amendments : sequence of Amendment
        The works' own.
    subject : str
        What is asked for.
    trail : Trail
        Gets ``amendment_`` and the subject.
    """
    for one in amendments:
        if one.subject != subject:
            continue
        try:
            check_amendment(one)
        except CoreError:
            return None  # it was refused where it was entered; the code's own figure stands
        bounds = SUBJECTS[subject]
        value: Decimal | str = one.value
        if bounds is not None:
            value = number(one.value, field="amendments.value")
        return given(
            trail,
            f"amendment_{subject}",
            value,
            "%" if bounds else "",
            "amendment.holds",
            {
                "author": one.author,
                "reason": one.reason,
                "name": str(Message(f"amendment.{subject}")),
            },
            shown=one.value or str(Message("amendment.yes")),
        )
    return None


def smallest_conductor(amendments: Sequence[Amendment]) -> ConductorSize | None:
    """Return the smallest conductor that the plant allows, None where the code's own stands.

    Parameters
    ----------
    amendments : sequence of Amendment
        The plant's own.
    """
    for one in amendments:
        if one.subject == "smallest_conductor":
            try:
                check_amendment(one)
            except CoreError:
                return None
            return ConductorSize(one.value)
    return None
