"""Each figure of a run, found with its evidence: stamped, typed, measured, or usual.

What no one stamped, typed or measured is taken as usual for such motors and marked
so; the mark travels to every result.

Units: in the names. Sources: NEMA MG 1 part 12 (torques, efficiency), NEC Table
430.7(B) (code letters) and Table 430.251(B) (locked-rotor currents).
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from itertools import pairwise
from math import sqrt

from evencoil.base import Message, MissingError, OutOfRangeError, RefusedError, Trail, plain
from evencoil.codebook import assumed, given, table
from evencoil.plate import Band, Verdict, locked_rotor_band_a, poles_of
from evencoil.run_up.asked import Asked
from evencoil.run_up.inputs import LoadKind
from evencoil.sizing import DEFAULT_TRIP_CLASS, typical_points
from evencoil.solver.motor import (
    INSULATION_C,
    Load,
    LoadShape,
    RelayClass,
    RelayKind,
    ShortCircuitDevice,
)

__all__ = ["WATTS", "Finder", "Rated", "column_of", "missing", "refused"]

WATTS = 745.7
_LB_FT2 = 0.04214011
#: judgment: a load's inertia as a multiple of the motor's own
_INERTIA_TIMES: dict[LoadKind, float] = {
    "fan": 8,
    "conveyor": 4,
    "conveyor_empty": 3,
    "mixer": 2,
    "crusher": 12,
    "flywheel": 25,
    "downhill": 4,
}
#: judgment: a load's torque where no one entered it, and what it takes to move off, percent of
#: rated: a crusher starts empty
_TORQUE: dict[LoadKind, int] = {"conveyor_empty": 30, "crusher": 40, "flywheel": 20}
_MOVES_OFF: dict[LoadKind, int] = {"crusher": 60}
_SHAPES: dict[LoadKind, LoadShape] = {
    "uncoupled": "none",
    "fan": "quadratic",
    "conveyor": "constant",
    "conveyor_empty": "constant",
    "crusher": "constant",
    "flywheel": "constant",
    "mixer": "linear",
    "downhill": "overhauling",
}
#: judgment: a torque that starts a loaded machine over the one that keeps it going
_TARGET, _FLOOR = 1.10, 1.15
_DESIGN_C, _DESIGN_D = 1.4, 2.75
#: judgment: breakdown torque of a wound-rotor motor
_WOUND_BREAKDOWN = Decimal(250)
_LEAST_SLIP, _MOST_SLIP = 0.001, 0.2
_MOST_PF = 0.95
#: judgment: efficiency of a motor under one horsepower
_SMALL_PERCENT = Decimal(70)
#: judgment: of a single-phase motor
_ONE_PHASE_PERCENT = Decimal(68)
_STIFF_A = 200_000.0
_RISE_K, _AMBIENT_C = 80.0, 40.0


def column_of(values: tuple[Decimal, ...], column: int) -> Decimal | None:
    """Return a nameplate's figure for a column of volts, or the only one.

    Parameters
    ----------
    values : tuple of Decimal
        As stamped.
    column : int
        Which.
    """
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


def refused(code: str, field: str, **params: str) -> RefusedError:
    """Return a refusal by its name, with what to do.

    Parameters
    ----------
    code : str
        Name of the sentence.
    field : str
        The input that decides it.
    params : str
        What the sentence names.
    """
    return RefusedError(
        Message(f"run_up.{code}", params), field=field, hint=Message(f"run_up.{code}.hint", params)
    )


def no_circuit(amps_a: float, locked_a: float) -> OutOfRangeError:
    """Return that no equivalent circuit fits a nameplate, with what the nearest one draws.

    Parameters
    ----------
    amps_a : float
        At full load. [A]
    locked_a : float
        With the rotor held. [A]
    """
    return OutOfRangeError(
        Message("run_up.no_circuit", {"amps": f"{amps_a:.3g}", "locked": f"{locked_a:.3g}"}),
        field="plate.text",
        hint=Message("run_up.no_circuit.hint"),
    )


#: the input that is missing, by the name of what it gives
_FIELDS = {
    "power": "power_hp",
    "supply": "supply.text",
    "amps": "amps_a",
    "speed": "speed_rpm",
    "speeds": "speed_rpm",
    "locked": "code_letter",
    "winding": "leads.winding",
    "connection": "leads.winding",
    "load": "load.kind",
}


def missing(name: str) -> MissingError:
    """Return what asks for a missing figure.

    Parameters
    ----------
    name : str
        What it is.
    """
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Rated:
    """What a nameplate says of one speed."""

    power_hp: Decimal
    volts_v: float
    amps_a: float
    hz: float
    rpm: float
    poles: int


@dataclass(slots=True)
class Finder:
    """Finds each figure and writes its evidence into a trail.

    ``place`` is the speed of several, in the order of the nameplate; None for a motor with one.
    """

    asked: Asked
    trail: Trail
    place: int | None = None

    @property
    def phases(self) -> int:
        """Return 1 or 3, by the winding."""
        winding = self.asked.winding
        return 3 if winding is None else winding.phases

    @property
    def column(self) -> int:
        """Return which of several stamped figures counts: of the speed, or of the volts."""
        if self.place is not None:
            return self.place
        return 0 if self.asked.verdict is None else self.asked.verdict.column

    def power_hp(self) -> Decimal:
        """Return the power [hp]."""
        plate = self.asked.plate
        place = self.place or 0
        power = column_of(plate.power_hp, place)
        if power is not None:
            return given(self.trail, "power_hp", power, "hp").number
        power = column_of(plate.power_kw, place)
        if power is not None:
            given(self.trail, "power_kw", power, "kW")
            return power * 1000 / Decimal(str(WATTS))
        raise missing("power")

    def rated(self) -> Rated:
        """Return what is stamped for the column in use, or for the speed."""
        asked, plate = self.asked, self.asked.plate
        if asked.supply is None or asked.verdict is None:
            raise missing("supply")
        column = self.column
        volts, part = _volts(asked.verdict)
        amps = _amps(plate.amps_a, column, part)
        if amps is None:
            raise missing("amps")
        rpm = column_of(plate.speed_rpm, column)
        if rpm is None:
            raise missing("speed")
        supplied = asked.supply.frequency_hz
        is_for_it = not plate.frequency_hz or supplied in plate.frequency_hz
        hz = supplied if is_for_it else plate.frequency_hz[0]
        if not is_for_it:
            raise refused("frequency", "supply.text", plate=plain(hz), supply=plain(supplied))
        poles = poles_of(rpm, hz)
        if poles is None:
            raise refused("speed", "speed_rpm", rpm=plain(rpm), hz=plain(hz))
        power = self.power_hp()
        given(self.trail, "rated_volts", volts, "V")
        given(self.trail, "rated_amps", amps, "A")
        given(self.trail, "speed_rpm", rpm, "rpm")
        slip = 1 - float(rpm) * poles / (120 * float(hz))
        if not _LEAST_SLIP <= slip <= _MOST_SLIP:
            raise refused(
                "slip", "speed_rpm", rpm=plain(rpm), slip=f"{slip * 100:.1f}", poles=str(poles)
            )
        return Rated(
            power_hp=power,
            volts_v=float(volts),
            amps_a=float(amps),
            hz=float(hz),
            rpm=float(rpm),
            poles=poles,
        )

    def efficiency(self, rated: Rated) -> float:
        """Return the efficiency at rated load, as a part of one."""
        stamped = column_of(self.asked.plate.efficiency_percent, self.column)
        power_hp = rated.power_hp
        power_w = float(power_hp) * WATTS
        apparent = (sqrt(3) if self.phases == 3 else 1.0) * rated.volts_v * rated.amps_a
        if power_w / apparent >= _MOST_PF:
            raise refused(
                "plate",
                "amps_a",
                power=f"{power_w / 1000:.2f}",
                apparent=f"{apparent / 1000:.2f}",
            )
        if stamped is not None:
            step = given(self.trail, "efficiency_percent", stamped, "percent")
        else:
            reason = "run_up.efficiency"
            usual = _between("mg1_efficiency", "efficiency", power_hp)
            if self.phases == 1:
                usual, reason = _ONE_PHASE_PERCENT, "run_up.efficiency_single"
            elif usual is None:
                # below a horsepower no table reaches
                known = table("mg1_efficiency").figures("efficiency")
                usual = _SMALL_PERCENT if power_hp < 1 else known[-1]
            step = assumed(
                self.trail, "efficiency_percent", _decimal(float(usual)), "percent", reason
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

    def locked_a(self, rated: Rated, *, times: float | None = None) -> float:
        """Return the current with the rotor held, at rated volts [A].

        ``times`` the rated current are usual for a kind that no table serves.
        """
        asked, plate = self.asked, self.asked.plate
        power_hp, volts_v = rated.power_hp, rated.volts_v
        stamped = _amps(plate.locked_rotor_amps_a, self.column, 0.0)
        if asked.measured_locked_a is not None:
            return float(
                given(
                    self.trail, "locked_rotor_a", asked.measured_locked_a, "A", "run_up.measured"
                ).number
            )
        if stamped is not None:
            return float(given(self.trail, "locked_rotor_a", stamped, "A").number)
        # the column for 460 V goes furthest; currents are as one over volts. What the table gives
        # for single-phase motors is the most they draw, far above what small ones do
        usual = _between("430_251_b", "v460", power_hp) if self.phases == 3 else None
        by_table = None if usual is None else float(usual) * 460 / volts_v
        letter = plate.code_letter
        if self.place is not None and self.place < len(plate.code_letters):
            letter = plate.code_letters[self.place]
        if letter:
            low, high = locked_rotor_band_a(
                letter=letter,
                power_hp=power_hp,
                volts_v=Decimal(str(volts_v)),
                phases=self.phases,
            )
            middle = float(low) if high is None else (float(low) + float(high)) / 2
            is_design = self.phases == 3 and by_table is not None
            if is_design and by_table is not None and plate.design_letter in {None, "B", "C", "D"}:
                # a design B motor stays under the table; its letter may not be undercut
                middle = max(min(middle, by_table), float(low))
            return float(
                assumed(
                    self.trail,
                    "locked_rotor_a",
                    _decimal(middle, 4),
                    "A",
                    "run_up.locked_letter",
                    {"letter": letter},
                ).number
            )
        if times is not None:
            return float(
                assumed(
                    self.trail,
                    "locked_rotor_a",
                    _decimal(times * rated.amps_a, 4),
                    "A",
                    "run_up.locked_usual",
                    {"times": f"{times:g}"},
                ).number
            )
        if by_table is None:
            raise missing("locked")
        return float(
            assumed(
                self.trail,
                "locked_rotor_a",
                _decimal(by_table, 4),
                "A",
                "run_up.locked_table",
            ).number
        )

    def wound_breakdown(self) -> float:
        """Return the breakdown torque over rated of a wound-rotor motor."""
        typed = self.asked.load.breakdown_torque_percent
        if typed is not None:
            known = given(self.trail, "breakdown_torque_percent", typed, "percent")
            return float(known.number) / 100
        taken = assumed(
            self.trail,
            "breakdown_torque_percent",
            _WOUND_BREAKDOWN,
            "percent",
            "run_up.breakdown_wound",
        )
        return float(taken.number) / 100

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
            kw = float(power_hp) * WATTS / 1000
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
        """Return the driven machine, its torque by the motor's rated one."""
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
                    self.trail,
                    "load_torque_percent",
                    Decimal(_TORQUE.get(asked.kind, 100)),
                    "percent",
                    "run_up.load_torque",
                ).number
            )
        breakaway = 0.0
        if asked.breakaway_percent is not None:
            breakaway = float(
                given(self.trail, "breakaway_percent", asked.breakaway_percent, "percent").number
            )
        elif asked.kind in _MOVES_OFF:
            taken = Decimal(_MOVES_OFF[asked.kind])
            breakaway = float(
                assumed(
                    self.trail, "breakaway_percent", taken, "percent", "run_up.breakaway"
                ).number
            )
        jams = None
        if asked.jams_at_s is not None:
            jams = float(given(self.trail, "jams_at_s", asked.jams_at_s, "s").number)
        return Load(
            shape=_SHAPES[asked.kind],
            torque_nm=rated_nm * part / 100,
            rated_rad_s=rated_rad_s,
            inertia_kg_m2=inertia_kg_m2,
            breakaway_nm=rated_nm * breakaway / 100,
            has_backstop=asked.has_backstop,
            is_harmed_backward=asked.is_harmed_backward,
            jams_at_s=jams,
        )

    def relay(self) -> tuple[RelayClass, RelayKind]:
        """Return class and kind of the overload relay."""
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

    def device(self) -> ShortCircuitDevice | None:
        """Return the fuses or the breaker of the sizes, by a typical curve of their kind."""
        kind, rating = self.asked.device_kind, self.asked.device_a
        points = typical_points(kind or "")
        if rating is None or not points:
            return None
        given(self.trail, "protection_device_a", rating, "A")
        assumed(
            self.trail,
            "device_curve",
            str(Message(f"kind.{kind}")),
            "",
            "run_up.device_curve",
        )
        return ShortCircuitDevice(float(rating), points)

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
