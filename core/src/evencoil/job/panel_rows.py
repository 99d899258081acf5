"""The ohm readings of a panel, and what each should be: estimated, or by this job's own coils.

A coil that was read on the bench is held against what was read there; every other coil is an
estimate, and a reading through it is held within five times.

Units: [ohm].
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from decimal import Decimal

from evencoil.acts import Row
from evencoil.base import Message
from evencoil.checks import Check, DeadChecks, ohms_read, said_expected, said_hand
from evencoil.circuit import Circuit, Device, types

__all__ = ["PanelRow", "as_row", "bounds_of", "has_coil", "panel_rows", "row_id"]

#: a near-zero reading, and one that is open [ohm]; an estimate of a coil holds within five times
_ZERO_OHM, _OPEN_OHM, _TIMES = 1.0, 1e6, 5.0
#: judgment: meter, leads and warmth of a coil that was read on the bench, either way
_OWN = 0.15
#: a reading that moves by more than this with a coil goes through it
_MOVES = 0.01


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelRow:
    """An ohm reading to take: where, with what held, what it should read, where wrong points to."""

    id: str
    start_said: str
    end_said: str
    held: tuple[str, ...]
    expects: str
    wires: tuple[str, ...]


def row_id(check: Check) -> str:
    """Return what names a reading: its ends and what is held, whatever its place in a list.

    Parameters
    ----------
    check : Check
        Which.
    """
    told = f"{check.start} {check.end} {[(h.verb, h.device, h.word) for h in check.hands]}"
    return f"row.{hashlib.sha256(told.encode()).hexdigest()[:12]}"


def has_coil(item: Device) -> bool:
    """Tell whether a device has a coil whose ohms can be read.

    Parameters
    ----------
    item : Device
        Of a netlist.
    """
    known = types().get(item.type)
    return known is not None and any(one.name == "coil_ohm" for one in known.parameters)


def bounds_of(
    circuit: Circuit, dead: DeadChecks, own: Mapping[str, Decimal]
) -> dict[str, tuple[str, str | None, bool]]:
    """Return least, most, and whether they come from coils that were read, by the row's id.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    dead : DeadChecks
        Its ohm readings.
    own : mapping
        Ohms read on this job's coils, by device.
    """
    through = [check for check in dead.checks if check.kind == "ohms"]
    solved = _by_own(circuit, through, own) if own else {}
    found: dict[str, tuple[str, str | None, bool]] = {}
    for check in dead.checks:
        name = row_id(check)
        if check.kind == "zero":
            found[name] = ("0", f"{_ZERO_OHM:g}", False)
        elif check.kind == "open":
            found[name] = (f"{_OPEN_OHM:.0f}", None, False)
        elif name in solved:
            ohms = solved[name]
            found[name] = (f"{ohms * (1 - _OWN):.3g}", f"{ohms * (1 + _OWN):.6g}", True)
        else:
            found[name] = (f"{check.ohms / _TIMES:.3g}", f"{check.ohms * _TIMES:.6g}", False)
    return found


def _by_own(circuit: Circuit, checks: list[Check], own: Mapping[str, Decimal]) -> dict[str, float]:
    """Return the ohms of readings that go through coils that were read, and no other coil."""
    coils = [item.id for item in circuit.netlist.devices if has_coil(item)]
    observed = [check.as_drawn for check in checks]
    base = _with(circuit, own)
    ohms = ohms_read(base, observed)
    read: set[int] = set()
    guessed: set[int] = set()
    for coil in coils:
        usual = own.get(coil, Decimal(500))
        moved = ohms_read(_with(base, {coil: usual * 3}), observed)
        less = ohms_read(_with(base, {coil: usual / 3}), observed)
        touched = {
            place
            for place, (more, few) in enumerate(zip(moved, less, strict=True))
            if abs(more - few) > _MOVES * max(more, few)
        }
        (read if coil in own else guessed).update(touched)
    return {row_id(checks[place]): ohms[place] for place in read - guessed}


def _with(circuit: Circuit, own: Mapping[str, Decimal]) -> Circuit:
    """Return a circuit whose coils have the ohms that were read."""
    netlist = circuit.netlist
    devices = tuple(
        replace(item, parameters={**item.parameters, "coil_ohm": f"{own[item.id]:f}"})
        if item.id in own
        else item
        for item in netlist.devices
    )
    return replace(circuit, netlist=replace(netlist, devices=devices))


def panel_rows(
    circuit: Circuit, dead: DeadChecks, bounds: Mapping[str, tuple[str, str | None, bool]]
) -> tuple[PanelRow, ...]:
    """Return the readings as they are shown.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    dead : DeadChecks
        Its ohm readings.
    bounds : mapping
        From `bounds_of`.
    """
    return tuple(
        PanelRow(
            id=row_id(check),
            start_said=circuit.said(check.start),
            end_said=circuit.said(check.end),
            held=tuple(str(said_hand(circuit, hand)) for hand in dead.held(check)),
            expects=str(Message("panel.row.own"))
            if bounds[row_id(check)][2]
            else str(said_expected(check)),
            wires=check.covers,
        )
        for check in dead.checks
    )


def as_row(bounds: tuple[str, str | None, bool], wires: tuple[str, ...]) -> Row:
    """Return a reading as entries are judged by it.

    Parameters
    ----------
    bounds : tuple
        Of one row.
    wires : tuple of str
        Wires to land that it shows.
    """
    return Row(wires=wires, least=bounds[0], most=bounds[1])
