"""Questions of one figure of a motor: current, ampacity, device, overload, disconnect.

Source: NEC 430 through `evencoil.job`; the wrong routes are judgment of the trade.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any

from evencoil.practice.lots import (
    PERCENT,
    Case,
    MotorLot,
    facts_of,
    figure_case,
    motor_lot,
)
from evencoil.practice.model import Fact

__all__ = ["FIGURES", "figure"]

Routes = Iterator[tuple[str, Decimal | None]]
#: kilowatts whose horsepower is a row of the table, and whose number is one too
_KW = ("7.5", "15", "30")


def _other_column(lot: MotorLot, volts: str) -> Decimal | None:
    """Return what the same row has in another column of the table."""
    cell = lot.step("table_flc_a").cell
    if cell is None:
        return None
    row = cell.rows[cell.hit_row]
    for place, name in enumerate(cell.columns):
        if volts in name and place < len(row):
            return _decimal(row[place])
    return None


def _row_below(lot: MotorLot) -> Decimal | None:
    cell = lot.step("table_flc_a").cell
    if cell is None or cell.hit_row == 0:
        return None
    return _decimal(cell.rows[cell.hit_row - 1][cell.hit_column])


def _in_three_phase_table(lot: MotorLot, power: str) -> Decimal:
    """Return what a usual three-phase motor of some horsepower has at the same volts [A]."""
    rng = random.Random(0)  # noqa: S311 - no secret, and nothing of the draw is looked at
    return motor_lot(rng, lot.setting, powers=(power,), volts=lot.volts).table_a


def _decimal(text: str) -> Decimal | None:
    try:
        return Decimal(text)
    except ArithmeticError:
        return None


def _of_table(lot: MotorLot) -> Routes:
    yield "nameplate_amps", lot.amps
    yield "other_column", _other_column(lot, "230" if lot.volts != "230" else "460")
    yield "row_below", _row_below(lot)


def _of_one_phase(lot: MotorLot) -> Routes:
    yield "nameplate_amps", lot.amps
    yield "other_column", _other_column(lot, "230" if lot.volts != "230" else "115")
    yield "row_below", _row_below(lot)
    if lot.volts == "230":
        yield "three_phase_table", _in_three_phase_table(lot, lot.power)


def _of_kilowatts(lot: MotorLot) -> Routes:
    yield "nameplate_amps", lot.amps
    yield "kw_as_hp", _in_three_phase_table(lot, lot.power.replace(".5", " 1/2"))
    yield "other_column", _other_column(lot, "230" if lot.volts != "230" else "460")


def _of_ampacity(lot: MotorLot) -> Routes:
    yield "nameplate_for_wire", Decimal("1.25") * lot.amps
    yield "no_125", lot.table_a
    yield "twice_125", Decimal("1.5625") * lot.table_a
    yield "percent_of_device", PERCENT[lot.kind] * lot.table_a


def _of_low_speed(lot: MotorLot) -> Routes:
    yield "table_for_low_speed", Decimal("1.25") * _in_three_phase_table(lot, lot.power)
    yield "no_125", lot.amps
    yield "twice_125", Decimal("1.5625") * lot.amps
    yield "percent_of_device", PERCENT[lot.kind] * lot.amps


def _of_protection(lot: MotorLot) -> Routes:
    part, table = PERCENT[lot.kind], lot.table_a
    if lot.setting == "exam":
        # where the next size up is taken, the nameplate's percent mostly meets the other setting
        yield "percent_on_nameplate", lot.rated(part * lot.amps)
    yield "percent_on_125", lot.rated(part * Decimal("1.25") * table)
    yield "other_setting", lot.rated(part * table, is_exam=lot.setting != "exam")
    other = {"inverse_time_breaker": "1.75", "dual_element_fuse": "2.5"}.get(lot.kind, "1.75")
    yield "other_device", lot.rated(Decimal(other) * table)
    yield "not_rounded", part * table


def _of_rotor(lot: MotorLot) -> Routes:
    part, table = Decimal("1.5"), lot.table_a
    yield "cage_percent", lot.rated(PERCENT[lot.kind] * table)
    yield "percent_on_nameplate", lot.rated(part * lot.amps)
    yield "percent_on_125", lot.rated(part * Decimal("1.25") * table)
    yield "not_rounded", part * table


def _of_instantaneous(lot: MotorLot) -> Routes:
    yield "instantaneous_800", 8 * lot.table_a
    yield "instantaneous_on_nameplate", 11 * lot.amps
    yield "instantaneous_1300", 13 * lot.table_a
    yield "instantaneous_1700", 17 * lot.table_a


def _of_overload(lot: MotorLot) -> Routes:
    is_high = lot.service_factor == "1.15"
    yield "table_for_overload", Decimal("1.25" if is_high else "1.15") * lot.table_a
    yield "other_percent", Decimal("1.15" if is_high else "1.25") * lot.amps
    yield "ceiling_first", Decimal("1.4" if is_high else "1.3") * lot.amps
    yield "dial", lot.amps


def _of_disconnect(lot: MotorLot) -> Routes:
    yield "disconnect_125", Decimal("1.25") * lot.table_a
    yield "disconnect_nameplate", Decimal("1.15") * lot.amps
    yield "no_115", lot.table_a


@dataclass(frozen=True)
class _Question:
    """What is asked, by which steps it is answered, what is needed, and what can go wrong."""

    steps: tuple[str, ...]
    routes: Callable[[MotorLot], Routes]
    needed: frozenset[str]
    drawn: Mapping[str, Any] = field(default_factory=dict)
    more: tuple[Fact, ...] = ()
    unit: str = "hp"


_TABLE = frozenset({"power", "volts"})
FIGURES: dict[str, _Question] = {
    "table_current": _Question(("table_flc_a",), _of_table, _TABLE),
    "one_phase": _Question(("table_flc_a",), _of_one_phase, _TABLE, {"phases": 1}),
    "kilowatts": _Question(
        ("power_hp", "table_flc_a"),
        _of_kilowatts,
        _TABLE,
        {"powers": _KW, "unit": "KW"},
        unit="kW",
    ),
    "ampacity": _Question(("table_flc_a", "required_ampacity_a"), _of_ampacity, _TABLE),
    "low_speed": _Question(
        ("table_flc_a", "required_ampacity_a"),
        _of_low_speed,
        frozenset({"amps", "speed"}),
        {"is_low_speed": True},
    ),
    "protection": _Question(
        ("table_flc_a", "protection_limit_a", "protection_device_a"),
        _of_protection,
        _TABLE | {"device", "design"},
    ),
    "wound_rotor": _Question(
        ("table_flc_a", "protection_limit_a", "protection_device_a"),
        _of_rotor,
        _TABLE | {"device", "rotor"},
        {"size": {"machine": "wound_rotor"}, "stamped": "CODE G"},
        (Fact("rotor", "wound, with slip rings"),),
    ),
    "instantaneous": _Question(
        ("table_flc_a", "protection_limit_a"),
        _of_instantaneous,
        _TABLE | {"device", "design"},
        {
            "size": {"protection_kind": "instantaneous_breaker"},
            "stamped": "CODE G, DES B, PREMIUM EFFICIENCY",
        },
    ),
    "overload": _Question(
        ("overload_setting_a",), _of_overload, frozenset({"amps", "service_factor"})
    ),
    "disconnect": _Question(("table_flc_a", "disconnect_least_a"), _of_disconnect, _TABLE),
}


def figure(kind: str, rng: random.Random, setting: str) -> Case | None:
    """Draw a question of a figure.

    Parameters
    ----------
    kind : str
        One of `FIGURES`.
    rng : random.Random
        What is drawn from.
    setting : str
        ``exam`` or ``field``.
    """
    question = FIGURES[kind]
    lot = motor_lot(rng, setting, **question.drawn)
    told = facts_of(lot, question.unit)
    if kind == "wound_rotor":
        told.pop("design", None)
    if kind == "instantaneous":
        told["design"] = Fact("design", "B, premium efficiency")
    steps = [lot.step(name) for name in question.steps]
    return figure_case(
        rng,
        facts=(*told.values(), *question.more),
        needed=question.needed,
        right=lot.value(question.steps[-1]),
        routes=question.routes(lot),
        steps=steps,
    )
