"""A single-phase motor of a job: its coils, its capacitors, and when the start switch opens.

What starts it is read off the Leads step; where no one looked, a capacitor-start motor
with a centrifugal switch is taken and marked so.

Units: [uF] as stamped, [F] inside; [rad/s], [A].
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from math import pi
from typing import Literal

from evencoil.codebook import assumed, given
from evencoil.run_up.finder import WATTS, Finder, Rated, no_circuit, refused
from evencoil.solver.motor import (
    START_SPEED,
    Machine,
    Port,
    SingleFitted,
    SingleKind,
    SingleTargets,
    Wiring,
    fit_single,
    series_ohm,
    single_machine,
)
from evencoil.winding import Connection, Winding, start_branch

__all__ = ["SingleStart", "find_single", "single_sources"]

_Switch = Literal["centrifugal", "potential_relay", "current_relay", "electronic", "none"]
#: judgment: a potential relay picks up at this part of its volts at full speed
_PICKS_UP = 0.85
#: judgment: a current relay drops out at this part of the main winding's standstill current
_DROPS_OUT = 0.6
#: judgment: how much more a start winding carries at standstill than for good
_SHORT_TIME = 8.0
_STIFF_A = 200_000.0
#: judgment: times the rated current that a single-phase motor draws with the rotor held, where
#: neither code letter nor amps are stamped: a permanent-split one, and any other
_SPLIT_LOCKED, _LOCKED = 4.0, 5.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SingleStart:
    """What starts a single-phase motor.

    Attributes
    ----------
    machine : Machine
        With the start circuit closed.
    opens_rad_s : float or None
        Where the start switch opens; None where nothing opens. [rad/s]
    start_f, run_f : float or None
        Capacitors as they are in the circuit. [F]
    """

    kind: SingleKind
    switch: _Switch
    fitted: SingleFitted
    machine: Machine
    opens_rad_s: float | None
    start_f: float | None
    run_f: float | None
    coil_rated_a: tuple[float, ...]
    coils: tuple[tuple[str, str, str], ...]
    halves: int
    factor: float

    def with_start(self, machine: Machine, behind_ohm: complex | None) -> Machine:
        """Return a machine like another with something else before its start winding."""
        return single_machine(
            self.fitted,
            self.coils,
            halves=self.halves,
            factor=self.factor,
            hz=machine.hz,
            behind_ohm=None if behind_ohm is None else behind_ohm * self.factor**2,
            inertia_kg_m2=machine.inertia_kg_m2,
            rated_rad_s=machine.rated_rad_s,
            rated_nm=machine.rated_nm,
        )


def single_sources(
    line_v: float, short_circuit_a: float
) -> tuple[tuple[str, complex, complex], ...]:
    """Return the two lines of a single-phase supply, its middle grounded.

    Parameters
    ----------
    line_v : float
        Between the lines. [V]
    short_circuit_a : float
        Of a fault between them. [A]
    """
    behind = complex(0.2, 0.98) * line_v / 2 / short_circuit_a
    return (("L1", complex(line_v / 2), behind), ("L2", complex(-line_v / 2), behind))


def _parts(finder: Finder) -> tuple[SingleKind, _Switch]:
    """Return how it starts, by what was found in the box."""
    parts, winding = finder.asked.start_parts, finder.asked.winding
    found = None
    if winding is not None:
        found = start_branch(winding, capacitors=parts.capacitors, switch=parts.switch)
    if found is None or found.kind == "unknown":
        assumed(finder.trail, "single_start", "capacitor_start", "", "run_up.single_start")
        return "capacitor_start", "centrifugal"
    if found.kind == "none":
        raise refused("single_parts", "leads.single")
    given(finder.trail, "single_start", found.kind, "")
    switch: _Switch = parts.switch or "none"
    return found.kind, switch


def _coils(winding: Winding) -> tuple[tuple[str, str, str], ...]:
    """Return the coils; a start winding without leads of its own lies across a main one."""
    known = tuple((coil.name, coil.start, coil.end) for coil in winding.coils)
    if any(name == "X" for name, _, _ in known):
        return known
    _, start, end = known[0]
    return (*known, ("X", end, start))


def find_single(
    finder: Finder,
    rated: Rated,
    winding: Winding,
    connection: Connection,
    *,
    inertia_kg_m2: float,
    rated_nm: float,
) -> tuple[Machine, SingleStart]:
    """Return the motor as it runs, and what starts it.

    Parameters
    ----------
    finder : Finder
        With the job's inputs; gets the evidence.
    rated : Rated
        What is stamped.
    winding : Winding
        Its coils.
    connection : Connection
        In which it runs.
    inertia_kg_m2 : float
        Of the motor alone. [kg m2]
    rated_nm : float
        At the shaft. [N m]

    Raises
    ------
    CoreError
        If no such motor comes near to the nameplate.
    """
    kind, switch = _parts(finder)
    parts, factor = finder.asked.start_parts, connection.factor
    start_f = _capacitor(finder, "start_uf", parts.start_uf, factor, is_there="start" in kind)
    run_f = _capacitor(
        finder,
        "run_uf",
        parts.run_uf,
        factor,
        is_there=kind in {"permanent_split", "capacitor_start_run"},
    )
    efficiency = finder.efficiency(rated)
    times = _SPLIT_LOCKED if kind == "permanent_split" else _LOCKED
    locked_a = finder.locked_a(rated, times=times)
    fitted = fit_single(
        SingleTargets(
            kind=kind,
            power_w=float(rated.power_hp) * WATTS,
            volts_v=rated.volts_v,
            amps_a=rated.amps_a,
            hz=rated.hz,
            rpm=rated.rpm,
            pole_pairs=rated.poles // 2,
            efficiency=efficiency,
            locked_a=locked_a,
            start_f=start_f,
            run_f=run_f,
        )
    )
    if abs(fitted.amps_a / rated.amps_a - 1) > 0.03 or abs(fitted.locked_a / locked_a - 1) > 0.5:
        raise no_circuit(fitted.amps_a, fitted.locked_a)
    assumed(finder.trail, "start_turns", Decimal(f"{fitted.turns:.2g}"), "", "run_up.start_turns")
    for name, value in (("start_uf", fitted.start_f), ("run_uf", fitted.run_f)):
        if value is not None and name not in finder.trail:
            uf = Decimal(f"{value * factor**2 * 1e6:.3g}")
            assumed(finder.trail, name, uf, "µF", "run_up.capacitor")
    coils = _coils(winding)
    halves = sum(name.startswith("M") for name, _, _ in coils)

    def made(behind: complex | None) -> Machine:
        return single_machine(
            fitted,
            coils,
            halves=halves,
            factor=factor,
            hz=rated.hz,
            behind_ohm=behind,
            inertia_kg_m2=inertia_kg_m2,
            rated_rad_s=rated.rpm * 2 * pi / 60,
            rated_nm=rated_nm,
        )

    behind = series_ohm(fitted.start_f, fitted.run_f, rated.hz)
    starting = made(behind)
    running = made(None if fitted.run_f is None else series_ohm(None, fitted.run_f, rated.hz))
    port = Port(
        starting,
        Wiring(
            sources=single_sources(rated.volts_v, _STIFF_A),
            joined=tuple(
                (*joint.lines, *(lead for lead in joint.leads if lead not in joint.lines))
                for joint in connection.joints
            ),
        ),
    )
    still = [abs(amps) for amps in port.coil_amps(port.fields(0.0).gap)]
    main_a = rated.amps_a * factor / halves
    own = Port(running, port.wiring)
    steady = [abs(amps) for amps in own.coil_amps(own.fields(rated.rpm * 2 * pi / 60).gap)]
    start = SingleStart(
        kind=kind,
        switch=switch,
        fitted=fitted,
        machine=starting,
        opens_rad_s=_opens(
            port, coils, switch, behind / factor**2, is_switched=kind != "permanent_split"
        ),
        start_f=None if fitted.start_f is None else fitted.start_f * factor**2,
        run_f=None if fitted.run_f is None else fitted.run_f * factor**2,
        coil_rated_a=tuple(
            main_a if name.startswith("M") else max(short / _SHORT_TIME, for_good, 1e-6)
            for (name, _, _), short, for_good in zip(coils, still, steady, strict=True)
        ),
        coils=coils,
        halves=halves,
        factor=factor,
    )
    return running, start


def _capacitor(
    finder: Finder, name: str, stamped_uf: Decimal | None, factor: float, *, is_there: bool
) -> float | None:
    """Return a stamped capacitor as the fit takes it, at the volts of the line [F]."""
    if not is_there or stamped_uf is None:
        return None
    told = given(finder.trail, name, stamped_uf, "µF").number
    return float(told) / 1e6 / factor**2


def _opens(
    port: Port,
    coils: tuple[tuple[str, str, str], ...],
    switch: _Switch,
    behind_ohm: complex,
    *,
    is_switched: bool,
) -> float | None:
    """Return the speed at which the start circuit opens [rad/s]; None where nothing opens it."""
    if not is_switched or switch == "none":
        return None
    top = port.machine.synchronous_rad_s
    if switch in {"centrifugal", "electronic"}:
        return START_SPEED * top
    place = next(index for index, coil in enumerate(coils) if coil[0] == "X")
    _, start, end = coils[place]

    def start_v(speed: float) -> float:
        """Return what a potential relay sees: it lies across the start winding alone."""
        gap = port.fields(speed).gap
        volts = port.volts(gap)
        return abs(volts[start] - volts[end] - port.coil_amps(gap)[place] * behind_ohm)

    def main_a(speed: float) -> float:
        return abs(port.coil_amps(port.fields(speed).gap)[0])

    steps = [top * part / 60 for part in range(20, 59)]
    if switch == "potential_relay":
        level = _PICKS_UP * start_v(0.96 * top)
        # above the last speed at which it does not hold: at standstill a capacitor may raise the
        # volts as high, which a relay is made not to answer
        below = [speed for speed in steps if start_v(speed) < level]
        return max(below) if below else START_SPEED * top
    level = _DROPS_OUT * main_a(0.0)
    return next((speed for speed in steps if main_a(speed) <= level), START_SPEED * top)
