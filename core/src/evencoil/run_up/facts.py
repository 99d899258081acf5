"""What is known of motor, load and supply for a run: a machine, ready to run.

One machine for each kind of motor: a cage with one speed or two, a wound rotor with its
resistors, a single-phase motor with its start winding. Nothing here was measured on this
motor.

Units: in the names. Source: `evencoil.solver.motor`; starting resistors by equal peaks of
torque (textbook wound-rotor starting).
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import pi, sqrt
from typing import Literal

from evencoil.base import Step, Trail
from evencoil.codebook import given
from evencoil.leads import Derived
from evencoil.run_up.asked import Asked, Heaters
from evencoil.run_up.finder import WATTS, Finder, Rated, missing, no_circuit, refused
from evencoil.run_up.rotor import RotorSteps, find_rotor
from evencoil.run_up.single import SingleStart, find_single
from evencoil.solver.motor import (
    Fitted,
    Load,
    Machine,
    MachineSpeed,
    MotorOnLoad,
    RelayClass,
    RelayKind,
    ShortCircuitDevice,
    Targets,
    fit_circuit,
    machine_of,
)
from evencoil.winding import Connection, Winding

__all__ = ["Facts", "MotorKind", "SpeedFacts", "find_facts"]

MotorKind = Literal["cage", "two_speed", "wound", "single"]
_STIFF_A = 200_000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedFacts:
    """The low speed of two.

    Attributes
    ----------
    trail : Trail
        Its figures with their evidence.
    connection : Connection
        In which it runs at that speed.
    """

    trail: Trail
    connection: Connection
    fitted: Fitted
    amps_a: float
    rated_rad_s: float
    rated_nm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Facts:
    """A motor, its load and supply, ready to run.

    Attributes
    ----------
    trail : Trail
        Every figure with its evidence and marks.
    connection : Connection
        In which it runs; of two speeds the high one.
    fitted : Fitted or None
        None of a single-phase motor.
    is_grounded : bool
        Whether the supply's neutral is grounded.
    low, rotor, single
        What only a two-speed, a wound-rotor, or a single-phase motor has.
    is_sag_known : bool
        Whether the supply's fault current was entered: without it no sag is shown.
    limit_k : float
        Rise of the winding at which its class is passed, above the ambient. [K]
    """

    trail: Trail
    winding: Winding
    connection: Connection
    machine: Machine
    fitted: Fitted | None
    load: Load
    line_v: float
    amps_a: float
    fault_a: float
    is_sag_known: bool
    relay_class: RelayClass
    relay_kind: RelayKind
    heaters: Heaters | None
    rated_rise_k: float
    limit_k: float
    ambient_c: float
    is_hot: bool
    device: ShortCircuitDevice | None
    first_step_s: float | None
    kind: MotorKind = "cage"
    is_grounded: bool = True
    low: SpeedFacts | None = None
    rotor: RotorSteps | None = None
    single: SingleStart | None = None

    @property
    def coil_a(self) -> float:
        """Return the rated current of the coil that carries most [A]."""
        return max(self.coil_rated_a)

    @property
    def coil_rated_a(self) -> tuple[float, ...]:
        """Return the rated current of each coil: their volt-amps together are the line's [A]."""
        if self.single is not None:
            return self.single.coil_rated_a
        shared = _coil_rated_a(self.winding, self.connection, self.amps_a)
        if self.low is None:
            return shared
        slow = _coil_rated_a(self.winding, self.low.connection, self.low.amps_a)
        return tuple(max(one, other) for one, other in zip(shared, slow, strict=True))

    @property
    def is_poor(self) -> bool:
        """Tell whether no such circuit comes near to all that was asked."""
        if self.single is not None:
            return self.single.fitted.is_poor
        found = [self.fitted, None if self.low is None else self.low.fitted]
        return any(one is not None and one.is_poor for one in found)

    def on_load(self) -> MotorOnLoad | None:
        """Return the motor as a rehearsal moves it; None of one whose rotor has resistors."""
        if self.rotor is not None:
            return None
        single = self.single
        return MotorOnLoad(
            machine=self.machine,
            starting=None if single is None else single.machine,
            opens_rad_s=None if single is None else single.opens_rad_s,
            load=self.load,
            coil_rated_a=self.coil_rated_a,
            rated_rise_k=self.rated_rise_k,
            limit_k=self.limit_k,
            ambient_c=self.ambient_c,
            relay_class=self.relay_class,
            relay_kind=self.relay_kind,
        )

    @property
    def is_guessed(self) -> bool:
        """Tell whether any figure was taken as usual."""
        return any(step.kind == "assumed" for step in self.all_steps)

    @property
    def all_steps(self) -> tuple[Step, ...]:
        """Return every figure with its evidence, those of the low speed after the others."""
        return (*self.trail, *(() if self.low is None else self.low.trail))


def _coil_rated_a(winding: Winding, connection: Connection, amps_a: float) -> tuple[float, ...]:
    """Return what each coil carries at rated line current; nothing in one not connected [A]."""
    fed = [coil.field in {"one", "both", connection.speed} for coil in winding.coils]
    each = sqrt(3) * amps_a * connection.factor / sum(fed)
    return tuple(each if is_fed else 0.0 for is_fed in fed)


def _kind(asked: Asked) -> MotorKind:
    """Return what kind of motor it is; refuse one that cannot be run here."""
    winding, kind = asked.winding, asked.plate.kind
    if kind and kind not in {"three_phase", "single_phase", "wound_rotor"}:
        raise refused("kind", "plate.text", kind=kind.replace("_", " "))
    if winding is None or asked.rating is None:
        raise missing("winding")
    if asked.supply is None or asked.verdict is None:
        raise missing("supply")
    if asked.supply.system == "drive":
        raise refused("drive", "supply.text")
    if asked.states is None:
        raise missing("connection")
    if not asked.load.kind:
        raise missing("load")
    if winding.phases == 1:
        return "single"
    if winding.is_two_speed:
        return "two_speed"
    return "wound" if kind == "wound_rotor" else "cage"


def find_facts(asked: Asked) -> Facts:
    """Return what a run is calculated with.

    Raises
    ------
    MissingError
        If a figure is missing that nothing usual can stand for.
    RefusedError
        If the motor is of a kind that is not calculated here, or its plate contradicts itself.
    OutOfRangeError
        If no equivalent circuit comes near to the nameplate.
    """
    kind = _kind(asked)
    if kind == "single":
        return _single(asked)
    if kind == "two_speed":
        return _two_speed(asked)
    return _one_speed(asked, kind)


def _targets(finder: Finder, *, held: tuple[float, float] | None = None) -> tuple[Rated, Targets]:
    """Return what is stamped for a speed, and what its circuit is to give."""
    is_wound = finder.asked.plate.kind == "wound_rotor"
    rated = finder.rated()
    efficiency = finder.efficiency(rated)
    if is_wound:
        # what it draws with its rings shorted follows from the breakdown torque
        locked_a, locked_times, is_known = 5 * rated.amps_a, 1.0, True
        breakdown_times = finder.wound_breakdown()
    else:
        locked_a = finder.locked_a(rated)
        if locked_a < 2 * rated.amps_a:
            raise refused(
                "locked",
                "locked_rotor_amps_a",
                locked=f"{locked_a:.0f}",
                amps=f"{rated.amps_a:g}",
            )
        locked_times, breakdown_times, is_known = finder.torques(rated.power_hp, rated.poles)
    return rated, Targets(
        power_w=float(rated.power_hp) * WATTS,
        line_v=rated.volts_v,
        amps_a=rated.amps_a,
        hz=rated.hz,
        rpm=rated.rpm,
        pole_pairs=rated.poles // 2,
        efficiency=efficiency,
        locked_a=locked_a,
        locked_times=locked_times,
        breakdown_times=breakdown_times,
        is_breakdown_known=is_known,
        held=held,
        is_wound=is_wound,
    )


def _fit(targets: Targets) -> Fitted:
    fitted = fit_circuit(targets)
    is_near = abs(fitted.amps_a / targets.amps_a - 1) < 0.03 and (
        targets.is_wound
        or abs(fitted.locked_a / targets.locked_a - 1) < (0.1 if targets.held is None else 0.3)
    )
    if not is_near:
        raise no_circuit(fitted.amps_a, fitted.locked_a)
    return fitted


def _one_speed(asked: Asked, kind: MotorKind) -> Facts:
    """Return a cage motor, or a wound rotor with its slip rings shorted."""
    winding, states = _known(asked)
    trail = Trail()
    finder = Finder(asked, trail)
    rated, targets = _targets(finder)
    fitted = _fit(targets)
    connection = states.states.get("run") or states.connection
    found = _facts(
        finder,
        kind=kind,
        rated=rated,
        targets=targets,
        fitted=fitted,
        winding=winding,
        connection=connection,
        speeds=(MachineSpeed(field="one", circuit=fitted.circuit, factor=connection.factor),),
    )
    if kind != "wound":
        return found
    return replace(found, rotor=find_rotor(asked, trail, fitted, targets))


def _two_speed(asked: Asked) -> Facts:
    """Return a motor of two pole numbers, on one winding or two."""
    winding, states = _known(asked)
    plate = asked.plate
    if len(plate.speed_rpm) != 2 or len(plate.amps_a) != 2:
        raise missing("speeds")
    if {"low", "high"} - states.states.keys():
        raise missing("connection")
    fast = 0 if plate.speed_rpm[0] > plate.speed_rpm[1] else 1
    quick, slow = Finder(asked, Trail(), fast), Finder(asked, Trail(), 1 - fast)
    rated, targets = _targets(quick)
    fitted = _fit(targets)
    high, low = states.states["high"], states.states["low"]
    held = None
    if winding.kind != "2-speed-2-winding":
        # the same copper, in another connection
        part = (low.factor / high.factor) ** 2
        held = (fitted.circuit.r1 * part, fitted.circuit.x1 * part)
    slow_rated, slow_targets = _targets(slow, held=held)
    slow_fitted = _fit(slow_targets)
    if slow_rated.poles != 2 * rated.poles and held is not None:
        raise refused("poles", "speed_rpm", low=str(slow_rated.poles), high=str(rated.poles))
    found = _facts(
        quick,
        kind="two_speed",
        rated=rated,
        targets=targets,
        fitted=fitted,
        winding=winding,
        connection=high,
        speeds=(
            MachineSpeed(field="high", circuit=fitted.circuit, factor=high.factor),
            MachineSpeed(field="low", circuit=slow_fitted.circuit, factor=low.factor),
        ),
    )
    return replace(
        found,
        low=SpeedFacts(
            trail=slow.trail,
            connection=low,
            fitted=slow_fitted,
            amps_a=slow_rated.amps_a,
            rated_rad_s=slow_rated.rpm * 2 * pi / 60,
            rated_nm=slow_targets.rated_nm,
        ),
    )


def _single(asked: Asked) -> Facts:
    """Return a single-phase motor with what starts it."""
    winding, states = _known(asked)
    trail = Trail()
    finder = Finder(asked, trail)
    rated = finder.rated()
    rated_rad_s = rated.rpm * 2 * pi / 60
    rated_nm = float(rated.power_hp) * WATTS / rated_rad_s
    own, driven = finder.inertia(rated.power_hp, rated.poles)
    connection = states.states.get("run") or states.connection
    machine, single = find_single(
        finder, rated, winding, connection, inertia_kg_m2=own, rated_nm=rated_nm
    )
    load = finder.load(rated_nm, rated_rad_s, driven)
    return _made(
        finder,
        kind="single",
        rated=rated,
        fitted=None,
        winding=winding,
        connection=connection,
        machine=machine,
        load=load,
        single=single,
    )


def _known(asked: Asked) -> tuple[Winding, Derived]:
    """Return winding and connections, which `_kind` has seen."""
    if asked.winding is None:
        raise missing("winding")
    if asked.states is None:
        raise missing("connection")
    return asked.winding, asked.states


def _facts(
    finder: Finder,
    *,
    kind: MotorKind,
    rated: Rated,
    targets: Targets,
    fitted: Fitted,
    winding: Winding,
    connection: Connection,
    speeds: tuple[MachineSpeed, ...],
) -> Facts:
    """Return a three-phase motor of a circuit."""
    own, driven = finder.inertia(rated.power_hp, rated.poles)
    rated_rad_s = rated.rpm * 2 * pi / 60
    machine = machine_of(
        winding,
        speeds,
        inertia_kg_m2=own,
        friction_w=fitted.friction_w,
        rated_rad_s=rated_rad_s,
        rated_nm=targets.rated_nm,
    )
    return _made(
        finder,
        kind=kind,
        rated=rated,
        fitted=fitted,
        winding=winding,
        connection=connection,
        machine=machine,
        load=finder.load(targets.rated_nm, rated_rad_s, driven),
    )


def _made(
    finder: Finder,
    *,
    kind: MotorKind,
    rated: Rated,
    fitted: Fitted | None,
    winding: Winding,
    connection: Connection,
    machine: Machine,
    load: Load,
    single: SingleStart | None = None,
) -> Facts:
    """Return everything together, with supply, relay and heat."""
    asked, trail = finder.asked, finder.trail
    supply, verdict = asked.supply, asked.verdict
    if supply is None or verdict is None:
        raise missing("supply")
    if asked.fault_current_a is not None:
        given(trail, "fault_current_a", asked.fault_current_a, "A")
    relay_class, relay_kind = finder.relay()
    rise_k, limit_k, ambient_c = finder.heat()
    return Facts(
        trail=trail,
        winding=winding,
        connection=connection,
        machine=machine,
        fitted=fitted,
        load=load,
        line_v=float(verdict.used_volts_v),
        amps_a=rated.amps_a,
        fault_a=float(asked.fault_current_a or _STIFF_A),
        is_sag_known=asked.fault_current_a is not None,
        relay_class=relay_class,
        relay_kind=relay_kind,
        heaters=asked.heaters,
        rated_rise_k=rise_k,
        limit_k=limit_k,
        ambient_c=ambient_c,
        is_hot=asked.load.is_hot,
        device=finder.device(),
        first_step_s=None if asked.load.first_step_s is None else float(asked.load.first_step_s),
        kind=kind,
        is_grounded=supply.system not in {"delta", "ungrounded"},
        single=single,
    )
