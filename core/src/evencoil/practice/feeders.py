"""Questions of a feeder with three motors: its conductors, and its device.

Source: NEC 430.24 and 430.62 through `evencoil.machine`; the wrong routes are judgment of the
trade.
"""

from __future__ import annotations

import random
from collections.abc import Callable
from decimal import Decimal

from evencoil.base import plain
from evencoil.machine import FeederInputs, FeederMember, FeederSheet, feeder_sheet
from evencoil.practice.lots import EDITION, Case, MotorLot, figure_case, motor_lot
from evencoil.practice.model import Fact
from evencoil.sizing import next_up

__all__ = ["FEEDERS"]

_VOLTS = ("208", "230", "460")
_QUARTER, _COUNT = Decimal("0.25"), 3


def _drawn(
    rng: random.Random, setting: str
) -> tuple[list[MotorLot], FeederSheet, tuple[Fact, ...]] | None:
    """Draw three motors on one feeder, each with its own device sized."""
    volts = rng.choice(_VOLTS)
    lots = [
        motor_lot(rng, setting, volts=volts, size={"protection_kind": "inverse_time_breaker"})
        for _ in range(_COUNT)
    ]
    if len({lot.power for lot in lots}) < _COUNT:
        return None
    members = [FeederMember(f"M{place}", lot.worked) for place, lot in enumerate(lots, start=1)]
    sheet = feeder_sheet(members, FeederInputs(device_kind="inverse_time_breaker"), EDITION)
    if sheet.refusal is not None:
        return None
    facts = (
        *(
            Fact(
                f"motor_{place}",
                f"{lot.power} hp, nameplate {plain(lot.amps)} A, "
                f"breaker {lot.step('protection_device_a').shown} A",
            )
            for place, lot in enumerate(lots, start=1)
        ),
        Fact("volts", f"{volts} V, three phase"),
        Fact("device", "inverse_time_breaker"),
        Fact("ambient", "30 °C"),
    )
    return lots, sheet, facts


def _ampacity(rng: random.Random, setting: str) -> Case | None:
    drawn = _drawn(rng, setting)
    if drawn is None:
        return None
    lots, sheet, facts = drawn
    flc = [lot.table_a for lot in lots]
    amps = [lot.amps for lot in lots]
    return figure_case(
        rng,
        facts=facts,
        needed={"motor_1", "motor_2", "motor_3", "volts"},
        right=sheet.trail.number("feeder_ampacity_a"),
        routes=[
            ("feeder_125_all", Decimal("1.25") * sum(flc, Decimal(0))),
            ("feeder_no_125", sum(flc, Decimal(0))),
            ("feeder_nameplate", sum(amps) + _QUARTER * max(amps)),
            ("feeder_smallest", sum(flc) + _QUARTER * min(flc)),
            ("feeder_devices", sum((lot.value("protection_device_a") for lot in lots), Decimal(0))),
        ],
        steps=[*(lot.step("table_flc_a") for lot in lots), sheet.trail["feeder_ampacity_a"]],
    )


def _device(rng: random.Random, setting: str) -> Case | None:
    drawn = _drawn(rng, setting)
    if drawn is None:
        return None
    lots, sheet, facts = drawn
    flc = {lot.power: lot.table_a for lot in lots}
    devices = {lot.power: lot.value("protection_device_a") for lot in lots}
    largest = max(devices, key=lambda power: devices[power])
    limit = devices[largest] + sum(amps for power, amps in flc.items() if power != largest)
    rounded = next_up(limit, "inverse_time_breaker", EDITION)
    return figure_case(
        rng,
        facts=facts,
        needed={"motor_1", "motor_2", "motor_3", "volts", "device"},
        right=sheet.trail.number("feeder_device_a"),
        routes=[
            ("feeder_sum_devices", sum(devices.values(), Decimal(0))),
            ("feeder_rounded_up", rounded),
            ("feeder_as_wire", sheet.trail.number("feeder_ampacity_a")),
            ("feeder_not_rounded", limit),
        ],
        steps=[
            *(lot.step("table_flc_a") for lot in lots),
            sheet.trail["feeder_device_a"],
        ],
    )


FEEDERS: dict[str, Callable[[random.Random, str], Case | None]] = {
    "feeder_wire": _ampacity,
    "feeder_device": _device,
}
