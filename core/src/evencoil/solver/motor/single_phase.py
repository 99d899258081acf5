"""A single-phase motor: main winding, start winding with its capacitor, from a nameplate.

Two coils at right angles in forward and backward fields. The main winding alone makes both
fields alike at standstill, so no torque; the start winding, shifted by a capacitor or by its
own resistance, makes the difference. A nameplate says little of it: the shares of the start
winding below are judgment.

Units: [ohm] at the rated frequency, [V], [A], [W], [N m], [F].
Source: double revolving field theory of single-phase motors (textbook).
"""

from __future__ import annotations

import cmath
from dataclasses import dataclass, replace
from functools import partial
from math import exp, log, pi, sqrt
from typing import Literal

import numpy as np

from evencoil.solver.motor.descent import descend
from evencoil.solver.motor.machine import AirGap, Machine, MachineCoil

__all__ = [
    "CLOSES_AGAIN",
    "START_SPEED",
    "SingleFitted",
    "SingleKind",
    "SingleTargets",
    "fit_single",
    "series_ohm",
    "single_machine",
]

SingleKind = Literal["split_phase", "capacitor_start", "permanent_split", "capacitor_start_run"]

#: judgment: turns of the start winding over those of the main one, and its resistance over what
#: these turns would have in the main winding's wire
_START: dict[SingleKind, tuple[float, float]] = {
    "split_phase": (0.8, 5.0),
    "capacitor_start": (1.2, 1.6),
    "permanent_split": (1.2, 1.3),
    "capacitor_start_run": (1.2, 1.4),
}
#: judgment: a start switch opens at this part of synchronous speed, and closes again below that
START_SPEED, CLOSES_AGAIN = 0.75, 0.40
#: judgment: iron loss as a part of all losses; friction likewise, and at most that of the power
_IRON, _FRICTION, _FRICTION_OF_POWER = 0.18, 0.08, 0.02
#: judgment: usual parts of the locked-rotor impedance of the main winding, where a fit starts
_X1, _R1, _R2 = 0.36, 0.30, 0.32
_NO_CAGE = 1e6
_OPEN_OHM = 1e9
#: judgment: locked-rotor torque of a capacitor-start motor over rated, where its capacitor is not
#: known
_USUAL_START = 3.5
_ROUNDS = 80
#: judgment: the start current leads that of the main winding by this angle [deg]
_LEADS_DEG = 85.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SingleTargets:
    """What the motor is to give.

    Attributes
    ----------
    kind : str
        Which start.
    start_f, run_f : float or None
        Capacitors, where known; what is not known is taken so that it does its work. [F]
    """

    kind: SingleKind
    power_w: float
    volts_v: float
    amps_a: float
    hz: float
    rpm: float
    pole_pairs: int
    efficiency: float
    locked_a: float
    start_f: float | None = None
    run_f: float | None = None

    @property
    def slip(self) -> float:
        """Return the slip at rated speed."""
        return 1 - self.rpm * self.pole_pairs / (60 * self.hz)

    @property
    def rated_nm(self) -> float:
        """Return the torque on the shaft at rated load [N m]."""
        return self.power_w / (2 * pi * self.rpm / 60)

    @property
    def losses_w(self) -> float:
        """Return all losses at rated load [W]."""
        return self.power_w * (1 / self.efficiency - 1)

    @property
    def friction_w(self) -> float:
        """Return friction and windage at rated speed [W], by judgment."""
        return min(_FRICTION * self.losses_w, _FRICTION_OF_POWER * self.power_w)


@dataclass(frozen=True, slots=True, kw_only=True)
class SingleFitted:
    """The two coils and the air gap found, and what they give.

    ``main_ohm`` and ``start_ohm`` are the coils' own impedances; ``turns`` those of the start
    winding over the main one's; capacitors in [F], None where there is none.
    """

    main_ohm: complex
    start_ohm: complex
    turns: float
    gap: AirGap
    start_f: float | None
    run_f: float | None
    friction_w: float
    amps_a: float
    efficiency: float
    locked_a: float
    locked_times: float
    cost: float

    @property
    def is_poor(self) -> bool:
        """Tell whether no such motor comes near to all that was asked."""
        return self.cost > 0.5


class _Trial:
    """One set of unknowns, seen at a slip with some impedance in the start branch."""

    def __init__(self, targets: SingleTargets, logs: np.ndarray) -> None:
        t = self.targets = targets
        x1, xm, r2, r1 = (exp(float(value)) for value in logs)
        turns, ohms = _START[t.kind]
        self.turns = turns
        self.main = complex(r1, x1)
        self.start = complex(ohms * turns**2 * r1, turns**2 * x1)
        self.gap = AirGap(
            pole_pairs=t.pole_pairs,
            xm=xm / 2,
            rfe=(0.9 * t.volts_v) ** 2 / (_IRON * t.losses_w),
            xc=0.0,
            ri=r2 / 2,
            xi=x1 / 2,
            ro=_NO_CAGE * r2,
            xo=0.0,
            rated_v=t.volts_v,
        )

    def at(self, slip: float, behind: complex | None) -> tuple[complex, float]:
        """Return line current [A] and torque before friction [N m].

        ``behind`` lies in series with the start winding; None opens it.
        """
        t, gap = self.targets, self.gap
        ahead, back = gap.field(slip)[0], gap.field(2 - slip)[0]
        both, between = ahead + back, 1j * (ahead - back) * self.turns
        main = self.main + both
        volts = complex(t.volts_v)
        if behind is None:
            amps = (volts / main, 0j)
        else:
            own = self.start + behind + self.turns**2 * both
            # the start winding is joined so that a leading current in it turns the field forward
            whole = main * own + between**2
            amps = ((own + between) * volts / whole, (main - between) * volts / whole)
        forward = amps[0] - 1j * self.turns * amps[1]
        backward = amps[0] + 1j * self.turns * amps[1]
        each = t.pole_pairs / (2 * pi * t.hz)
        torque = each * (
            abs(ahead * forward) ** 2 * gap.rotor(slip).real
            - abs(back * backward) ** 2 * gap.rotor(2 - slip).real
        )
        return amps[0] + amps[1], torque

    def capacitors(self) -> tuple[float | None, float | None]:
        """Return start and run capacitor [F]: those known, or such as do their work."""
        t = self.targets
        turning = 2 * pi * t.hz
        start = run = None
        if t.kind in {"permanent_split", "capacitor_start_run"}:
            # judgment: half the rated volt-amps, at the volts that lie across it
            across = t.volts_v * sqrt(1 + self.turns**2)
            run = t.run_f or 0.5 * t.volts_v * t.amps_a / (turning * across**2)
        if t.kind in {"capacitor_start", "capacitor_start_run"}:
            start = t.start_f or self._shifting_f()
        return start, run

    def _shifting_f(self) -> float:
        """Return the capacitor that lets the start current lead by its usual angle [F]."""
        both = 2 * self.gap.field(1.0)[0]
        lags = cmath.phase(self.main + both)
        own = self.start + self.turns**2 * both
        # the angle of the branch that is wanted, from which its reactance follows
        wanted = lags - _LEADS_DEG * pi / 180
        reactance = own.imag - own.real * np.tan(wanted)
        return 1 / (2 * pi * self.targets.hz * max(float(reactance), 1e-3))

    def behind(self) -> tuple[complex, complex | None]:
        """Return what lies before the start winding while starting, and while running."""
        start, run = self.capacitors()
        return series_ohm(start, run, self.targets.hz), (
            None if run is None else series_ohm(None, run, self.targets.hz)
        )


def series_ohm(start_f: float | None, run_f: float | None, hz: float) -> complex:
    """Return the impedance of capacitors side by side in series with the start winding [ohm].

    Parameters
    ----------
    start_f : float or None
        Start capacitor, if it is in the circuit. [F]
    run_f : float or None
        Run capacitor; neither of them is a plain wire. [F]
    hz : float
        Frequency of the supply.
    """
    whole = (start_f or 0.0) + (run_f or 0.0)
    return 1 / (2j * pi * hz * whole) if whole else 0j


def _residuals(targets: SingleTargets, logs: np.ndarray, first: np.ndarray) -> np.ndarray:
    t = targets
    trial = _Trial(t, logs)
    starting, running = trial.behind()
    amps, torque = trial.at(t.slip, running)
    locked, _ = trial.at(1.0, starting)
    shaft = torque * 2 * pi * t.rpm / 60 - t.friction_w
    drawn = (t.volts_v * amps.conjugate()).real
    return np.array(
        [
            30 * (shaft / t.power_w - 1),
            30 * (abs(amps) / t.amps_a - 1),
            6 * (shaft / max(drawn, 1e-6) / t.efficiency - 1),
            10 * log(abs(locked) / t.locked_a),
            *(0.1 * (logs - first)),
        ]
    )


def fit_single(targets: SingleTargets) -> SingleFitted:
    """Return the single-phase motor nearest to what is asked.

    Parameters
    ----------
    targets : SingleTargets
        All above zero; slip between 0 and 1.

    Returns
    -------
    SingleFitted
        With what it gives; compare it with the targets before using it.
    """
    t = targets
    rated, locked = t.volts_v / t.amps_a, t.volts_v / t.locked_a * 1.2
    found: list[tuple[float, np.ndarray]] = []
    for magnetising in (2.0, 1.4, 3.0):
        first = np.log(np.array([_X1 * locked, magnetising * rated, _R2 * locked, _R1 * locked]))
        found.append(
            descend(
                partial(_residuals, t, first=first),
                first,
                rounds=_ROUNDS,
                most_step=0.5,
                settled=(1e-8, 1e-13),
            )
        )
        if found[-1][0] < 0.05:
            break
    cost, logs = min(found, key=lambda one: one[0])
    trial = _Trial(t, logs)
    start, run = trial.capacitors()
    _, running = trial.behind()
    amps, torque = trial.at(t.slip, running)
    held, pull = trial.at(1.0, series_ohm(start, run, t.hz))
    # one that was not stamped is taken no larger than makes a usual start
    while start is not None and t.start_f is None and pull > _USUAL_START * t.rated_nm:
        start *= 0.95
        held, pull = trial.at(1.0, series_ohm(start, run, t.hz))
    shaft = torque * 2 * pi * t.rpm / 60 - t.friction_w
    return SingleFitted(
        main_ohm=trial.main,
        start_ohm=trial.start,
        turns=trial.turns,
        gap=trial.gap,
        start_f=start,
        run_f=run,
        friction_w=t.friction_w,
        amps_a=abs(amps),
        efficiency=shaft / (t.volts_v * amps.conjugate()).real,
        locked_a=abs(held),
        locked_times=pull / t.rated_nm,
        cost=cost,
    )


def single_machine(
    fitted: SingleFitted,
    coils: tuple[tuple[str, str, str], ...],
    *,
    halves: int,
    factor: float,
    hz: float,
    behind_ohm: complex | None,
    inertia_kg_m2: float,
    rated_rad_s: float,
    rated_nm: float,
) -> Machine:
    """Return the coils of a single-phase motor with something before its start winding.

    Parameters
    ----------
    fitted : SingleFitted
        The motor.
    coils : tuple of (str, str, str)
        Name, start and end of each; those called ``M...`` are the main winding's, ``X`` is the
        start winding.
    halves : int
        Coils of the main winding.
    factor : float
        Line volts over the volts of one coil, in the connection of the rated volts.
    hz : float
        Of the nameplate.
    behind_ohm : complex or None
        In series with the start winding; None opens it.
    inertia_kg_m2 : float
        Of the motor alone. [kg m2]
    rated_rad_s : float
        On the nameplate. [rad/s]
    rated_nm : float
        Likewise, at the shaft. [N m]
    """
    # volt-amps are the same whatever the halves: an ohm of the whole is spread over them
    part = halves / factor**2
    gap_part = halves**2 / factor**2
    scale = gap_part**0.5
    found = []
    for name, start, end in coils:
        if name.startswith("M"):
            own, weight = fitted.main_ohm * part, complex(1 / halves)
        else:
            # an open start circuit stays in the list: its heat goes on cooling
            before = complex(_OPEN_OHM) if behind_ohm is None else behind_ohm
            # the start winding lies across one half where there are two in series
            own = (fitted.start_ohm + before) / factor**2
            weight = -1j * fitted.turns / halves
        found.append(MachineCoil(name, start, end, own, (weight,)))
    gap = fitted.gap
    return Machine(
        coils=tuple(found),
        gaps=(
            replace(
                gap,
                xm=gap.xm * gap_part,
                rfe=gap.rfe * gap_part,
                ri=gap.ri * gap_part,
                xi=gap.xi * gap_part,
                ro=gap.ro * gap_part,
                rated_v=gap.rated_v * scale,
            ),
        ),
        hz=hz,
        inertia_kg_m2=inertia_kg_m2,
        friction_w=fitted.friction_w,
        rated_rad_s=rated_rad_s,
        rated_nm=rated_nm,
    )
