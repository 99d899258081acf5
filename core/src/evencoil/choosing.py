"""Choosing a starter: what each takes from the line, what it gives, and why one cannot.

Every circuit of the catalogue is shown with the same measures. One that cannot do the
job stays in the list with one reason, so that nobody wonders where it went.

Units: current in percent of locked-rotor current and in amps [A], torque in percent of
that at full volts. Source: textbook starting methods; NEMA MG 1 for the leads.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from typing import Literal

from evencoil.checks.restarts import Restart, restarts_of
from evencoil.connection import StartMethod, derive
from evencoil.errors import CoreError
from evencoil.sizing.starting import Start, start_shares
from evencoil.starters.catalogue import CatalogueEntry, catalogue
from evencoil.words import Message
from evencoil.work import Worked

__all__ = ["Choice", "Load", "choices", "hazards_of_entry", "start_of"]

Load = Literal["unknown", "empty", "loaded"]
Verdict = Literal["can", "cannot", "doubt"]
#: what a loaded machine asks for of the torque at full volts; assumed, no machine was read
_LOADED_PERCENT = Decimal(60)
_EMPTY_PERCENT = Decimal(25)
_SOFT: dict[str, Start] = {
    "star_delta": "wye_delta",
    "autotransformer": "autotransformer",
    "part_winding": "part_winding",
}
#: leads that must come out of the motor; nothing stands for any
_LEADS = {
    "star_delta": (6, 12),
    "part_winding": (6, 9, 12),
    "two_speed": (6,),
    "1C": (6,),
    "1D": (6, 12),
}
_KINDS = {
    "star_delta": {"6", "12"},
    "part_winding": {"part-winding", "9-wye", "12"},
    "1C": {"2-speed-ct", "2-speed-vt"},
    "1D": {"6", "12"},
    "11A": {"2-speed-ct", "2-speed-vt"},
    "11B": {"2-speed-cp"},
    "11C": {"2-speed-2-winding"},
}
_PLUGS = {"1B", "6B", "6C"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One starter beside the others.

    Attributes
    ----------
    id, group : str
        Of the catalogue.
    line_percent, torque_percent : Decimal
        At the first moment, of those at full volts.
    line_a : Decimal or None
        At the first moment, None where no locked-rotor current is known. [A]
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
    line_percent: Decimal
    torque_percent: Decimal
    line_a: Decimal | None
    leads: tuple[int, ...]
    verdict: Verdict
    reason: Message
    hazards: tuple[str, ...]


def start_of(entry: CatalogueEntry) -> Start:
    """Return how a circuit brings the motor to the line.

    Parameters
    ----------
    entry : CatalogueEntry
        The circuit.
    """
    return "wye_delta" if entry.id == "1D" else _SOFT.get(entry.group, "full_voltage")


@cache
def hazards_of_entry(circuit_id: str) -> tuple[str, ...]:
    """Return what a circuit of the catalogue does that nobody asks for, as it is drawn.

    Parameters
    ----------
    circuit_id : str
        For example ``2A``; a starter as found has none of its own.
    """
    known = catalogue().get(circuit_id)
    found: tuple[Restart, ...] = () if known is None else restarts_of(known.circuit)
    return (*found, "plugged") if circuit_id in _PLUGS else found


@dataclass(frozen=True, slots=True)
class _Facts:
    phases: int | None
    leads: int | None
    kind: str
    delta_fits: bool | None
    load: Load


def _barred(entry: CatalogueEntry, facts: _Facts) -> Message | None:
    """Return why the motor's own phases, leads or winding rule a circuit out."""
    if facts.phases and (facts.phases == 1) != (entry.group == "single_phase"):
        return Message("choose.phases", {"phases": str(facts.phases)})
    wanted = _LEADS.get(entry.id) or _LEADS.get(entry.group, ())
    if wanted and facts.leads and facts.leads not in wanted:
        listed = " or ".join(str(count) for count in wanted)
        return Message("choose.leads", {"leads": str(facts.leads), "wanted": listed})
    kinds = _KINDS.get(entry.id) or _KINDS.get(entry.group)
    if kinds and facts.kind and facts.kind not in kinds:
        return Message("choose.kind", {"kind": facts.kind})
    if (entry.group == "star_delta" or entry.id == "1D") and facts.delta_fits is False:
        return Message("choose.delta_volts")
    return None


def _reason(entry: CatalogueEntry, torque: Decimal, facts: _Facts) -> tuple[Verdict, Message]:
    """Return whether a circuit can, and the one reason that matters most."""
    barred = _barred(entry, facts)
    if barred is not None:
        return "cannot", barred
    need = {"loaded": _LOADED_PERCENT, "empty": _EMPTY_PERCENT}.get(facts.load)
    said = {"torque": f"{torque:.0f}", "need": "" if need is None else f"{need:.0f}"}
    if need is not None and torque < need:
        return "cannot", Message("choose.torque", said)
    if need is None and torque < 100:
        return "doubt", Message("choose.torque_unknown", said)
    if start_of(entry) != "full_voltage":
        return "can", Message("choose.soft", said)
    return "can", Message(f"choose.can.{entry.group}")


def _starts_as(worked: Worked, method: StartMethod) -> bool | None:
    """Tell whether the leads can be joined for a way to start; None if nothing tells."""
    box, supply, verdict = worked.box, worked.supply, worked.verdict
    if box.winding is None or box.rating is None or supply is None or verdict is None:
        return None
    try:
        derive(box.winding, rating=box.rating, supply=supply, verdict=verdict, start_method=method)
    except CoreError:
        return False
    return True


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
    plate, winding = worked.reading.plate, worked.box.winding
    facts = _Facts(
        plate.phases,
        plate.leads,
        winding.kind if winding is not None else "",
        _starts_as(worked, "wye_delta"),
        load,
    )
    found = []
    for entry in catalogue().values():
        if entry.id in {"2B", "5C"}:
            continue  # drawn as lessons, never to be wired
        _, line, torque = start_shares(start_of(entry), tap_percent)
        torque_percent = torque * 100
        verdict, reason = _reason(entry, torque_percent, facts)
        wanted = _LEADS.get(entry.id) or _LEADS.get(entry.group, ())
        found.append(
            Choice(
                id=entry.id,
                group=entry.group,
                line_percent=line * 100,
                torque_percent=torque_percent,
                line_a=None if locked is None else locked * line,
                leads=wanted,
                verdict=verdict,
                reason=reason,
                hazards=hazards_of_entry(entry.id),
            )
        )
    return tuple(found)
