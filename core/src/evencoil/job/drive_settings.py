"""The settings of each drive, as a sheet to set it by: what each is, and where it comes from.

Source: NEC 430.122 to 430.130 (what the settings have to agree with); notes on long leads and
bearing currents from trade practice of drives (NEMA MG 1 part 31 in its sense).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from evencoil.base import Message
from evencoil.circuit import Circuit, Device, type_of

__all__ = ["DriveSetting", "DriveSettings", "drive_settings"]

_NOTES = ("leads", "bearings", "winding", "behind", "bus")


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveSetting:
    """One setting: its label, its value with unit, and on what it stands."""

    name: str
    said: Message
    value: str
    unit: str
    ground: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveSettings:
    """All settings of one drive, with what has to be known besides."""

    tag: str
    settings: tuple[DriveSetting, ...]
    notes: tuple[Message, ...]


def drive_settings(
    circuit: Circuit | None, is_stated: Callable[[str, str], bool]
) -> tuple[DriveSettings, ...]:
    """Return the sheet of every drive of a circuit.

    Parameters
    ----------
    circuit : Circuit or None
        As drawn; None has no drive.
    is_stated : callable
        From device and setting: whether a step of the job or a person stands behind it.
    """
    if circuit is None:
        return ()
    return tuple(
        DriveSettings(
            tag=circuit.tags.get(item.id, item.id),
            settings=tuple(_settings(item, is_stated)),
            notes=tuple(Message(f"drive.note.{name}") for name in _NOTES),
        )
        for item in circuit.netlist.devices
        if item.type == "drive"
    )


def _settings(item: Device, is_stated: Callable[[str, str], bool]) -> list[DriveSetting]:
    found = []
    for parameter in type_of(item.type).parameters:
        value = item.parameters.get(parameter.name, "")
        if is_stated(item.id, parameter.name):
            ground = "job"
        elif value == parameter.default:
            ground = "usual"
        else:
            ground = "drawn"
        found.append(
            DriveSetting(
                name=parameter.name,
                said=Message(f"setting.{parameter.name}"),
                value=value,
                unit=parameter.unit,
                ground=Message(f"drive.ground.{ground}"),
            )
        )
    return found
