"""Larkfall Lime Works as a whole plant: motors by rule, some of them wrong by rule. All made up.

Ratings are those of the trade at 460 V: fuse and conductor by 430.52 and 430.22 from Table
430.250, heaters at 120 % of the nameplate. What is wrong is wrong at fixed places, so that an
audit of it can be foretold by counting.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

__all__ = ["PLANT", "PlantMotor", "plant_motors"]

PLANT = {
    "slug": "larkfall-plant",
    "name": "Larkfall Lime Works, whole plant",
    "time_zone": "America/Denver",
}
#: horsepower, nameplate amps at 460 V, dual-element fuse [A], copper at 75 degrees C, speed
_RATINGS = (
    ("5", "6.6", "15", "14", "1750"),
    ("7.5", "9.6", "20", "14", "1750"),
    ("10", "12.8", "25", "14", "1755"),
    ("15", "18.8", "40", "10", "1765"),
    ("20", "24.2", "50", "10", "1765"),
    ("25", "30", "60", "8", "1765"),
    ("30", "36", "70", "8", "1770"),
    ("40", "48", "100", "6", "1775"),
    ("50", "59", "125", "4", "1775"),
    ("60", "70", "150", "3", "1780"),
    ("75", "87", "175", "1", "1780"),
)
_STAMPED = "60 HZ, 3 PH, SF 1.15, CODE G, DES B, 3 LEADS"
#: what drives what, and the letters of its tags
_DRIVEN = (
    ("BC", "belt conveyor"),
    ("SC", "screw conveyor"),
    ("BE", "bucket elevator"),
    ("IF", "induced draft fan"),
    ("WP", "water pump"),
    ("RC", "rotary cooler"),
    ("DC", "dust collector fan"),
)
_MACHINES = ("Lime Line 1", "Lime Line 2", "Kiln house", "Stack", "Water house", "Load-out")
#: conductors that are too small for every motor whose own is the key; 14 AWG has none smaller
_SMALLER = {"10": "14", "8": "10", "6": "8", "4": "6", "3": "6", "1": "3"}
_CIRCUITS = ("3A", "3A", "2A", "3A", "6A", "3A", "4A")


@dataclass(frozen=True, slots=True)
class PlantMotor:
    """A motor by rule; ``wrong`` names what is not as it should be, empty if it is right."""

    tag: str
    name: str
    machine: str
    panel: str
    plate: str
    supply: dict[str, Any]
    leads: dict[str, Any]
    size: dict[str, Any]
    starter: dict[str, Any]
    wrong: str


def _wrong(k: int) -> str:
    """Return what is wrong with motor k: the first of these whose turn it is."""
    for every, name in (
        (17, "heaters"),
        (23, "wire"),
        (29, "fuse"),
        (19, "starter_ka"),
        (41, "supply"),
        (7, "not_recorded"),
    ):
        if k % every == every - 1:
            return name
    return ""


def plant_motors(count: int) -> Iterator[PlantMotor]:
    """Go through the motors of a plant.

    Parameters
    ----------
    count : int
        How many; the first ones are the same in every plant.
    """
    for k in range(count):
        hp, amps, fuse, wire, rpm = _RATINGS[k % len(_RATINGS)]
        letters, name = _DRIVEN[k % len(_DRIVEN)]
        wrong = _wrong(k)
        if wrong == "wire" and wire not in _SMALLER:
            wrong = ""
        trip = round(float(amps) * (1.6 if wrong == "heaters" else 1.2), 1)
        there = {
            "cable": "raceway",
            "cable_size": _SMALLER[wire] if wrong == "wire" else wire,
            "terminal_c": 75,
            "device_a": str(2 * int(fuse)) if wrong == "fuse" else fuse,
            "trip_a": str(trip),
        }
        size: dict[str, Any] = {
            "protection_kind": "dual_element_fuse",
            "conductor_material": "cu",
            "insulation": "THWN",
            "ambient_c": "30",
            "current_carrying": 3,
            "termination_c": 75,
            "fault": {"device_ka": "200", "starter_ka": "5" if wrong == "starter_ka" else "25"},
            "place": {"motor_ft": "30", "motor_visible": True},
        }
        if wrong != "not_recorded":
            size["existing"] = there
        yield PlantMotor(
            tag=f"{letters}-{k + 100}",
            name=name,
            machine=_MACHINES[k % len(_MACHINES)],
            panel=f"MCC-{k // 25 % 12 + 1}",
            plate=f"{hp} HP, 460 V, {amps} A, {rpm} RPM, {_STAMPED}",
            supply={
                "text": "208Y/120" if wrong == "supply" else "480Y/277",
                "fault_current_a": "18000",
            },
            leads={
                "winding": "3-wye",
                "joints": [
                    {"id": f"joint.line_{n}", "line": f"L{n}", "leads": [f"T{n}"]}
                    for n in (1, 2, 3)
                ],
            },
            size=size,
            starter={"standard_circuit": _CIRCUITS[k % len(_CIRCUITS)]},
            wrong=wrong,
        )
