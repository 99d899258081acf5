"""Larkfall Lime Works, Lime Line 1, moving from 240 V delta to 480Y/277. All made up."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

__all__ = [
    "HEATERS",
    "HEATERS_NAME",
    "HEATERS_SOURCE",
    "MACHINE",
    "MOTORS",
    "PASSWORD",
    "PEOPLE",
    "WORKS",
    "DemoMotor",
]

WORKS = {"slug": "larkfall", "name": "Larkfall Lime Works", "time_zone": "America/Denver"}
MACHINE, WATER = "Lime Line 1", "Water house"
PASSWORD = "kiln-two-runs-hot"  # printed by ./start for the made-up people
PEOPLE = {
    "marta": ("Marta Quillan", "electrician"),
    "dov": ("Dov Ansell", "admin"),
    "ruth": ("Ruth Okafor-Lind", "reviewer"),
    "pim": ("Pim Tarrow", "apprentice"),
}


@dataclass(frozen=True, slots=True)
class DemoMotor:
    """A motor of the demo line, as far as its plate was read."""

    tag: str
    name: str
    plate: str = ""
    supply: str = ""
    size: dict[str, object] = field(default_factory=dict)
    leads: dict[str, object] = field(default_factory=dict)
    starter: dict[str, object] = field(default_factory=dict)
    load: dict[str, object] = field(default_factory=dict)
    panel: Literal["", "half_wired", "ready_to_sign"] = ""
    machine: str = MACHINE


_SAID: dict[str, object] = {
    "conductor_material": "cu",
    "insulation": "THHN/THWN-2",
    "ambient_c": "40",
    "current_carrying": 3,
    "protection_kind": "dual_element_fuse",
}
_ONE_COIL: dict[str, object] = {
    "coils": [{"label": "KM1", "count": 1, "inrush_va": "245", "sealed_va": "27"}],
    "lamps_va": "8",
}
_SERIES: dict[str, object] = {
    "winding": "9-wye",
    "joints": [
        {"id": "joint.line_1", "leads": ["T1"], "line": "L1"},
        {"id": "joint.line_2", "leads": ["T2"], "line": "L2"},
        {"id": "joint.line_3", "leads": ["T3"], "line": "L3"},
        {"id": "joint.series_a", "leads": ["T4", "T7"]},
        {"id": "joint.series_b", "leads": ["T5", "T8"]},
        {"id": "joint.series_c", "leads": ["T6", "T9"]},
    ],
}
_LEFT_LOW: dict[str, object] = {
    "winding": "9-delta",
    "joints": [
        {"id": "joint.line_1", "leads": ["T1", "T6", "T7"], "line": "L1"},
        {"id": "joint.line_2", "leads": ["T2", "T4", "T8"], "line": "L2"},
        {"id": "joint.line_3", "leads": ["T3", "T5", "T9"], "line": "L3"},
    ],
}
MOTORS = (
    DemoMotor(
        "JC-1",
        "jaw crusher",
        "75 HP, 230/460 V, 176/88 A, 1780 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 12 LEADS",
        "480Y/277",
        {
            **_SAID,
            "termination_c": 75,
            "run_length_ft": "180",
            "raceway": {"kind": "EMT", "trade_size": "2"},
            "fault": {"device_ka": "200", "starter_ka": "5", "device_volts": "600"},
            "place": {
                "controller_ft": "6",
                "controller_visible": True,
                "motor_ft": "85",
                "motor_visible": False,
                "lockable": True,
                "kind": "motor_circuit_switch",
                "amps_a": "200",
                "rated_hp": "75",
            },
            "control": {
                "volts_v": "120",
                "coils": [
                    {"label": "1M, 2M", "count": 2, "inrush_va": "570", "sealed_va": "55"},
                    {"label": "1S", "count": 1, "inrush_va": "570", "sealed_va": "55"},
                    {"label": "TR", "count": 1, "inrush_va": "20", "sealed_va": "8"},
                ],
                "lamps_va": "15",
            },
            "overload": {
                "place": "leg",
                "dial_has_125": False,
                "trip_class": 20,
                "accelerates_s": "6",
            },
            "existing": {
                "cable": "raceway",
                "cable_size": "1",
                "cable_insulation": "THHN/THWN-2",
                "terminal_c": 75,
                "device_a": "175",
                "trip_a": "63.8",
            },
        },
        {"run_shape": "delta", "start_method": "wye_delta"},
        load={
            "kind": "crusher",
            "torque_percent": "35",
            "breakaway_percent": "45",
            "inertia_lb_ft2": "160",
        },
    ),
    DemoMotor(
        "IC-2",
        "incline conveyor",
        "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, "
        "40 C AMB, 9 LEADS",
        "480Y/277",
        {
            **_SAID,
            "control": {
                "coils": [
                    {"label": "KM1", "count": 1, "inrush_va": "245", "sealed_va": "27"},
                    {"label": "KA1", "count": 1, "inrush_va": "12", "sealed_va": "5"},
                ],
                "lamps_va": "8",
            },
        },
        _SERIES,
        {"standard_circuit": "3A", "options": {"estop": "reset_relay"}},
        {
            "kind": "conveyor",
            "torque_percent": "75",
            "breakaway_percent": "110",
            "inertia_lb_ft2": "12",
            "has_backstop": True,
        },
    ),
    DemoMotor(
        "BM-3",
        "ball mill",
        "HP 150  V 230/460  A 346/173  RPM 1785  HZ 60  PH 3  SF 1.15  CODE G  DES B  LEADS 9",
        "480Y/277",
        {"conductor_material": "cu", "insulation": "THHN/THWN-2"},
        _LEFT_LOW,
    ),
    DemoMotor(
        "LS-4",
        "lime slaker agitator",
        "10/5 HP, 230 V, 27/16 A, 1750/870 RPM, 60 HZ, 3 PH, SF 1.0, 6 LEADS, 2 SPEED",
        "480Y/277",
        leads={"groups": [6]},
    ),
    DemoMotor(
        "SF-5",
        "screw feeder",
        "5 HP, 230/460 V, 13.2/6.6 A, 1745 RPM, 60 HZ, 3 PH, SF 1.15, CODE J, DES B, 9 LEADS",
        "480Y/277",
        starter={
            "standard_circuit": "6C",
            "accepted": [
                {
                    "hazard": "plugged",
                    "why": "the screw stops within a turn; contactors rated for plugging",
                    "by": "Dov Ansell",
                    "at": "2026-11-26T08:00:00Z",
                }
            ],
        },
    ),
    DemoMotor("BS-6", "bag stitcher"),
    DemoMotor(
        "RC-7",
        "reclaim conveyor",
        "10 HP, 230/460 V, 26.4/13.2 A, 1755 RPM, 60 HZ, 3 PH, SF 1.15, CODE H, DES B, 9 LEADS",
        "480Y/277",
        {**_SAID, "control": _ONE_COIL},
        _SERIES,
        {"standard_circuit": "3A"},
        {"kind": "conveyor", "torque_percent": "70", "inertia_lb_ft2": "9"},
        panel="half_wired",
    ),
    DemoMotor(
        "DF-8",
        "dust fan",
        "7.5 HP, 230/460 V, 20/10 A, 1750 RPM, 60 HZ, 3 PH, SF 1.15, CODE H, DES B, 9 LEADS",
        "480Y/277",
        {**_SAID, "control": _ONE_COIL},
        _SERIES,
        {"standard_circuit": "3A"},
        {"kind": "fan", "torque_percent": "80", "inertia_lb_ft2": "20"},
        panel="ready_to_sign",
    ),
    DemoMotor(
        "WP-9",
        "wash water pump",
        "5 HP, 230/460 V, 13.2/6.6 A, 1745 RPM, 60 HZ, 3 PH, SF 1.15, CODE J, DES B, 9 LEADS",
        "480Y/277",
        {**_SAID, "control": _ONE_COIL},
        _SERIES,
        {"standard_circuit": "13B"},
        {"kind": "fan", "torque_percent": "80", "inertia_lb_ft2": "2"},
        machine=WATER,
    ),
    DemoMotor(
        "BF-10",
        "basin fan",
        "10 HP, 230/460 V, 26.4/13.2 A, 1755 RPM, 60 HZ, 3 PH, SF 1.15, CODE H, DES B, 9 LEADS",
        "480Y/277",
        _SAID,
        _SERIES,
        {"standard_circuit": "17B"},
        {"kind": "fan", "torque_percent": "70", "inertia_lb_ft2": "30"},
        machine=WATER,
    ),
)

#: a made-up chart, as copied from a door: relay, size, elements, air, heater, from, to [A]
HEATERS_NAME = "Lime Line 1 doors"
HEATERS_SOURCE = "made up for the demo"
HEATERS = "Relay,Starter size,Elements,Ambient,Heater,From A,To A\n" + "".join(
    f"LK-2,{size},3,same air,{code},{low},{high}\n"
    for size, code, low, high in (
        ("1", "L 8", "5.50", "6.05"),
        ("1", "L 9", "6.06", "6.66"),
        ("1", "L10", "6.67", "7.33"),
        ("1", "L11", "7.34", "8.07"),
        ("2", "L18", "14.3", "15.7"),
        ("2", "L19", "15.8", "17.3"),
        ("2", "L20", "17.4", "18.5"),
        ("2", "L21", "18.6", "20.4"),
        ("2", "L22", "20.5", "22.5"),
        ("2", "L27", "33.1", "36.3"),
        ("2", "L28", "36.4", "40.0"),
        ("4", "L40", "79.0", "86.9"),
        ("4", "L41", "87.0", "95.6"),
    )
)
