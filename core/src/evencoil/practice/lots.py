"""What questions are drawn from: a motor with its job worked out, and the draw until one holds.

A question holds when its right answer is given by no wrong route, and no two wrong routes that
are named give one answer: what is answered then tells which way was taken.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any

from evencoil.base import CoreError, Message, Step, plain, say
from evencoil.codebook import Edition
from evencoil.job import JobInputs, Worked, work_out
from evencoil.practice.model import Drill, DrillKind, Fact, Part, Slip, same
from evencoil.sizing import DeviceKind, largest_not_above, next_up

__all__ = [
    "EDITION",
    "KINDS_OF_DEVICE",
    "PERCENT",
    "Case",
    "MotorLot",
    "apart",
    "facts_of",
    "figure_case",
    "motor_lot",
    "path_of",
    "slips_of",
    "told_facts",
    "until_apart",
]

EDITION: Edition = 2023
PERCENT: Mapping[DeviceKind, Decimal] = {
    "dual_element_fuse": Decimal("1.75"),
    "nontime_delay_fuse": Decimal(3),
    "inverse_time_breaker": Decimal("2.5"),
}
KINDS_OF_DEVICE: tuple[DeviceKind, ...] = tuple(PERCENT)
_HP = ("5", "7 1/2", "10", "15", "20", "25", "30", "40", "50", "60", "75", "100", "125")
_SUPPLY = {"208": "208Y/120", "230": "240", "460": "480Y/277", "575": "600Y/347"}
_ONE_PHASE_HP = ("1/2", "3/4", "1", "1 1/2", "2", "3", "5", "7 1/2", "10")
_ONE_PHASE_SUPPLY = {"115": "120/240 1PH", "230": "120/240 1PH"}
_RPM, _LOW_RPM = ("1750", "1770", "3540"), ("585", "705", "880")
_MOST_TRIES = 200
_MOST_SURPLUS = 3


@dataclass(frozen=True, kw_only=True)
class Case:
    """A question as it was drawn: a `Drill` without kind, seed and setting."""

    facts: tuple[Fact, ...]
    right: str
    slips: tuple[Slip, ...]
    path: tuple[str, ...]
    working: tuple[str, ...]
    unit: str = ""
    choices: tuple[str, ...] = ()
    surplus: frozenset[str] = frozenset()
    steps: tuple[Step, ...] = ()
    parts: tuple[Part, ...] = ()


@dataclass(frozen=True, kw_only=True)
class MotorLot:
    """The nameplate that was drawn, and the job that it makes.

    Attributes
    ----------
    power, volts : str
        As stamped, without unit: ``7 1/2``, ``460``.
    amps : Decimal
        Stamped. [A]
    phases : int
        1 or 3.
    facts : mapping of str to Any
        What the job was told of its sizes.
    worked : Worked
        The job worked out.
    """

    power: str
    volts: str
    amps: Decimal
    service_factor: str
    rpm: str
    phases: int
    setting: str
    worked: Worked
    facts: Mapping[str, Any] = field(default_factory=dict)

    def step(self, name: str) -> Step:
        """Return a step of the job by its id.

        Parameters
        ----------
        name : str
            As in its trail.
        """
        return self.worked.trail[name]

    def value(self, name: str) -> Decimal:
        """Return the figure of a step.

        Parameters
        ----------
        name : str
            As in the job's trail.
        """
        return Decimal(str(self.step(name).value))

    @property
    def table_a(self) -> Decimal:
        """Return the table's full-load current [A]."""
        return self.value("table_flc_a")

    @property
    def kind(self) -> DeviceKind:
        """Return the kind of short-circuit device."""
        return next(one for one in KINDS_OF_DEVICE if one == self.facts["protection_kind"])

    def rated(self, limit: Decimal, *, is_exam: bool | None = None) -> Decimal | None:
        """Return the standard rating that a setting takes for a limit [A].

        Parameters
        ----------
        limit : Decimal
            [A]
        is_exam : bool, optional
            The main rule as written; by the lot's own setting if omitted.
        """
        by_rule = self.setting == "exam" if is_exam is None else is_exam
        return (largest_not_above if by_rule else next_up)(limit, self.kind, EDITION)


def motor_lot(
    rng: random.Random,
    setting: str,
    *,
    phases: int = 3,
    stamped: str = "CODE G, DES B",
    leads: Mapping[str, str] | None = None,
    powers: Sequence[str] = (),
    unit: str = "HP",
    volts: str = "",
    is_low_speed: bool = False,
    size: Mapping[str, Any] | None = None,
) -> MotorLot:
    """Draw a motor and work its job out.

    Parameters
    ----------
    rng : random.Random
        What is drawn from.
    setting : str
        ``exam`` or ``field``.
    phases : int
        1 or 3.
    stamped : str
        What stands on the nameplate besides.
    leads : mapping, optional
        Of the leads step; three leads in wye if omitted.
    powers : sequence of str
        To draw from; the table's rows if empty.
    unit : str
        Of the power.
    volts : str
        Rated; drawn if empty.
    is_low_speed : bool
        Built for less than 1,200 rpm: its nameplate counts, and is more than the table's.
    size : mapping, optional
        Facts of the size step.
    """
    is_three = phases == 3
    power = rng.choice(powers or (_HP if is_three else _ONE_PHASE_HP))
    supply = _SUPPLY if is_three else _ONE_PHASE_SUPPLY
    volts = volts or rng.choice(tuple(supply))
    # sometimes no one tells it: then the rule's own assumption is part of the answer
    service_factor = rng.choice(("1.15", "1.15", "1.0", ""))
    told_factor = f"SF {service_factor}, " if service_factor else ""
    rpm = rng.choice(_LOW_RPM if is_low_speed else _RPM)
    joined = dict(leads or {"winding": "3-wye" if is_three else "1-phase"})
    count = {"6": 6, "9-wye": 9, "9-delta": 9, "12": 12}.get(joined["winding"], phases)
    facts: dict[str, Any] = {
        "conductor_material": "cu",
        "insulation": "THHN/THWN-2",
        "ambient_c": "30",
        "current_carrying": 3 if is_three else 2,
        "protection_kind": rng.choice(KINDS_OF_DEVICE),
        "rating_rule": "main_rule" if setting == "exam" else "next_size_up",
        **(size or {}),
    }

    def worked(amps: str, rpm: str) -> Worked:
        return work_out(
            JobInputs.model_validate(
                {
                    "plate": {
                        "text": f"{power} {unit}, {volts} V, {amps} A, {rpm} RPM, 60 HZ, "
                        f"{phases} PH, {told_factor}{stamped}, {count} LEADS"
                    },
                    "supply": {"text": supply[volts]},
                    "leads": joined,
                    "size": facts,
                }
            )
        )

    table = Decimal(str(worked("10", _RPM[0]).trail["table_flc_a"].value))
    part = Decimal(rng.randint(106, 125) if is_low_speed else rng.randint(86, 97)) / 100
    amps = (table * part).quantize(Decimal("0.1"))
    return MotorLot(
        power=power,
        volts=volts,
        amps=amps,
        service_factor=service_factor,
        rpm=rpm,
        phases=phases,
        setting=setting,
        worked=worked(plain(amps), rpm),
        facts=facts,
    )


def facts_of(lot: MotorLot, unit: str = "hp") -> dict[str, Fact]:
    """Return what can be told of a motor, by label.

    Parameters
    ----------
    lot : MotorLot
        That was drawn.
    unit : str
        Of its power.
    """
    phases = "three phase" if lot.phases == 3 else "single phase"
    told = {
        "power": f"{lot.power} {unit}",
        "volts": f"{lot.volts} V, {phases}",
        "amps": f"{plain(lot.amps)} A",
        "service_factor": lot.service_factor,
        "design": "B, code letter G",
        "speed": f"{lot.rpm} rpm",
        "device": str(lot.facts["protection_kind"]),
    }
    return {label: Fact(label, value) for label, value in told.items() if value}


def slips_of(
    right: Decimal, routes: Iterable[tuple[str, Decimal | None]]
) -> tuple[Slip, ...] | None:
    """Return wrong routes to a figure; None if any two answers, the right one too, are one.

    Parameters
    ----------
    right : Decimal
        The right answer.
    routes : iterable of (str, Decimal or None)
        Each with what it gives; those that give nothing are left out.
    """
    slips = tuple(Slip(name, plain(value)) for name, value in routes if value is not None)
    answers = [plain(right), *(one.value for one in slips)]
    if any(same(one, other) for at, one in enumerate(answers) for other in answers[at + 1 :]):
        return None
    return slips


def apart(right: str, routes: Iterable[tuple[str, str | None]]) -> tuple[Slip, ...]:
    """Return the wrong routes by their answers; those that meet in one are named together.

    On a short ladder of sizes routes meet, with each other and with the right one: what is
    answered then tells that one of them was taken, or none.

    Parameters
    ----------
    right : str
        The right answer.
    routes : iterable of (str, str or None)
        Each with what it gives; those that give nothing are left out.
    """
    found: dict[str, list[str]] = {}
    for name, value in routes:
        if value is None or same(value, right):
            continue
        alike = next((known for known in found if same(known, value)), value)
        found.setdefault(alike, []).append(name)
    return tuple(Slip("+".join(names), value) for value, names in found.items())


def path_of(step: Step) -> str:
    """Return where a step comes from: section, and in a table its row and column.

    Parameters
    ----------
    step : Step
        With its rule.
    """
    cell = step.cell
    if cell is None:
        return str(step.rule)
    row, column = cell.rows[cell.hit_row][0], cell.columns[cell.hit_column]
    if column.removeprefix("v").isdigit():
        column = f"{column.removeprefix('v')} V"
    elif column.removeprefix("t").isdigit():
        column = f"{column.removeprefix('t')} °C"
    elif column in PERCENT or column == "instantaneous_breaker":
        column = say(Message(f"kind.{column}"))
    return f"{step.rule}: row {row}, column {column.replace('_', ' ')}"


def told_facts(
    rng: random.Random, facts: Iterable[Fact], needed: Collection[str], most: int
) -> tuple[tuple[Fact, ...], frozenset[str]]:
    """Return the facts that are told, and the labels of those among them that are not needed.

    Parameters
    ----------
    rng : random.Random
        What is drawn from.
    facts : iterable of Fact
        All that could be told, in their order.
    needed : collection of str
        Labels of those that lead to the answer.
    most : int
        So many that are not needed are told.
    """
    known = list(facts)
    spare = [one for one in known if one.label not in needed]
    rng.shuffle(spare)
    told = tuple(one for one in known if one.label in needed or one in spare[:most])
    return told, frozenset(one.label for one in told if one.label not in needed)


def figure_case(
    rng: random.Random,
    *,
    facts: Sequence[Fact],
    needed: Collection[str],
    right: Decimal,
    routes: Iterable[tuple[str, Decimal | None]],
    steps: Sequence[Step],
    working: Sequence[str] = (),
    unit: str = "A",
    textbook: Sequence[str] = (),
) -> Case | None:
    """Return a question of a figure; None if its wrong routes are not apart.

    Parameters
    ----------
    rng : random.Random
        What is drawn from.
    facts : sequence of Fact
        All that could be told, in their order.
    needed : collection of str
        Labels of those that lead to the answer.
    right : Decimal
        The right answer.
    routes : iterable
        Wrong routes, each with what it gives.
    steps : sequence of Step
        On the way.
    working : sequence of str
        What is to be said beyond the steps.
    unit : str
        Of the answer.
    textbook : sequence of str
        Where it stands beyond the steps, which are of the code.
    """
    slips = slips_of(right, routes)
    if slips is None:
        return None
    told, surplus = told_facts(rng, facts, needed, _MOST_SURPLUS)
    return Case(
        facts=told,
        right=plain(right),
        slips=slips,
        unit=unit,
        path=(*(path_of(one) for one in steps if one.rule is not None), *textbook),
        working=(*(say(one.working) for one in steps), *working),
        surplus=surplus,
        steps=tuple(steps),
    )


def until_apart(
    kind: DrillKind, seed: int, setting: str, ask: Callable[[random.Random, str], Case | None]
) -> Drill:
    """Draw a question until one holds.

    Parameters
    ----------
    kind : str
        What is asked.
    seed : int
        The same seed makes the same question.
    setting : str
        ``exam`` or ``field``.
    ask : callable
        Draws one from a random source for a setting; None, or a refusal of a rule, is another
        draw.

    Raises
    ------
    RuntimeError
        If none could be drawn whose wrong routes are apart: a bug of the tables.
    """
    rng = random.Random(f"{kind} {seed} {setting}")  # noqa: S311 - a drill is no secret
    for _ in range(_MOST_TRIES):
        try:
            case = ask(rng, setting)
        except (CoreError, KeyError):
            continue  # a row without that column: another motor
        if case is None:
            continue
        return Drill(kind=kind, seed=seed, setting=setting, **vars(case))
    raise RuntimeError(f"no {kind} question of seed {seed} has its wrong routes apart")
