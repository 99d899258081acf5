"""Questions of figures: drawn facts, answered by the job's own rules, then by each wrong route.

A question whose right answer some wrong route gives too, or where two wrong routes meet, is drawn
again: what is answered then tells which way was taken.

Source: NEC 430 through `evencoil.job`; the wrong routes are judgment of the trade.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError, Message, Step, plain, say
from evencoil.codebook import Edition
from evencoil.job import JobInputs, Worked, work_out
from evencoil.practice.model import Drill, DrillKind, Fact, Slip, same
from evencoil.sizing import DeviceKind, largest_not_above, next_up

__all__ = ["figure_drill"]

_HP = ("5", "7 1/2", "10", "15", "20", "25", "30", "40", "50", "60", "75", "100", "125")
_VOLTS = ("208", "230", "460", "575")
_SUPPLY = {"208": "208Y/120", "230": "240", "460": "480Y/277", "575": "600Y/347"}
_KINDS: tuple[DeviceKind, ...] = (
    "dual_element_fuse",
    "nontime_delay_fuse",
    "inverse_time_breaker",
)
_EDITION: Edition = 2023
_MOST_TRIES = 60
_PERCENT = {
    "dual_element_fuse": Decimal("1.75"),
    "nontime_delay_fuse": Decimal(3),
    "inverse_time_breaker": Decimal("2.5"),
}


@dataclass(frozen=True)
class _Drawn:
    """The facts of a question, and the job that they make."""

    hp: str
    volts: str
    amps: Decimal
    service_factor: str
    kind: DeviceKind
    setting: str
    rpm: str
    worked: Worked

    def step(self, name: str) -> Step:
        return self.worked.trail[name]

    def value(self, name: str) -> Decimal:
        return Decimal(str(self.step(name).value))

    @property
    def table_a(self) -> Decimal:
        return self.value("table_flc_a")

    def rated(self, limit: Decimal) -> Decimal | None:
        """Return the standard rating that a setting takes for a limit."""
        pick = largest_not_above if self.setting == "exam" else next_up
        return pick(limit, self.kind, _EDITION)


def _drawn(rng: random.Random, setting: str) -> _Drawn:
    hp, volts = rng.choice(_HP), rng.choice(_VOLTS)
    # sometimes no one tells it: then the rule's own assumption is part of the answer
    service_factor = rng.choice(("1.15", "1.15", "1.0", ""))
    told_factor = f"SF {service_factor}, " if service_factor else ""
    kind, rpm = rng.choice(_KINDS), rng.choice(("1180", "1770", "3540"))

    def worked(amps: str) -> Worked:
        return work_out(
            JobInputs.model_validate(
                {
                    "plate": {
                        "text": f"{hp} HP, {volts} V, {amps} A, {rpm} RPM, 60 HZ, 3 PH, "
                        f"{told_factor}CODE G, DES B, 3 LEADS"
                    },
                    "supply": {"text": _SUPPLY[volts]},
                    "leads": {"winding": "3-wye"},
                    "size": {
                        "conductor_material": "cu",
                        "insulation": "THHN/THWN-2",
                        "ambient_c": "30",
                        "current_carrying": 3,
                        "protection_kind": kind,
                        "rating_rule": "main_rule" if setting == "exam" else "next_size_up",
                    },
                }
            )
        )

    table = Decimal(str(worked("10").trail["table_flc_a"].value))
    part = Decimal(rng.randint(86, 97)) / 100
    amps = (table * part).quantize(Decimal("0.1"))
    return _Drawn(
        hp=hp,
        volts=volts,
        amps=amps,
        service_factor=service_factor,
        kind=kind,
        setting=setting,
        rpm=rpm,
        worked=worked(plain(amps)),
    )


def _other_column(drawn: _Drawn, volts: str) -> Decimal | None:
    """Return what the same row has in another column of the table."""
    cell = drawn.step("table_flc_a").cell
    if cell is None:
        return None
    row = cell.rows[cell.hit_row]
    for place, name in enumerate(cell.columns):
        if volts in name and place < len(row):
            return _decimal(row[place])
    return None


def _row_below(drawn: _Drawn) -> Decimal | None:
    cell = drawn.step("table_flc_a").cell
    if cell is None or cell.hit_row == 0:
        return None
    return _decimal(cell.rows[cell.hit_row - 1][cell.hit_column])


def _decimal(text: str) -> Decimal | None:
    try:
        return Decimal(text)
    except ArithmeticError:
        return None


Slips = Iterator[tuple[str, Decimal | None]]


def _of_table(drawn: _Drawn) -> Slips:
    yield "nameplate_amps", drawn.amps
    yield "other_column", _other_column(drawn, "230" if drawn.volts != "230" else "460")
    yield "row_below", _row_below(drawn)


def _of_ampacity(drawn: _Drawn) -> Slips:
    yield "nameplate_for_wire", Decimal("1.25") * drawn.amps
    yield "no_125", drawn.table_a
    yield "twice_125", Decimal("1.5625") * drawn.table_a
    yield "percent_of_device", _PERCENT[drawn.kind] * drawn.table_a


def _of_protection(drawn: _Drawn) -> Slips:
    part, table = _PERCENT[drawn.kind], drawn.table_a
    if drawn.setting == "exam":
        # where the next size up is taken, the nameplate's percent mostly meets the other setting
        yield "percent_on_nameplate", drawn.rated(part * drawn.amps)
    yield "percent_on_125", drawn.rated(part * Decimal("1.25") * table)
    pick = next_up if drawn.setting == "exam" else largest_not_above
    yield "other_setting", pick(part * table, drawn.kind, _EDITION)
    other = {"inverse_time_breaker": "1.75", "dual_element_fuse": "2.5"}.get(drawn.kind, "1.75")
    yield "other_device", drawn.rated(Decimal(other) * table)
    yield "not_rounded", part * table


def _of_overload(drawn: _Drawn) -> Slips:
    is_high = drawn.service_factor == "1.15"
    yield "table_for_overload", Decimal("1.25" if is_high else "1.15") * drawn.table_a
    yield "other_percent", Decimal("1.15" if is_high else "1.25") * drawn.amps
    yield "ceiling_first", Decimal("1.4" if is_high else "1.3") * drawn.amps
    yield "dial", drawn.amps


def _of_disconnect(drawn: _Drawn) -> Slips:
    yield "disconnect_125", Decimal("1.25") * drawn.table_a
    yield "disconnect_nameplate", Decimal("1.15") * drawn.amps
    yield "no_115", drawn.table_a


def _of_star(drawn: _Drawn) -> Slips:
    locked = drawn.value("locked_rotor_table_a")
    yield "star_58", Decimal("0.58") * locked
    yield "star_half", Decimal("0.5") * locked
    yield "star_all", locked
    yield "star_of_table", drawn.table_a / 3


def _right_star(drawn: _Drawn) -> Decimal:
    return drawn.value("locked_rotor_table_a") / 3


@dataclass(frozen=True)
class _Question:
    """What is asked, by which step it is answered, and what can go wrong."""

    steps: tuple[str, ...]
    right: Callable[[_Drawn], Decimal]
    slips: Callable[[_Drawn], Slips]


def _by(step: str) -> Callable[[_Drawn], Decimal]:
    return lambda drawn: drawn.value(step)


_QUESTIONS: dict[str, _Question] = {
    "table_current": _Question(("table_flc_a",), _by("table_flc_a"), _of_table),
    "ampacity": _Question(
        ("table_flc_a", "required_ampacity_a"), _by("required_ampacity_a"), _of_ampacity
    ),
    "protection": _Question(
        ("table_flc_a", "protection_limit_a", "protection_device_a"),
        _by("protection_device_a"),
        _of_protection,
    ),
    "overload": _Question(("overload_setting_a",), _by("overload_setting_a"), _of_overload),
    "disconnect": _Question(
        ("table_flc_a", "disconnect_least_a"), _by("disconnect_least_a"), _of_disconnect
    ),
    "star_line": _Question(("locked_rotor_table_a",), _right_star, _of_star),
}


def figure_drill(kind: DrillKind, seed: int, setting: str) -> Drill:
    """Return a question of a figure.

    Parameters
    ----------
    kind : str
        One of the kinds with a figure.
    seed : int
        The same seed makes the same question.
    setting : str
        ``exam`` or ``field``.

    Raises
    ------
    CoreError
        If no question could be drawn whose wrong routes are all apart: a bug of the tables.
    """
    rng = random.Random(f"{kind} {seed} {setting}")  # noqa: S311 - a drill is no secret
    question = _QUESTIONS[kind]
    for _ in range(_MOST_TRIES):
        try:
            drawn = _drawn(rng, setting)
            right = question.right(drawn)
            slips = [
                Slip(name, _shown(value))
                for name, value in question.slips(drawn)
                if value is not None
            ]
        except (CoreError, KeyError):
            continue  # a row without that column: another motor
        answers = [_shown(right), *(one.value for one in slips)]
        if any(
            same(one, other) for place, one in enumerate(answers) for other in answers[place + 1 :]
        ):
            continue
        return _drill(kind, seed, drawn, right, slips, rng)
    raise RuntimeError(f"no {kind} question of seed {seed} has its wrong routes apart")


def _drill(
    kind: DrillKind,
    seed: int,
    drawn: _Drawn,
    right: Decimal,
    slips: list[Slip],
    rng: random.Random,
) -> Drill:
    steps = [drawn.step(name) for name in _QUESTIONS[kind].steps]
    needed = _NEEDED[kind]
    facts = [
        Fact("power", f"{drawn.hp} hp"),
        Fact("volts", f"{drawn.volts} V, three phase"),
        Fact("amps", f"{plain(drawn.amps)} A"),
        *([Fact("service_factor", drawn.service_factor)] if drawn.service_factor else []),
        Fact("design", "B, code letter G"),
        Fact("speed", f"{drawn.rpm} rpm"),
        Fact("device", drawn.kind),
    ]
    spare = [one for one in facts if one.label not in needed]
    rng.shuffle(spare)
    told = [one for one in facts if one.label in needed or one in spare[:3]]
    working = [say(one.working) for one in steps]
    if kind == "star_line":
        working.append(f"{_shown(drawn.value('locked_rotor_table_a'))} A / 3 = {_shown(right)} A")
    return Drill(
        kind=kind,
        seed=seed,
        setting=drawn.setting,
        facts=tuple(told),
        unit="A",
        right=_shown(right),
        path=tuple(_path(one) for one in steps if one.rule is not None),
        working=tuple(working),
        slips=tuple(slips),
        surplus=frozenset(one.label for one in told if one.label not in needed),
    )


_NEEDED: dict[str, set[str]] = {
    "table_current": {"power", "volts"},
    "ampacity": {"power", "volts"},
    "protection": {"power", "volts", "device", "design"},
    "overload": {"amps", "service_factor"},
    "disconnect": {"power", "volts"},
    "star_line": {"power", "volts", "design"},
}


def _path(step: Step) -> str:
    """Return where a step comes from: section, and in a table its row and column."""
    cell = step.cell
    if cell is None:
        return str(step.rule)
    row, column = cell.rows[cell.hit_row][0], cell.columns[cell.hit_column]
    if column.removeprefix("v").isdigit():
        column = f"{column.removeprefix('v')} V"
    elif column in _PERCENT:
        column = say(Message(f"kind.{column}"))
    return f"{step.rule}: row {row}, column {column.replace('_', ' ')}"


def _shown(value: Decimal) -> str:
    """Return a figure as it is asked: four digits that count."""
    return plain(value)
