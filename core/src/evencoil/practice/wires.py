"""Questions of wire: the smallest conductor of a branch circuit, and its grounding conductor.

Source: NEC 430.22, 110.14(C), 310.15, 310.16, 250.122 through `evencoil.job`; the wrong routes
are judgment of the trade.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterable, Iterator
from decimal import Decimal
from typing import Any

from evencoil.base import ConductorSize, say
from evencoil.codebook import table
from evencoil.practice.lots import (
    Case,
    MotorLot,
    apart,
    facts_of,
    motor_lot,
    path_of,
    told_facts,
)
from evencoil.practice.model import Fact
from evencoil.sizing import ConductorFacts, Material, pick_conductor

__all__ = ["WIRES", "grounding_routes", "wire_lot", "wire_routes"]

_INSULATION = "THHN/THWN-2"
_HP = ("7 1/2", "10", "15", "20", "25", "30", "40", "50", "60", "75")
#: so many wrong routes that can be named make a question
_LEAST_SLIPS = 2
_MOST_SURPLUS = 2
_WIRE_NEEDS = {
    "power",
    "volts",
    "design",
    "material",
    "insulation",
    "terminals",
    "ambient",
    "conductors",
}
#: factors of 310.15(C)(1) for 4 to 6 and 7 to 9 conductors
_FOUR_TO_SIX, _SEVEN_TO_NINE = Decimal("0.8"), Decimal("0.7")


def _size(
    required: Decimal, *, column: int, factor: Decimal, material: Material = "cu"
) -> str | None:
    """Return the smallest conductor by some column and factor, as a wrong route takes it."""
    pick = pick_conductor(
        required_a=required,
        facts=ConductorFacts(material=material, insulation=_INSULATION),
        terminal_c=column,
        factor=factor,
    )
    return None if pick is None else str(pick.size)


def wire_lot(rng: random.Random, setting: str) -> tuple[MotorLot, dict[str, Fact]]:
    """Draw a motor with what decides its wire: material, terminals, ambient, number of wires.

    Parameters
    ----------
    rng : random.Random
        What is drawn from.
    setting : str
        ``exam`` or ``field``.
    """
    material = rng.choice(("cu", "cu", "al"))
    marked = rng.choice((75, None, None))
    letter = rng.choice(("B", "none"))
    ambient = rng.choice((30, 30, 40, 45))
    count = rng.choice((3, 3, 6))
    size: dict[str, Any] = {
        "conductor_material": material,
        "insulation": _INSULATION,
        "ambient_c": str(ambient),
        "current_carrying": count,
        "termination_c": marked,
    }
    lot = motor_lot(
        rng, setting, stamped="CODE G, DES B" if letter == "B" else "CODE G", powers=_HP, size=size
    )
    told = facts_of(lot)
    told["design"] = Fact("design", "B" if letter == "B" else "no letter stamped")
    told["material"] = Fact("material", "copper" if material == "cu" else "aluminum")
    told["insulation"] = Fact("insulation", _INSULATION)
    told["terminals"] = Fact("terminals", f"marked {marked} °C" if marked else "not marked")
    told["ambient"] = Fact("ambient", f"{ambient} °C")
    told["conductors"] = Fact("conductors", f"{count} that carry current in one raceway")
    return lot, told


def wire_routes(lot: MotorLot) -> Iterator[tuple[str, str | None]]:
    """Return the wrong routes to a conductor, each with the size that it gives.

    Parameters
    ----------
    lot : MotorLot
        Of `wire_lot`.
    """
    material: Material = "al" if lot.facts["conductor_material"] == "al" else "cu"
    required = lot.value("required_ampacity_a")
    column = int(lot.value("terminal_temperature_c"))
    ambient, bundle = lot.value("ambient_factor"), lot.value("adjustment_factor")
    factor = ambient * bundle

    def size(amps: Decimal, *, at: int = column, by: Decimal = factor) -> str | None:
        return _size(amps, column=at, factor=by, material=material)

    yield "nameplate_for_wire", size(Decimal("1.25") * lot.amps)
    yield "no_125", size(lot.table_a)
    yield "lug_90", size(required, at=90)
    if column == 75:
        yield "lug_60", size(required, at=60)
    else:
        yield "lug_75", size(required, at=75)
    if ambient != 1:
        # corrected from the lug's column: the lug must hold more by that much
        yield "ambient_on_lug", size(required / ambient)
    if bundle == _FOUR_TO_SIX:
        yield "no_adjustment", size(required, by=ambient)
        yield "seven_to_nine", size(required, by=ambient * _SEVEN_TO_NINE)
    if material == "al":
        yield "al_by_copper", _size(required, column=column, factor=factor)
    yield "device_sizes_wire", size(lot.value("protection_device_a"))


def _wire_size(rng: random.Random, setting: str) -> Case | None:
    lot, told = wire_lot(rng, setting)
    return _choice(
        rng,
        told,
        _WIRE_NEEDS,
        lot,
        "conductor_size",
        wire_routes(lot),
        (
            "table_flc_a",
            "required_ampacity_a",
            "terminal_temperature_c",
            "ambient_factor",
            "adjustment_factor",
            "ampacity_a",
            "conductor_size",
        ),
    )


def _grounding_row(amps: Decimal, material: str) -> str | None:
    """Return what 250.122 has for some amps, as a wrong route reads it."""
    book = table("250_122")
    for row, most in enumerate(book.figures("ocpd_a")):
        if amps <= most:
            return str(ConductorSize(str(book.column(material)[row])))
    return None


def grounding_routes(lot: MotorLot) -> Iterator[tuple[str, str | None]]:
    """Return the wrong routes to a grounding conductor, each with the size that it gives.

    Parameters
    ----------
    lot : MotorLot
        Of `wire_lot`.
    """
    material = str(lot.facts["conductor_material"])
    yield "egc_by_load", _grounding_row(lot.table_a, material)
    yield "egc_by_ampacity", _grounding_row(lot.value("required_ampacity_a"), material)
    yield "egc_as_wire", str(lot.step("conductor_size").value)
    if material == "al":
        yield "al_by_copper", _grounding_row(lot.value("protection_device_a"), "cu")
    else:
        yield "egc_al_row", _grounding_row(lot.value("protection_device_a"), "al")


def _grounding(rng: random.Random, setting: str) -> Case | None:
    lot, told = wire_lot(rng, setting)
    for label in ("ambient", "insulation", "terminals"):
        told.pop(label)
    device = lot.step("protection_device_a")
    told["rating"] = Fact("rating", f"{device.shown} A")
    told["wire"] = Fact("wire", str(lot.step("conductor_size").value))
    return _choice(
        rng,
        told,
        {"rating", "material", "wire"},
        lot,
        "grounding_conductor_size",
        grounding_routes(lot),
        ("grounding_conductor_size",),
    )


def _choice(
    rng: random.Random,
    told: dict[str, Fact],
    needed: set[str],
    lot: MotorLot,
    answer: str,
    routes: Iterable[tuple[str, str | None]],
    steps: tuple[str, ...],
) -> Case | None:
    """Return a question whose answer is a size, among the sizes that wrong routes give."""
    right = str(lot.step(answer).value)
    slips = apart(right, routes)
    if len(slips) < _LEAST_SLIPS:
        return None
    given = (right, *(one.value for one in slips))
    choices = sorted(given, key=lambda one: ConductorSize(one.split()[0]))
    facts, surplus = told_facts(rng, told.values(), needed, _MOST_SURPLUS)
    known = [lot.step(name) for name in steps]
    return Case(
        facts=facts,
        right=right,
        slips=slips,
        choices=tuple(choices),
        path=tuple(dict.fromkeys(path_of(one) for one in known if one.rule is not None)),
        working=tuple(say(one.working) for one in known),
        surplus=surplus,
        steps=tuple(known),
    )


WIRES: dict[str, Callable[[random.Random, str], Case | None]] = {
    "wire_size": _wire_size,
    "grounding": _grounding,
}
