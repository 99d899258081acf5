"""What can trip at a panel, what resets by itself, and how many starts in a row are stood.

Units: [s].
"""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import CoreError, Message
from evencoil.circuit import Circuit
from evencoil.job.run_up import JobRunUp

__all__ = ["PanelDevice", "panel_devices", "starts_in_a_row"]

#: what opens by itself, and what holds a heater or a dial
_TRIPS = {
    "olr",
    "mms",
    "cb3",
    "fuse",
    "fdisc",
    "ptcrelay",
    "thermostat",
    "phasemon",
    "gfr",
    "manual",
}
_SET = {"olr", "mms", "cb3", "manual", "timer", "sdtimer"}


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelDevice:
    """A device that can trip, or that has something set.

    Attributes
    ----------
    resets_itself : bool
        It closes again without a hand: what is still asked to run then starts.
    """

    id: str
    said: str
    can_trip: bool
    has_setting: bool
    resets_itself: bool


def panel_devices(circuit: Circuit) -> tuple[PanelDevice, ...]:
    """Return what can trip or is set, as the drawing has it.

    Parameters
    ----------
    circuit : Circuit
        As drawn.
    """
    return tuple(
        PanelDevice(
            id=item.id,
            said=circuit.tags.get(item.id, item.id),
            can_trip=item.type in _TRIPS,
            has_setting=item.type in _SET,
            resets_itself=item.type == "thermostat" or item.parameters.get("reset") == "auto",
        )
        for item in circuit.netlist.devices
        if item.type in _TRIPS | _SET
    )


def starts_in_a_row(ready: JobRunUp | None) -> tuple[str, ...]:
    """Return how many starts this motor stands, in words; empty where it is not known.

    Parameters
    ----------
    ready : JobRunUp or None
        The motor, ready to run; None where something is missing for it.
    """
    if ready is None:
        return ()
    try:
        found = ready.restart()
    except CoreError:
        return ()
    if found is None:
        return ()
    said = [Message("panel.starts.row", {"cold": str(found.cold), "hot": str(found.hot)})]
    if found.wait_s:
        said.append(Message("panel.starts.wait", {"minutes": f"{-(-found.wait_s // 60):.0f}"}))
    if found.per_hour is not None:
        said.append(Message("panel.starts.hour", {"count": str(found.per_hour)}))
    return tuple(str(one) for one in said)
