"""What is read once for each motor of a panel: ground of its frame, insulation of its windings.

Units: [ohm], [Mohm], [V], [C].
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from evencoil.base import Message
from evencoil.checks import insulation_bands, least_at_40_mohm, volts_of_tester
from evencoil.circuit import Circuit
from evencoil.job.inputs import JobInputs
from evencoil.job.worked import Worked

__all__ = ["PanelItem", "expected_of", "panel_items"]

#: judgment: frame to the ground of the panel, through lugs and conduit bonds [ohm]
_GROUND_OHM = "0.5"
#: in the windings: a tester's volts destroy them
_SENSORS = {"ptc", "thermostat", "rtd"}


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelItem:
    """A reading of one motor: its kind of entry, and what has to be off before it.

    Attributes
    ----------
    kind : str
        Of the entry: ``ground_continuity`` or ``insulation_reading``.
    tester_v : str
        Direct volts of the insulation tester, or from one to another; empty for none. [V]
    asks : str
        Where its least reading comes from.
    off : tuple of str
        What is disconnected first, each said by itself.
    """

    id: str
    kind: str
    said: str
    unit: str
    tester_v: str = ""
    asks: str = ""
    off: tuple[str, ...] = ()


def panel_items(
    inputs: JobInputs, worked: Worked, circuit: Circuit, read: Collection[str] = ()
) -> tuple[PanelItem, ...]:
    """Return ground and insulation of each motor of a circuit.

    The ground of a frame that an ohm reading goes to is that reading: it is not asked twice.

    Parameters
    ----------
    inputs : JobInputs
        As entered.
    worked : Worked
        The same, calculated.
    circuit : Circuit
        Its starter.
    read : collection of str
        Terminals that ohm readings near zero go to.
    """
    rated = _rated_v(worked)
    return tuple(
        item
        for motor in circuit.netlist.devices
        if motor.type.startswith("motor")
        for item in (
            *_ground_of(circuit, motor.id, read),
            PanelItem(
                id=f"insulation.{motor.id}",
                kind="insulation_reading",
                said=_said("panel.item.insulation", circuit, motor.id),
                unit="Mohm",
                tester_v="" if rated is None else volts_of_tester(rated),
                asks=_asks(rated),
                off=tuple(_off(inputs, worked, circuit, motor.id)),
            ),
        )
    )


def _ground_of(circuit: Circuit, motor: str, read: Collection[str]) -> Iterator[PanelItem]:
    """Return the ground of a motor's frame, unless an ohm reading goes there."""
    if f"{motor}.PE" not in read:
        yield PanelItem(
            id=f"ground.{motor}",
            kind="ground_continuity",
            said=_said("panel.item.ground", circuit, motor),
            unit="ohm",
        )


def expected_of(items: tuple[PanelItem, ...], worked: Worked) -> Mapping[str, Mapping[str, Any]]:
    """Return unit and bounds of each reading; none for a winding of unknown volts.

    Parameters
    ----------
    items : tuple of PanelItem
        Of a panel.
    worked : Worked
        Its job, calculated.
    """
    rated = _rated_v(worked)
    found: dict[str, dict[str, Any]] = {}
    for item in items:
        if item.kind == "ground_continuity":
            found[item.id] = {"unit": "ohm", "min": "0", "max": _GROUND_OHM}
        elif rated is not None:
            found[item.id] = {"unit": "Mohm", "bands": [list(b) for b in insulation_bands(rated)]}
    return found


def _rated_v(worked: Worked) -> Decimal | None:
    """Return the highest volts stamped on the motor; None where none is [V]."""
    return max((band.last for band in worked.reading.plate.volts_v), default=None)


def _asks(rated: Decimal | None) -> str:
    """Return where the least insulation comes from."""
    if rated is None:
        return str(Message("insulation.asks_nothing"))
    least = f"{least_at_40_mohm(rated):f}"
    return str(Message("insulation.asks", {"least": least, "volts": f"{rated.normalize():f}"}))


def _said(code: str, circuit: Circuit, motor: str) -> str:
    return str(Message(code, {"tag": circuit.tags.get(motor, motor)}))


def _off(inputs: JobInputs, worked: Worked, circuit: Circuit, motor: str) -> Iterator[str]:
    """Go through what has to be off before a tester is put to a winding."""
    yield _said("insulation.off.leads", circuit, motor)
    for item in circuit.netlist.devices:
        if item.type in _SENSORS:
            yield _said("insulation.off.sensor", circuit, item.id)
    single = inputs.leads.single
    if single is not None and single.capacitors not in {"", "none"}:
        yield _said("insulation.off.capacitor", circuit, motor)
    has_drive = any(item.type == "drive" for item in circuit.netlist.devices)
    if has_drive or (worked.supply is not None and worked.supply.system == "drive"):
        yield _said("insulation.off.drive", circuit, motor)
    yield _said("insulation.off.unseen", circuit, motor)
