"""What is known of motor, load and supply for a run, each with its evidence.

What no one stamped, typed or measured is taken as usual for such motors and marked
so; the mark travels to every result. Nothing here was measured on this motor.

Units: in the names. Sources: NEMA MG 1 part 12 (torques, efficiency), NEC Table
430.7(B) (code letters) and Table 430.251(B) (locked-rotor currents).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from itertools import pairwise
from math import pi, sqrt
from typing import Literal

from evencoil.base import (
    Message,
    MissingError,
    OutOfRangeError,
    RefusedError,
    Trail,
    plain,
)
from evencoil.codebook import assumed, given, table
from evencoil.leads import Derived
from evencoil.plate import Band, Nameplate, Supply, Verdict, locked_rotor_band_a, poles_of
from evencoil.run_up.inputs import LoadInputs, LoadKind
from evencoil.sizing import DEFAULT_TRIP_CLASS
from evencoil.solver.motor import (
    INSULATION_C,
    Fitted,
    Load,
    LoadShape,
    Machine,
    RelayClass,
    RelayKind,
    Targets,
    fit_circuit,
    machine_of,
)
from evencoil.winding import Connection, Rating, Winding

__all__ = ["Asked", "Facts", "Heaters", "find_facts"]

Heaters = Literal["line", "leg", "half"]
_WATTS = 745.7
_LB_FT2 = 0.04214011
#: judgment: a load's inertia as a multiple of the motor's own
_INERTIA_TIMES: dict[LoadKind, float] = {"fan": 8, "conveyor": 4, "mixer": 2, "downhill": 4}
_SHAPES: dict[LoadKind, LoadShape] = {
    "uncoupled": "none",
    "fan": "quadratic",
    "conveyor": "constant",
    "mixer": "linear",
    "downhill": "overhauling",
}
#: judgment: a torque that starts a loaded machine over the one that keeps it going
_TARGET, _FLOOR = 1.10, 1.15
_DESIGN_C, _DESIGN_D = 1.4, 2.75
_LEAST_SLIP, _MOST_SLIP = 0.001, 0.2
_MOST_PF = 0.95
#: judgment: efficiency of a motor under one horsepower
_SMALL_PERCENT = Decimal(70)
_STIFF_A = 200_000.0
_RISE_K, _AMBIENT_C = 80.0, 40.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """Everything a run is found from.

    ``heaters`` tells where those of the overload relay lie, if anyone said;
    ``measured_locked_a`` is of a measured start.
    """

    plate: Nameplate
    supply: Supply | None
    verdict: Verdict | None
    winding: Winding | None
    rating: Rating | None
    states: Derived | None
    load: LoadInputs
    fault_current_a: Decimal | None = None
    trip_class: int | None = None
    heaters: Heaters | None = None
    measured_locked_a: Decimal | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Facts:
    """A motor, its load and supply, ready to run.

    Attributes
    ----------
    trail : Trail
        Every figure with its evidence and marks.
    connection : Connection
        In which it runs.
    is_sag_known : bool
        Whether the supply's fault current was entered: without it no sag is shown.
    limit_k : float
        Rise of the winding at which its class is passed, above the ambient. [K]
    """

    trail: Trail
    winding: Winding
    connection: Connection
    machine: Machine
    fitted: Fitted
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
    first_step_s: float | None

    @property
    def coil_a(self) -> float:
        """Return the rated current of each coil: their volt-amps together are the line's [A]."""
        return sqrt(3) * self.amps_a * self.connection.factor / len(self.machine.coils)

    @property
    def is_guessed(self) -> bool:
        """Tell whether any figure was taken as usual."""
        return any(step.kind == "assumed" for step in self.trail)


def _column(values: tuple[Decimal, ...], column: int) -> Decimal | None:
    """Return a nameplate's figure for a column of volts, or the only one."""
    if not values:
        return None
    return values[column] if column < len(values) else values[0]


def _amps(bands: tuple[Band, ...], column: int, part: float) -> Decimal | None:
    """Return stamped amps for a column of volts; of a range, those of the volts in use.

    ``part`` is how far the volts in use lie from the low end of their range to the high one:
    the most amps belong to the least volts.
    """
    if not bands:
        return None
    band = bands[column] if column < len(bands) else bands[0]
    return round(band.high - (band.high - band.low) * Decimal(str(part)), 2)


def _volts(verdict: Verdict) -> tuple[Decimal, float]:
    """Return the plate's volts nearest to the supply, and how far up their range they lie."""
    band = verdict.plate_volts
    volts = min(max(verdict.used_volts_v, band.low), band.high)
    if band.high == band.low:
        return volts, 0.0
    return volts, float((volts - band.low) / (band.high - band.low))


def _refused(code: str, field: str, **params: str) -> RefusedError:
    return RefusedError(
        Message(f"run_up.{code}", params), field=field, hint=Message(f"run_up.{code}.hint", params)
    )


#: the input that is missing, by the name of what it gives
_FIELDS = {
    "power": "power_hp",
    "supply": "supply.text",
    "amps": "amps_a",
    "speed": "speed_rpm",
    "locked": "code_letter",
    "winding": "leads.winding",
    "connection": "leads.winding",
    "load": "load.kind",
}


def _missing(name: str) -> MissingError:
    return MissingError(
        Message(f"run_up.no_{name}"), field=_FIELDS[name], hint=Message(f"run_up.no_{name}.hint")
    )


def _between(name: str, column: str, power_hp: Decimal) -> Decimal | None:
    """Return a table's figure at a power, straight between rows; None outside it."""
    book = table(name)
    rows = [
        (hp, book.number(row, column))
        for row, hp in enumerate(book.figures("hp"))
        if book.number(row, column) is not None
    ]
    if not rows or not rows[0][0] <= power_hp <= rows[-1][0]:
        return None
    for (low, one), (high, other) in pairwise(rows):
        if low <= power_hp <= high and one is not None and other is not None:
            return one + (other - one) * (power_hp - low) / (high - low)
    return rows[0][1]


def _decimal(value: float, places: int = 3) -> Decimal:
    return Decimal(f"{value:.{places}g}") if value else Decimal(0)


@dataclass(slots=True)
class _Finder:
    asked: Asked
    trail: Trail

    def power_hp(self) -> Decimal:
        plate = self.asked.plate
        if plate.power_hp:
            return given(self.trail, "power_hp", plate.power_hp[0], "hp").number
        if plate.power_kw:
            given(self.trail, "power_kw", plate.power_kw[0], "kW")
            return plate.power_kw[0] * 1000 / Decimal(str(_WATTS))
        raise _missing("power")

    def rated(self) -> tuple[Decimal, float, float, float, int]:
        """Return power [hp], rated volts, amps, hertz and poles of the column in use."""
        asked, plate = self.asked, self.asked.plate
        if asked.supply is None or asked.verdict is None:
            raise _missing("supply")
        column = asked.verdict.column
        volts, part = _volts(asked.verdict)
        amps = _amps(plate.amps_a, column, part)
        if amps is None:
            raise _missing("amps")
        rpm = _column(plate.speed_rpm, column)
        if rpm is None:
            raise _missing("speed")
        supplied = asked.supply.frequency_hz
        is_for_it = not plate.frequency_hz or supplied in plate.frequency_hz
        hz = supplied if is_for_it else plate.frequency_hz[0]
        if not is_for_it:
            raise _refused("frequency", "supply.text", plate=plain(hz), supply=plain(supplied))
        poles = poles_of(rpm, hz)
        if poles is None:
            raise _refused("speed", "speed_rpm", rpm=plain(rpm), hz=plain(hz))
        power = self.power_hp()
        given(self.trail, "rated_volts", volts, "V")
        given(self.trail, "rated_amps", amps, "A")
        given(self.trail, "speed_rpm", rpm, "rpm")
        slip = 1 - float(rpm) * poles / (120 * float(hz))
        if not _LEAST_SLIP <= slip <= _MOST_SLIP:
            raise _refused(
                "slip", "speed_rpm", rpm=plain(rpm), slip=f"{slip * 100:.1f}", poles=str(poles)
            )
        return power, float(volts), float(amps), float(hz), poles

    def efficiency(self, power_hp: Decimal, volts_v: float, amps_a: float) -> float:
        stamped = _column(
            self.asked.plate.efficiency_percent,
            self.asked.verdict.column if self.asked.verdict else 0,
        )
        power_w = float(power_hp) * _WATTS
        apparent = sqrt(3) * volts_v * amps_a
        if power_w / apparent >= _MOST_PF:
            raise _refused(
                "plate",
                "amps_a",
                power=f"{power_w / 1000:.2f}",
                apparent=f"{apparent / 1000:.2f}",
            )
        if stamped is not None:
            step = given(self.trail, "efficiency_percent", stamped, "percent")
        else:
            usual = _between("mg1_efficiency", "efficiency", power_hp)
            if usual is None:
                # below a horsepower no table reaches
                known = table("mg1_efficiency").figures("efficiency")
                usual = _SMALL_PERCENT if power_hp < 1 else known[-1]
            step = assumed(
                self.trail,
                "efficiency_percent",
                _decimal(float(usual)),
                "percent",
                "run_up.efficiency",
            )
        part = float(step.number) / 100
        least = power_w / apparent / _MOST_PF
        if part < least:
            step = assumed(
                self.trail,
                "efficiency_by_amps_percent",
                _decimal(least * 100),
                "percent",
                "run_up.efficiency_moved",
                {"said": plain(step.number)},
            )
            part = float(step.number) / 100
        return part

    def locked_a(self, power_hp: Decimal, volts_v: float) -> float:
        asked, plate = self.asked, self.asked.plate
        column = asked.verdict.column if asked.verdict else 0
        stamped = _amps(plate.locked_rotor_amps_a, column, 0.0)
        if asked.measured_locked_a is not None:
            return float(
                given(
                    self.trail, "locked_rotor_a", asked.measured_locked_a, "A", "run_up.measured"
                ).number
            )
        if stamped is not None:
            return float(given(self.trail, "locked_rotor_a", stamped, "A").number)
        # the column for 460 V goes furthest; currents are as one over volts
        usual = _between("430_251_b", "v460", power_hp)
        by_table = None if usual is None else float(usual) * 460 / volts_v
        if plate.code_letter:
            low, high = locked_rotor_band_a(
                letter=plate.code_letter,
                power_hp=power_hp,
                volts_v=Decimal(str(volts_v)),
                phases=3,
            )
            middle = float(low) if high is None else (float(low) + float(high)) / 2
            if by_table is not None and plate.design_letter in {None, "B", "C", "D"}:
                # a design B motor stays under the table; its letter may not be undercut
                middle = max(min(middle, by_table), float(low))
            return float(
                assumed(
                    self.trail,
                    "locked_rotor_a",
                    _decimal(middle, 4),
                    "A",
                    "run_up.locked_letter",
                    {"letter": plate.code_letter},
                ).number
            )
        if by_table is None:
            raise _missing("locked")
        return float(
            assumed(
                self.trail, "locked_rotor_a", _decimal(by_table, 4), "A", "run_up.locked_table"
            ).number
        )

    def torques(self, power_hp: Decimal, poles: int) -> tuple[float, float, bool]:
        """Return locked-rotor and breakdown torque over rated, and whether the latter is known."""
        load, design = self.asked.load, self.asked.plate.design_letter
        pair = {2: "2", 4: "4", 6: "6", 8: "8"}.get(poles, "8")
        inside = min(max(power_hp, Decimal(1)), Decimal(500))
        least = _between("mg1_torque", f"lrt_{pair}", inside) or Decimal(100)
        floor = _between("mg1_torque", f"bdt_{pair}", inside) or Decimal(175)
        if load.locked_torque_percent is not None:
            locked = float(
                given(
                    self.trail, "locked_torque_percent", load.locked_torque_percent, "percent"
                ).number
            )
        else:
            times = _TARGET * float(least) / 100
            if design == "C":
                times = max(2.0, _DESIGN_C * float(least) / 100)
            elif design == "D":
                times = _DESIGN_D
            locked = float(
                assumed(
                    self.trail,
                    "locked_torque_percent",
                    _decimal(times * 100),
                    "percent",
                    "run_up.locked_torque",
                    {"least": plain(_decimal(float(least)))},
                ).number
            )
        if load.breakdown_torque_percent is not None:
            known = given(
                self.trail, "breakdown_torque_percent", load.breakdown_torque_percent, "percent"
            )
            return locked / 100, float(known.number) / 100, True
        return locked / 100, _FLOOR * float(floor) / 100, False

    def inertia(self, power_hp: Decimal, poles: int) -> tuple[float, float]:
        """Return the inertia of motor and load at the shaft [kg m2]."""
        load = self.asked.load
        if load.motor_inertia_lb_ft2 is not None:
            own = given(self.trail, "motor_inertia_lb_ft2", load.motor_inertia_lb_ft2, "lb ft2")
        else:
            kw = float(power_hp) * _WATTS / 1000
            usual = 0.0025 * kw**1.4 * (poles / 2) ** 1.3
            own = assumed(
                self.trail,
                "motor_inertia_lb_ft2",
                _decimal(usual / _LB_FT2),
                "lb ft2",
                "run_up.motor_inertia",
            )
        mine = float(own.number) * _LB_FT2
        if load.kind == "uncoupled":
            return mine, 0.0
        if load.inertia_lb_ft2 is not None:
            driven = given(self.trail, "load_inertia_lb_ft2", load.inertia_lb_ft2, "lb ft2")
        else:
            driven = assumed(
                self.trail,
                "load_inertia_lb_ft2",
                _decimal(float(own.number) * _INERTIA_TIMES[load.kind]),
                "lb ft2",
                "run_up.load_inertia",
                {"times": f"{_INERTIA_TIMES[load.kind]:g}"},
            )
        return mine, float(driven.number) * _LB_FT2

    def load(self, rated_nm: float, rated_rad_s: float, inertia_kg_m2: float) -> Load:
        asked = self.asked.load
        if asked.kind == "uncoupled":
            part = 0.0
        elif asked.torque_percent is not None:
            part = float(
                given(self.trail, "load_torque_percent", asked.torque_percent, "percent").number
            )
        else:
            part = float(
                assumed(
                    self.trail, "load_torque_percent", Decimal(100), "percent", "run_up.load_torque"
                ).number
            )
        breakaway = 0.0
        if asked.breakaway_percent is not None:
            breakaway = float(
                given(self.trail, "breakaway_percent", asked.breakaway_percent, "percent").number
            )
        return Load(
            shape=_SHAPES[asked.kind],
            torque_nm=rated_nm * part / 100,
            rated_rad_s=rated_rad_s,
            inertia_kg_m2=inertia_kg_m2,
            breakaway_nm=rated_nm * breakaway / 100,
            has_backstop=asked.has_backstop,
        )

    def relay(self) -> tuple[RelayClass, RelayKind]:
        set_a = self.trail.number("rated_amps")
        assumed(self.trail, "relay_set_a", set_a, "A", "run_up.relay_set")
        trip = self.asked.trip_class
        if trip is None:
            trip = DEFAULT_TRIP_CLASS
            assumed(self.trail, "trip_class", str(trip), "", "run_up.trip_class")
        else:
            given(self.trail, "trip_class", str(trip), "")
        kind: RelayKind = self.asked.load.relay_kind or "plain"
        if not self.asked.load.relay_kind:
            assumed(self.trail, "relay_kind", "plain", "", "run_up.relay_kind")
        known: dict[int, RelayClass] = {5: "5", 10: "10", 20: "20", 30: "30"}
        return known[trip], kind

    def heat(self) -> tuple[float, float, float]:
        """Return rated rise [K], allowed rise [K] and ambient [C]."""
        plate = self.asked.plate
        letter = (plate.insulation_class or "").strip().upper()
        if letter in INSULATION_C:
            given(self.trail, "insulation_class", letter, "")
        else:
            letter = "B"
            assumed(self.trail, "insulation_class", letter, "", "run_up.insulation")
        ambient = float(plate.ambient_c) if plate.ambient_c is not None else _AMBIENT_C
        limit = INSULATION_C[letter] - ambient
        rise = float(plate.temperature_rise_c) if plate.temperature_rise_c else _RISE_K
        return min(rise, limit - 10), limit, ambient


def _refuse_others(asked: Asked) -> tuple[Winding, Derived]:
    """Return winding and connections of a motor that can be run here; refuse any other."""
    winding, kind = asked.winding, asked.plate.kind
    if kind and kind != "three_phase":
        raise _refused("kind", "plate.text", kind=kind.replace("_", " "))
    if winding is None or asked.rating is None:
        raise _missing("winding")
    if winding.phases != 3:
        raise _refused("kind", "plate.text", kind="single phase")
    if winding.is_two_speed:
        raise _refused("two_speed", "leads.winding")
    if asked.supply is None or asked.verdict is None:
        raise _missing("supply")
    if asked.supply.system == "drive":
        raise _refused("drive", "supply.text")
    if asked.states is None:
        raise _missing("connection")
    if not asked.load.kind:
        raise _missing("load")
    return winding, asked.states


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
    winding, states = _refuse_others(asked)
    trail = Trail()
    finder = _Finder(asked, trail)
    power_hp, volts_v, amps_a, hz, poles = finder.rated()
    efficiency = finder.efficiency(power_hp, volts_v, amps_a)
    rpm = float(trail.number("speed_rpm"))
    locked_a = finder.locked_a(power_hp, volts_v)
    if locked_a < 2 * amps_a:
        raise _refused(
            "locked", "locked_rotor_amps_a", locked=f"{locked_a:.0f}", amps=f"{amps_a:g}"
        )
    locked_times, breakdown_times, is_known = finder.torques(power_hp, poles)
    targets = Targets(
        power_w=float(power_hp) * _WATTS,
        line_v=volts_v,
        amps_a=amps_a,
        hz=hz,
        rpm=rpm,
        pole_pairs=poles // 2,
        efficiency=efficiency,
        locked_a=locked_a,
        locked_times=locked_times,
        breakdown_times=breakdown_times,
        is_breakdown_known=is_known,
    )
    fitted = fit_circuit(targets)
    if not _is_near(fitted, targets):
        raise OutOfRangeError(
            Message(
                "run_up.no_circuit",
                {"amps": f"{fitted.amps_a:.3g}", "locked": f"{fitted.locked_a:.3g}"},
            ),
            field="plate.text",
            hint=Message("run_up.no_circuit.hint"),
        )
    own, driven = finder.inertia(power_hp, poles)
    rated_rad_s = rpm * 2 * pi / 60
    connection = states.states.get("run") or states.connection
    turns = winding.coils[0].turns
    machine = machine_of(
        winding,
        fitted.circuit,
        phases_as_wye=3 / (connection.factor * turns) ** 2,
        inertia_kg_m2=own,
        friction_w=fitted.friction_w,
        rated_rad_s=rated_rad_s,
        rated_nm=targets.rated_nm,
    )
    load = finder.load(targets.rated_nm, rated_rad_s, driven)
    if asked.fault_current_a is not None:
        given(trail, "fault_current_a", asked.fault_current_a, "A")
    relay_class, relay_kind = finder.relay()
    rise_k, limit_k, ambient_c = finder.heat()
    supply = asked.supply
    if supply is None or asked.verdict is None:
        raise _missing("supply")
    return Facts(
        trail=trail,
        winding=winding,
        connection=connection,
        machine=machine,
        fitted=fitted,
        load=load,
        line_v=float(asked.verdict.used_volts_v),
        amps_a=amps_a,
        fault_a=float(asked.fault_current_a or _STIFF_A),
        is_sag_known=asked.fault_current_a is not None,
        relay_class=relay_class,
        relay_kind=relay_kind,
        heaters=asked.heaters,
        rated_rise_k=rise_k,
        limit_k=limit_k,
        ambient_c=ambient_c,
        is_hot=asked.load.is_hot,
        first_step_s=None if asked.load.first_step_s is None else float(asked.load.first_step_s),
    )


def _is_near(fitted: Fitted, targets: Targets) -> bool:
    """Tell whether the circuit gives the currents it was asked for."""
    return (
        abs(fitted.amps_a / targets.amps_a - 1) < 0.03
        and abs(fitted.locked_a / targets.locked_a - 1) < 0.1
    )
