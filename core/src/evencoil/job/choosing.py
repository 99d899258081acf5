"""Choosing a starter: what each takes from the line, what it gives, and why one cannot.

Every circuit of the catalogue is shown with the same measures. One that cannot do the
job stays in the list with one reason, so that no one wonders where it went.

Units: current in percent of locked-rotor current and in amps [A], torque in percent of
that at full volts. Source: textbook starting methods; NEMA MG 1 for the leads.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from typing import Literal

from evencoil.base import Message
from evencoil.checks import Restart, restarts_of
from evencoil.job.motor_facts import motor_facts
from evencoil.job.worked import Worked
from evencoil.sizing import start_shares
from evencoil.starters import (
    CatalogueEntry,
    FitFacts,
    Load,
    catalogue,
    misfit,
    needed_leads,
    start_of,
)

__all__ = ["Choice", "choices", "hazards_of_entry"]

Verdict = Literal["can", "cannot", "doubt"]
#: what a loaded machine asks for of the torque at full volts; assumed, no machine was read
_LOADED_PERCENT = Decimal(60)
_EMPTY_PERCENT = Decimal(25)
_PLUGS = {"1B", "6B", "6C"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One starter beside the others.

    Attributes
    ----------
    id, group : str
        Of the catalogue.
    line_percent, torque_percent : Decimal
        At the first moment, of those at full volts; None for a drive, whose limit decides.
    line_a : Decimal or None
        At the first moment, None where no locked-rotor current is known, and for a drive. [A]
    leads : tuple of int
        How many leads it needs; empty if any do.
    verdict : str
        ``can``, ``cannot`` or ``doubt``.
    reason : Message
        One reason, also where it can.
    hazards : tuple of str
        What has to be accepted by name before it is wired.
    """

    id: str
    group: str
    line_percent: Decimal | None
    torque_percent: Decimal | None
    line_a: Decimal | None
    leads: tuple[int, ...]
    verdict: Verdict
    reason: Message
    hazards: tuple[str, ...]


@cache
def hazards_of_entry(circuit_id: str) -> tuple[str, ...]:
    """Return what a circuit of the catalogue does that no one asks for, as it is drawn.

    Parameters
    ----------
    circuit_id : str
        For example ``2A``; a starter as found has none of its own.
    """
    known = catalogue().get(circuit_id)
    found: tuple[Restart, ...] = () if known is None else restarts_of(known.circuit)
    return (*found, "plugged") if circuit_id in _PLUGS else found


def _reason(
    entry: CatalogueEntry, torque: Decimal | None, facts: FitFacts
) -> tuple[Verdict, Message]:
    """Return whether a circuit can, and the one reason that matters most."""
    barred = misfit(entry, facts)
    if barred is not None:
        return "cannot", barred
    if torque is None:
        return "can", Message(f"choose.can.{entry.group}")
    need = {"loaded": _LOADED_PERCENT, "empty": _EMPTY_PERCENT}.get(facts.load)
    said = {"torque": f"{torque:.0f}", "need": "" if need is None else f"{need:.0f}"}
    if need is not None and torque < need:
        return "cannot", Message("choose.torque", said)
    if need is None and torque < 100:
        return "doubt", Message("choose.torque_unknown", said)
    if start_of(entry) != "full_voltage":
        return "can", Message("choose.soft", said)
    return "can", Message(f"choose.can.{entry.group}")


def choices(worked: Worked, load: Load, tap_percent: Decimal = Decimal(65)) -> tuple[Choice, ...]:
    """Return every starter of the catalogue with its measures and one reason.

    Parameters
    ----------
    worked : Worked
        Plate, supply, leads and sizes; the locked-rotor current is taken from the sizes.
    load : str
        How the machine starts.
    tap_percent : Decimal
        Tap of an autotransformer. [percent]
    """
    locked = next(
        (
            step.value
            for name in ("locked_rotor_code_a", "locked_rotor_table_a")
            for step in worked.steps
            if step.id == name and isinstance(step.value, Decimal)
        ),
        None,
    )
    facts = motor_facts(worked, load)
    found = []
    for entry in catalogue().values():
        if entry.id in {"2B", "5C"}:
            continue  # drawn as lessons, never to be wired
        line: Decimal | None = None
        torque_percent: Decimal | None = None
        if entry.group != "drive":
            _, line, torque = start_shares(start_of(entry), tap_percent)
            torque_percent = torque * 100
        verdict, reason = _reason(entry, torque_percent, facts)
        found.append(
            Choice(
                id=entry.id,
                group=entry.group,
                line_percent=None if line is None else line * 100,
                torque_percent=torque_percent,
                line_a=None if locked is None or line is None else locked * line,
                leads=needed_leads(entry),
                verdict=verdict,
                reason=reason,
                hazards=hazards_of_entry(entry.id),
            )
        )
    if facts.phases == 1:
        # a single-phase motor begins with the starters that can start it
        found.sort(key=lambda one: one.verdict == "cannot")
    return tuple(found)
