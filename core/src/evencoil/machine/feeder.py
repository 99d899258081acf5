"""A feeder for several motors, or motors and other loads.

Units: current [A].
Rules: NEC 430.17 (the highest rated is the one of the largest table current),
430.24 (conductors: 125 % of it, the others and noncontinuous loads as they are,
continuous loads at 125 %), 430.62(A) (device: the largest branch device plus
the other currents, rounded down), 430.63 (with other loads).
430.24 exceptions: a duty-cycle motor enters with the value of its duty, and the largest
continuous motor keeps its 125 % unless that is less; of what is interlocked only the largest
combination that can run together counts. Left out: demand factors by the authority, 430.26.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import (
    Mark,
    Message,
    MissingError,
    NotInTableError,
    OutOfRangeError,
    Step,
    Tip,
    Trail,
    plain,
    show,
)
from evencoil.codebook import Edition, rule
from evencoil.sizing import (
    LARGE_CIRCUIT_A,
    ConductorFacts,
    DeviceKind,
    Fitted,
    fit_conductor,
    largest_not_above,
    next_up,
    protection_ratings,
)

__all__ = ["FeederLoads", "FeederMotor", "SizedFeeder", "highest_rated", "size_feeder"]

_QUARTER_MORE = Decimal("1.25")
_MOST_COMBINATIONS = 4096


@dataclass(frozen=True, slots=True, kw_only=True)
class FeederMotor:
    """A motor on the feeder, with what its own branch circuit was sized to.

    ``device_a`` is its short-circuit device, ``device_kind`` what that is; an
    instantaneous breaker counts with the percentage of the feeder's own kind. ``duty_a`` is
    what its conductors need where its duty is not continuous; ``power_hp`` [hp] and ``locked_a``
    [A] serve a disconnect shared with other motors, None where they are not known.
    """

    tag: str
    flc_a: Decimal
    device_a: Decimal
    device_kind: DeviceKind
    phases: int = 3
    duty_a: Decimal | None = None
    marks: tuple[Mark, ...] = ()
    power_hp: Decimal | None = None
    locked_a: Decimal | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class FeederLoads:
    """Loads on the feeder that are no motors [A], and motors of which only one runs at a time."""

    continuous_a: Decimal = Decimal(0)
    noncontinuous_a: Decimal = Decimal(0)
    interlocked: tuple[frozenset[str], ...] = ()


def highest_rated(motors: Sequence[FeederMotor]) -> FeederMotor:
    """Return the motor that counts as the largest: by table current, the first of equals.

    Parameters
    ----------
    motors : sequence of FeederMotor
        On one feeder. Currents in amps.

    Raises
    ------
    MissingError
        If there is none.
    """
    if not motors:
        raise MissingError(
            Message("feeder.none"), field="feeder.motors", hint=Message("feeder.none.hint")
        )
    return max(motors, key=lambda motor: motor.flc_a)


def _largest_device(
    motors: Sequence[FeederMotor], kind: DeviceKind, edition: Edition
) -> tuple[Decimal, FeederMotor]:
    """Return the largest branch device, and whose it is."""

    def counted(motor: FeederMotor) -> Decimal:
        if motor.device_kind != "instantaneous_breaker":
            return motor.device_a
        other: DeviceKind = "inverse_time_breaker" if kind == "instantaneous_breaker" else kind
        return protection_ratings(
            flc_a=motor.flc_a, kind=other, phases=motor.phases, edition=edition
        ).limit_a

    found = max(motors, key=counted)
    return counted(found), found


@dataclass(frozen=True, slots=True, kw_only=True)
class SizedFeeder:
    """A feeder that was sized.

    Attributes
    ----------
    device : Step
        ``feeder_device_a``.
    conductor : Step
        ``feeder_conductor_size``.
    holds_a : Decimal
        Ampacity of the conductor. [A]
    largest : FeederMotor
        The highest rated motor, and ``share_a`` what it counts. [A]
    """

    device: Step
    conductor: Step
    holds_a: Decimal
    largest: FeederMotor
    share_a: Decimal


def size_feeder(
    motors: Sequence[FeederMotor],
    loads: FeederLoads,
    facts: ConductorFacts,
    *,
    device_kind: DeviceKind,
    edition: Edition,
    trail: Trail,
) -> SizedFeeder:
    """Return conductors and device of a feeder.

    Parameters
    ----------
    motors : sequence of FeederMotor
        Each with its table current and its own device.
    loads : FeederLoads
        What else hangs on it.
    facts : ConductorFacts
        Material, insulation, terminals.
    device_kind : str
        Of the feeder's own short-circuit device.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    SizedFeeder
        Its steps ``feeder_ampacity_a``, ``feeder_conductor_size`` and ``feeder_device_a`` are
        in the trail. [A]

    Raises
    ------
    CoreError
        If there is no motor, a load cannot be, or no size or rating fits.
    """
    for name, amps in (
        ("continuous_a", loads.continuous_a),
        ("noncontinuous_a", loads.noncontinuous_a),
    ):
        if not 0 <= amps <= 10000:
            raise OutOfRangeError(
                Message("feeder.load", {"amps": plain(amps)}),
                field=f"feeder.{name}",
                hint=Message("feeder.load.hint"),
            )
    highest_rated(motors)
    together = _combinations(motors, loads.interlocked)
    running = max(together, key=lambda some: _needed(some)[0])
    needed, largest, is_full = _needed(running)
    others = [motor for motor in running if motor is not largest]
    more = loads.continuous_a * _QUARTER_MORE + loads.noncontinuous_a
    needed += more
    subject = "feeder"
    if len(running) < len(motors):
        subject = "feeder_interlocked"
    elif any(motor.duty_a is not None for motor in motors):
        subject = "feeder_duty"
    share = _entry(largest) if not is_full else largest.flc_a
    said = {
        "left_out": ", ".join(motor.tag for motor in motors if motor not in running) or "none",
        "largest": largest.tag,
        "flc": plain(share),
        "factor": "1.25" if is_full else "1",
        "others": " + ".join(plain(_entry(motor)) for motor in others) or "0",
        "continuous": plain(loads.continuous_a),
        "noncontinuous": plain(loads.noncontinuous_a),
        "value": plain(needed),
    }
    trail.add(
        Step(
            id="feeder_ampacity_a",
            value=needed,
            unit="A",
            kind="calculated",
            shown=show(needed, "minimum"),
            working=Message(_said_as(subject, has_more=bool(more)), said),
            rule=rule(subject, edition),
            marks=_marks(motors),
        )
    )
    fitted = _conductor(facts, needed, edition, trail)
    device, whose, left = _device_of(together, device_kind, edition)
    left += more
    most = device + left
    rating = largest_not_above(most, device_kind, edition)
    if rating is None:
        raise NotInTableError(
            Message("feeder.no_device", {"amps": plain(most)}),
            field="feeder.device_kind",
            hint=Message("feeder.no_device.hint"),
        )
    above = next_up(most, device_kind, edition)
    step = trail.add(
        Step(
            id="feeder_device_a",
            value=rating,
            unit="A",
            kind="calculated",
            shown=plain(rating),
            working=Message(
                "feeder.device_loads" if more else "feeder.device",
                {
                    "device": plain(device),
                    "whose": whose.tag,
                    "left": plain(left),
                    "sum": plain(most),
                    "rating": plain(rating),
                },
            ),
            rule=rule("feeder_device_loads" if more else "feeder_device", edition),
            uses=("feeder_ampacity_a",),
            marks=_marks(motors),
            tips=()
            if above is None
            else (
                Tip(message=Message("feeder.tip_up", {"above": plain(above), "sum": plain(most)})),
            ),
        )
    )
    return SizedFeeder(
        device=step,
        conductor=fitted.step,
        holds_a=fitted.holds_a,
        largest=largest,
        share_a=share * (_QUARTER_MORE if is_full else 1),
    )


def _entry(motor: FeederMotor) -> Decimal:
    """Return what a motor adds that is not the highest rated: its duty's value, or its current."""
    return motor.flc_a if motor.duty_a is None else motor.duty_a


def _needed(running: Sequence[FeederMotor]) -> tuple[Decimal, FeederMotor, bool]:
    """Return what motors that run together need, the highest rated, and whether at 125 %."""
    plain_sum = sum((_entry(motor) for motor in running), Decimal(0))
    steady = [motor for motor in running if motor.duty_a is None]
    duty = max((motor for motor in running if motor.duty_a is not None), key=_entry, default=None)
    largest = max(steady, key=lambda motor: motor.flc_a, default=None)
    if largest is None or (duty is not None and _entry(duty) > largest.flc_a * _QUARTER_MORE):
        return plain_sum, duty or running[0], False
    return plain_sum + largest.flc_a * (_QUARTER_MORE - 1), largest, True


def _combinations(
    motors: Sequence[FeederMotor], interlocked: Sequence[frozenset[str]]
) -> list[list[FeederMotor]]:
    """Return every combination that can run together: one of each interlocked group at most.

    Raises
    ------
    OutOfRangeError
        If a group names no motor of the feeder, or there are too many combinations.
    """
    known = {motor.tag for motor in motors}
    for group in interlocked:
        strange = sorted(group - known)
        if strange or len(group) < 2:
            raise OutOfRangeError(
                Message("feeder.interlocked", {"tags": ", ".join(strange or sorted(group))}),
                field="feeder.interlocked",
                hint=Message("feeder.interlocked.hint"),
            )
    found = [list(motors)]
    for group in interlocked:
        found = [
            [motor for motor in some if motor.tag not in group or motor.tag == kept]
            for some in found
            for kept in sorted(group & {motor.tag for motor in some}) or [""]
        ]
        if len(found) > _MOST_COMBINATIONS:
            raise OutOfRangeError(
                Message("feeder.combinations", {"most": str(_MOST_COMBINATIONS)}),
                field="feeder.interlocked",
                hint=Message("feeder.combinations.hint"),
            )
    return found


def _device_of(
    together: Sequence[Sequence[FeederMotor]], kind: DeviceKind, edition: Edition
) -> tuple[Decimal, FeederMotor, Decimal]:
    """Return largest device, whose, and the other currents, of the combination with most."""
    found = []
    for running in together:
        device, whose = _largest_device(running, kind, edition)
        left = sum((motor.flc_a for motor in running if motor is not whose), Decimal(0))
        found.append((device + left, device, whose, left))
    _, device, whose, left = max(found, key=lambda one: one[0])
    return device, whose, left


def _said_as(subject: str, *, has_more: bool) -> str:
    name = {"feeder": "feeder.ampacity"}.get(subject, f"feeder.ampacity_{subject[7:]}")
    return f"{name}_loads" if has_more else name


def _marks(motors: Sequence[FeederMotor]) -> tuple[Mark, ...]:
    """Return the warnings of every motor once."""
    found: list[Mark] = []
    for motor in motors:
        found += [mark for mark in motor.marks if mark not in found]
    return tuple(found)


def _conductor(facts: ConductorFacts, needed: Decimal, edition: Edition, trail: Trail) -> Fitted:
    """Add the smallest feeder conductor; without marked terminals 110.14(C) decides by size."""
    degrees = facts.termination_c or (75 if needed > LARGE_CIRCUIT_A else 60)
    return fit_conductor(
        trail,
        "feeder_conductor_size",
        "feeder_ampacity_a",
        facts,
        edition,
        terminal_c=degrees,
        said="feeder.conductor",
        subject="feeder",
        field="feeder.parallel_sets",
    )
