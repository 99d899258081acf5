"""Questions of starts at reduced volts: what is in the line, in the leg, across a coil.

Source: NEC 430 through `evencoil.job` for legs and overloads; star and autotransformer by
their ratios (textbook topic); the wrong routes are judgment of the trade.
"""

from __future__ import annotations

import random
from collections.abc import Callable
from decimal import Decimal

from evencoil.base import plain
from evencoil.practice.lots import Case, facts_of, figure_case, motor_lot
from evencoil.practice.model import Fact
from evencoil.sizing import start_shares

__all__ = ["REDUCED"]

_SIX = {"winding": "6", "run_shape": "delta", "start_method": "wye_delta"}
_TAPS = ("50", "65", "80")
_ROOT_3 = Decimal(3).sqrt()
_HALF = Decimal("0.5")
_LEG = Decimal("0.58")
#: coils stand by their number of halves, in series at the high voltage
_NINE = {"460": (2, "series"), "230": (1, "parallel")}


def _star_line(rng: random.Random, setting: str) -> Case | None:
    lot = motor_lot(rng, setting)
    locked = lot.value("locked_rotor_table_a")
    right = locked / 3
    return figure_case(
        rng,
        facts=tuple(facts_of(lot).values()),
        needed={"power", "volts", "design"},
        right=right,
        routes=[
            ("star_58", Decimal("0.58") * locked),
            ("star_half", _HALF * locked),
            ("star_all", locked),
            ("star_of_table", lot.table_a / 3),
        ],
        steps=[lot.step("locked_rotor_table_a")],
        textbook=["star: a third of the line current of delta (textbook)"],
        working=[f"{plain(locked)} A / 3 = {plain(right)} A"],
    )


def _autotransformer(rng: random.Random, setting: str) -> Case | None:
    lot = motor_lot(rng, setting)
    tap = rng.choice(_TAPS)
    locked = lot.value("locked_rotor_table_a")
    _, line, _ = start_shares("autotransformer", Decimal(tap))
    part = Decimal(tap) / 100
    return figure_case(
        rng,
        facts=(*facts_of(lot).values(), Fact("tap", f"{tap} %")),
        needed={"power", "volts", "design", "tap"},
        right=locked * line,
        routes=[
            ("tap_once", locked * part),
            ("star_all", locked),
            ("tap_third", locked / 3),
            ("tap_of_table", lot.table_a * line),
        ],
        steps=[lot.step("locked_rotor_table_a")],
        textbook=["an autotransformer: volts by the tap, line amps by its square (textbook)"],
        working=[f"{plain(locked)} A x {plain(part)} x {plain(part)} = {plain(locked * line)} A"],
    )


def _leg_wire(rng: random.Random, setting: str) -> Case | None:
    lot = motor_lot(rng, setting, leads=_SIX)
    return figure_case(
        rng,
        facts=(*facts_of(lot).values(), Fact("start", "wye-delta, six leads to the box")),
        needed={"power", "volts", "start"},
        right=lot.value("leg_ampacity_a"),
        routes=[
            ("leg_full", Decimal("1.25") * lot.table_a),
            ("leg_58", _LEG * lot.table_a),
            ("leg_nameplate", Decimal("0.72") * lot.amps),
            ("leg_half", _HALF * Decimal("1.25") * lot.table_a),
        ],
        steps=[lot.step("table_flc_a"), lot.step("leg_ampacity_a")],
    )


def _leg_overload(rng: random.Random, setting: str) -> Case | None:
    lot = motor_lot(rng, setting, leads=_SIX, size={"overload": {"place": "leg"}})
    percent = Decimal("1.25") if lot.service_factor == "1.15" else Decimal("1.15")
    return figure_case(
        rng,
        facts=(
            *facts_of(lot).values(),
            Fact("start", "wye-delta, six leads to the box"),
            Fact("overload_place", "in the legs, between contactor and leads"),
        ),
        needed={"amps", "service_factor", "start", "overload_place"},
        right=lot.value("leg_overload_setting_a"),
        routes=[
            ("line_in_leg", percent * lot.amps),
            ("leg_no_percent", _LEG * lot.amps),
            ("leg_half_overload", _HALF * percent * lot.amps),
            ("leg_by_table", _LEG * percent * lot.table_a),
        ],
        steps=[lot.step("overload_setting_a"), lot.step("leg_overload_setting_a")],
    )


def _part_winding(rng: random.Random, setting: str) -> Case | None:
    lot = motor_lot(
        rng, setting, leads={"winding": "9-wye", "run_shape": "wye", "start_method": "part_winding"}
    )
    return figure_case(
        rng,
        facts=(*facts_of(lot).values(), Fact("start", "part winding, two halves")),
        needed={"power", "volts", "start"},
        right=lot.value("leg_ampacity_a"),
        routes=[
            ("part_58", Decimal("0.72") * lot.table_a),
            ("leg_full", Decimal("1.25") * lot.table_a),
            ("part_half", _HALF * lot.table_a),
            ("part_nameplate", Decimal("0.625") * lot.amps),
        ],
        steps=[lot.step("table_flc_a"), lot.step("leg_ampacity_a")],
    )


def _coil_volts(rng: random.Random, setting: str) -> Case | None:
    del setting
    volts = rng.choice(tuple(_NINE))
    halves, joined = _NINE[volts]
    line = Decimal(volts)
    phase = line / _ROOT_3
    right = phase / halves
    routes: list[tuple[str, Decimal | None]] = [
        ("coil_line", line),
        ("coil_half_line", line / 2),
        ("coil_phase", phase if halves == 2 else None),
        ("coil_half_phase", phase / 2 if halves == 1 else None),
        ("coil_third", line / 3),
    ]
    working = [f"{volts} V / 1.732 = {plain(phase.quantize(Decimal('0.1')))} V across a phase"]
    if halves == 2:
        working.append(
            f"two halves in series share it: {plain(right.quantize(Decimal('0.1')))} V each"
        )
    else:
        working.append("two halves in parallel each have all of it")
    shown = right.quantize(Decimal("0.1"))
    power, rpm = rng.choice(("10", "15", "20", "25", "30", "40")), rng.choice(("1170", "1765"))
    return figure_case(
        rng,
        facts=(
            Fact("winding", "nine leads, wye"),
            Fact("supply", f"{volts} V, three phase"),
            Fact("joined", f"halves in {joined}"),
            Fact("power", f"{power} hp"),
            Fact("speed", f"{rpm} rpm"),
        ),
        needed={"winding", "supply", "joined"},
        right=shown,
        routes=[
            (name, None if value is None else value.quantize(Decimal("0.1")))
            for name, value in routes
        ],
        steps=[],
        working=working,
        unit="V",
        textbook=["wye: a phase has the line's volts divided by 1.732 (textbook)"],
    )


REDUCED: dict[str, Callable[[random.Random, str], Case | None]] = {
    "star_line": _star_line,
    "autotransformer": _autotransformer,
    "leg_wire": _leg_wire,
    "leg_overload": _leg_overload,
    "part_winding": _part_winding,
    "coil_volts": _coil_volts,
}
