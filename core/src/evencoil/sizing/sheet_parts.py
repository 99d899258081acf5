"""The parts of the Size sheet beside the branch circuit itself, each as far as it was asked.

A part stands on the branch circuit's steps; one that is refused takes no other with it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from decimal import Decimal
from functools import partial

from evencoil.base import Figure, Message, MissingError, Step, Trail, figure, say, wait_for
from evencoil.codebook import Profile, assumed, given
from evencoil.plate import PlateReading, Supply
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.control import (
    Coil,
    control_conductor,
    control_transformer,
    primary_device,
    secondary_device,
)
from evencoil.sizing.drive import drive_conductor, drive_disconnect, drive_output, drive_overload
from evencoil.sizing.fault import fault_current, interrupting, short_circuit_rating, slash_rating
from evencoil.sizing.heater_place import (
    SHARE_PERCENT,
    acceleration_fits,
    dial_range,
    overload_units,
    protector,
    set_where_it_lies,
)
from evencoil.sizing.heaters.choose import HeaterKey, choose_heater, heater_of_code
from evencoil.sizing.heaters.read import HeaterRow, HeaterTable
from evencoil.sizing.inputs import HeaterInput, SizeInputs
from evencoil.sizing.installed import (
    Cable,
    cable_there,
    device_there,
    heaters_there,
    other_loads_there,
    plug_there,
    weakest_part,
)
from evencoil.sizing.overload import overload_percent
from evencoil.sizing.places import (
    Place,
    controller_rating,
    disconnect_kind,
    disconnect_rating,
    place_of_controller,
    place_of_motor,
)
from evencoil.sizing.protection import FUSES, kind_in, ratings_in
from evencoil.sizing.raceway import Inside, raceway
from evencoil.sizing.rotor import resistor_conductor, secondary_conductor
from evencoil.sizing.speeds import speed_conductor, speed_overload
from evencoil.sizing.starting import full_load_torque, slip, start_current, start_torque
from evencoil.winding import StartMethod

__all__ = ["heater_table", "more_sizes"]

_USUAL_TAP = Decimal(65)
_DEFAULT_CLASS = 20


def heater_table(given_table: HeaterInput) -> HeaterTable:
    """Return the heater table that travels with a job as the core takes it.

    Parameters
    ----------
    given_table : HeaterInput
        What the job holds.
    """
    told = given_table.table
    return HeaterTable(
        name=told.name,
        source=told.source,
        factor=told.factor,
        rows=tuple(
            HeaterRow(**{name: getattr(row, name) for name in HeaterRow.__slots__})
            for row in told.rows
        ),
    )


def more_sizes(
    reading: PlateReading,
    supply: Supply,
    size: SizeInputs,
    profile: Profile,
    facts: ConductorFacts,
    trail: Trail,
    *,
    start_method: StartMethod,
    fault_a: Decimal | None,
    by_transformer_a: Decimal | None,
) -> tuple[Figure, ...]:
    """Work out every further part that was asked for.

    Parameters
    ----------
    reading : PlateReading
        The plate, piece by piece.
    supply : Supply
        The supply.
    size : SizeInputs
        What was asked for.
    profile : Profile
        Edition and school.
    facts : ConductorFacts
        Material, insulation, number of conductors.
    trail : Trail
        Holds the branch circuit; the steps are added to it.
    start_method : str
        How the motor starts.
    fault_a : Decimal or None
        Fault current as told. [A]
    by_transformer_a : Decimal or None
        The most a transformer of the circuit's own can feed. [A]

    Returns
    -------
    tuple of Figure
        In the order of the sheet.
    """
    work = _More(reading, supply, size, profile, facts, trail, start_method)
    return (
        *work.several_speeds(),
        *work.rotor(),
        *work.relay(),
        *work.heater(),
        *work.start(),
        *work.run(),
        *work.fault(fault_a, by_transformer_a),
        *work.drive(),
        *work.control(),
        *work.places(),
        *work.there(),
    )


class _More:
    """One job's further parts, sharing what they all need."""

    def __init__(
        self,
        reading: PlateReading,
        supply: Supply,
        size: SizeInputs,
        profile: Profile,
        facts: ConductorFacts,
        trail: Trail,
        start_method: StartMethod,
    ) -> None:
        self.reading, self.supply, self.size = reading, supply, size
        self.profile, self.facts, self.trail = profile, facts, trail
        self.start_method, self.kind = start_method, kind_in(trail)
        self.edition = profile.edition

    def _after(self, names: tuple[str, ...], make: Callable[[], Step | None]) -> Callable[[], Step]:
        def made() -> Step:
            wait_for(self.trail, *names)
            step = make()
            if step is None:
                raise MissingError(
                    Message("size.no_locked"),
                    field="code_letter",
                    hint=Message("size.no_locked.hint"),
                )
            return step

        return made

    def _one(self, name: str, group: str, make: Callable[[], Step | None], *needs: str) -> Figure:
        return figure(name, self._after(needs, make), group)

    def several_speeds(self) -> Iterator[Figure]:
        """Each speed's conductors and overload."""
        if "speed_1_amps_a" not in self.trail:
            return
        count = sum(step.id.startswith("speed_") for step in list(self.trail))
        plate = self.reading.plate
        percent = overload_percent(plate.service_factor, plate.temperature_rise_c)
        for place in range(1, count + 1):
            yield self._one(
                f"speed_{place}_conductor_size",
                "speeds",
                partial(speed_conductor, place, self.facts, edition=self.edition, trail=self.trail),
                "terminal_temperature_c",
                "ambient_factor",
            )
            yield self._one(
                f"speed_{place}_overload_a",
                "speeds",
                partial(speed_overload, place, percent, edition=self.edition, trail=self.trail),
            )

    def rotor(self) -> Iterator[Figure]:
        """Work out the rotor side of a wound-rotor motor."""
        told, duty = self.size.rotor, self.size.duty
        if told is None:
            return
        yield self._one(
            "secondary_conductor_size",
            "rotor",
            lambda: secondary_conductor(
                told.secondary_a,
                self.facts,
                edition=self.edition,
                trail=self.trail,
                service=None if duty is None else duty.service,
                rating="continuous" if duty is None else duty.rating,
            ),
            "terminal_temperature_c",
            "ambient_factor",
        )
        resistor = told.resistor
        if resistor is not None:
            yield self._one(
                "resistor_conductor_size",
                "rotor",
                lambda: resistor_conductor(
                    resistor, self.facts, edition=self.edition, trail=self.trail
                ),
                "secondary_a",
                "terminal_temperature_c",
            )

    def relay(self) -> Iterator[Figure]:
        """Work out the overload where it lies, its dial, class and number."""
        told = self.size.overload
        if told is None:
            return
        shown = say(Message(f"heaters_lie.{told.place}"))
        given(self.trail, "heater_place", told.place, "", shown=shown)
        ratio = None
        if told.ct_primary_a is not None and told.ct_secondary_a is not None:
            ratio = told.ct_primary_a / told.ct_secondary_a
        yield self._one(
            "relay_setting_a",
            "overload",
            lambda: set_where_it_lies(
                told.place,
                ct_ratio=ratio,
                capacitor_percent=told.capacitor_percent,
                dial_has_125=told.dial_has_125,
                edition=self.edition,
                trail=self.trail,
            ),
            "plate_amps_a",
            "overload_setting_a",
        )
        low, high = told.low_a, told.high_a
        if low is not None and high is not None:
            yield self._one(
                "relay_dial",
                "overload",
                lambda: dial_range(low, high, edition=self.edition, trail=self.trail),
                "relay_setting_a",
            )
        yield self._one(
            "overload_units",
            "overload",
            lambda: overload_units(
                told.units,
                self.reading.plate.phases or self.supply.phases,
                edition=self.edition,
                trail=self.trail,
            ),
        )
        seconds = told.accelerates_s
        if seconds is not None:
            yield self._one(
                "trip_class",
                "overload",
                lambda: acceleration_fits(
                    told.trip_class or _DEFAULT_CLASS,
                    seconds,
                    edition=self.edition,
                    trail=self.trail,
                ),
            )
        trip = told.protector_trip_a
        if trip is not None:
            yield self._one(
                "protector",
                "overload",
                lambda: protector(trip, edition=self.edition, trail=self.trail),
                "table_flc_a",
            )

    def heater(self) -> Iterator[Figure]:
        """Find the heater of the door's own table, and what is there now."""
        told = self.size.heater
        if told is None:
            return
        heaters = heater_table(told)
        key = HeaterKey(
            relay_type=told.relay_type,
            starter_size=told.starter_size,
            elements=told.elements,
            basis=told.basis,
        )
        yield self._one(
            "heater_code",
            "overload",
            lambda: choose_heater(
                heaters,
                key,
                service_factor=self.reading.plate.service_factor,
                edition=self.edition,
                trail=self.trail,
            ),
        )
        if told.code:
            yield self._one(
                "heater_there_a",
                "overload",
                lambda: heater_of_code(
                    heaters, key, told.code, edition=self.edition, trail=self.trail
                ),
            )
            yield self._one(
                "there_heaters",
                "overload",
                lambda: self._heaters(self.trail.number("heater_there_a")),
                "heater_there_a",
                "overload_setting_a",
                "plate_amps_a",
            )

    def _heaters(self, trip_a: Decimal) -> Step:
        others = tuple(band.high for band in self.reading.plate.amps_a)
        told = self.size.overload
        share = Decimal(100) if told is None else SHARE_PERCENT[told.place]
        return heaters_there(
            trip_a, others, edition=self.edition, trail=self.trail, share_percent=share
        )

    def start(self) -> Iterator[Figure]:
        """Work out what the start takes, and what is left of the torque."""
        told = self.size.start
        plate = self.reading.plate
        if told is None and self.start_method == "full_voltage":
            return
        tap = _USUAL_TAP if told is None else told.tap_percent
        start = "autotransformer" if told is not None else self.start_method
        if start not in {"autotransformer", "wye_delta", "part_winding"}:
            return
        yield self._one(
            "line_start_a",
            "start",
            lambda: start_current(start, tap, edition=self.edition, trail=self.trail),
        )
        yield self._one(
            "start_torque_percent",
            "start",
            lambda: start_torque(start, tap, edition=self.edition, trail=self.trail),
        )
        if plate.speed_rpm and "power_hp" in self.trail:
            speed = max(plate.speed_rpm)
            yield self._one(
                "slip_percent",
                "start",
                lambda: slip(
                    speed, self.supply.frequency_hz, edition=self.edition, trail=self.trail
                ),
            )
            yield self._one(
                "full_load_torque_lbft",
                "start",
                lambda: full_load_torque(
                    self.trail.number("power_hp"), speed, edition=self.edition, trail=self.trail
                ),
            )

    def run(self) -> Iterator[Figure]:
        """Find the raceway."""
        told = self.size.raceway
        if told is None:
            return
        yield self._one(
            "raceway_size", "run", self._raceway, "conductor_size", "grounding_conductor_size"
        )

    def _raceway(self) -> Step:
        told = self.size.raceway
        if told is None:
            raise MissingError(
                Message("size.waits"), field="size.raceway", hint=Message("size.waits.hint")
            )
        wire = self.trail[
            "run_conductor_size" if "run_conductor_size" in self.trail else "conductor_size"
        ]
        ground = self.trail[
            "run_grounding_size"
            if "run_grounding_size" in self.trail
            else "grounding_conductor_size"
        ]
        inside = [
            Inside(
                size=str(wire.value),
                insulation=self.facts.insulation,
                count=2 if (self.reading.plate.phases or self.supply.phases) < 3 else 3,
            ),
            Inside(size=str(ground.value), insulation=self.facts.insulation, count=1),
        ]
        if told.control_count:
            inside.append(
                Inside(
                    size=told.control_size,
                    insulation=self.facts.insulation,
                    count=told.control_count,
                )
            )
        return raceway(
            told.kind,
            inside,
            edition=self.edition,
            trail=self.trail,
            installed=told.trade_size,
            is_nipple=told.is_nipple,
        )

    def fault(self, fault_a: Decimal | None, by_transformer_a: Decimal | None) -> Iterator[Figure]:
        """Fault current against what is marked."""
        told = self.size.fault
        if told is None and fault_a is None:
            return
        fault_current(fault_a, by_transformer_a, trail=self.trail)
        yield self._one(
            "device_interrupting",
            "fault",
            lambda: interrupting(
                None if told is None else told.device_ka,
                is_fuse=self.kind in FUSES,
                edition=self.edition,
                trail=self.trail,
            ),
        )
        power = self.trail.number("power_hp") if "power_hp" in self.trail else None
        yield self._one(
            "starter_short_circuit",
            "fault",
            lambda: short_circuit_rating(
                None if told is None else told.starter_ka,
                power_hp=power,
                edition=self.edition,
                trail=self.trail,
            ),
        )
        if told is not None and told.device_volts:
            yield self._one(
                "device_volts",
                "fault",
                lambda: slash_rating(
                    told.device_volts, self.supply, edition=self.edition, trail=self.trail
                ),
            )

    def drive(self) -> Iterator[Figure]:
        """Work out a drive in front of the motor."""
        told = self.size.drive
        if told is None:
            return
        yield self._one(
            "drive_conductor_size",
            "drive",
            lambda: drive_conductor(
                told.input_a,
                self.facts,
                has_bypass=told.has_bypass,
                edition=self.edition,
                trail=self.trail,
            ),
            "table_flc_a",
            "terminal_temperature_c",
            "ambient_factor",
        )
        yield self._one(
            "drive_disconnect_a",
            "drive",
            lambda: drive_disconnect(edition=self.edition, trail=self.trail),
            "drive_input_a",
        )
        yield self._one(
            "drive_overload_a",
            "drive",
            lambda: drive_overload(
                has_overload=told.has_overload and not told.has_bypass,
                edition=self.edition,
                trail=self.trail,
            ),
            "overload_setting_a",
            "plate_amps_a",
        )
        volts = told.output_v
        if volts is not None:
            yield self._one(
                "drive_output",
                "drive",
                lambda: drive_output(volts, edition=self.edition, trail=self.trail),
                "supply_volts_v",
            )

    def control(self) -> Iterator[Figure]:
        """Control transformer, its fuses, control conductors."""
        told = self.size.control
        if told is None:
            return
        coils = [
            Coil(
                label=item.label,
                count=item.count,
                inrush_va=item.inrush_va,
                sealed_va=item.sealed_va,
            )
            for item in told.coils
        ]
        if coils:
            named = " · ".join(f"{item.count} × {item.label or '—'}" for item in coils)
            if told.is_drawn:
                assumed(self.trail, "coils", named, "", "control.coils_drawn")
            else:
                given(self.trail, "coils", named, "", "control.coils")
            yield self._one(
                "transformer_va",
                "control",
                lambda: control_transformer(
                    coils, told.lamps_va or Decimal(0), edition=self.edition, trail=self.trail
                ),
            )
        if told.transformer_va is not None:
            given(self.trail, "control_va_there", told.transformer_va, "VA")
        va = told.transformer_va or (
            self.trail.number("transformer_va") if "transformer_va" in self.trail else None
        )
        primary = told.primary_v or (
            self.trail.number("supply_volts_v") if "supply_volts_v" in self.trail else None
        )
        if va is not None and primary is not None:
            yield self._one(
                "primary_fuse_a",
                "control",
                lambda: primary_device(va, primary, edition=self.edition, trail=self.trail),
            )
        secondary = told.volts_v or Decimal(120)
        if va is not None:
            yield self._one(
                "secondary_fuse_a",
                "control",
                lambda: secondary_device(va, secondary, edition=self.edition, trail=self.trail),
            )
        yield self._one(
            "control_device_most_a",
            "control",
            lambda: control_conductor(
                told.conductor,
                told.metal,
                leaves_enclosure=told.leaves_enclosure,
                is_tapped=told.is_tapped and not coils,
                edition=self.edition,
                trail=self.trail,
            ),
        )

    def places(self) -> Iterator[Figure]:
        """Where the disconnects are, and of which kind."""
        told = self.size.place
        if told is None:
            return
        controller, motor = told.controller_ft, told.motor_ft
        if controller is not None:
            yield self._one(
                "controller_disconnect_place",
                "place",
                lambda: place_of_controller(
                    Place(distance_ft=controller, is_visible=told.controller_visible),
                    edition=self.edition,
                    trail=self.trail,
                ),
            )
        if motor is not None:
            yield self._one(
                "motor_disconnect_place",
                "place",
                lambda: place_of_motor(
                    Place(distance_ft=motor, is_visible=told.motor_visible),
                    own=told.own_at_motor,
                    lockable=told.lockable,
                    excuse=told.excuse,
                    edition=self.edition,
                    trail=self.trail,
                ),
            )
        starter = told.controller_hp
        if starter is not None:
            yield self._one(
                "controller_rating",
                "place",
                lambda: controller_rating(
                    starter, rated_v=told.controller_v, edition=self.edition, trail=self.trail
                ),
                "power_hp",
                "supply_volts_v",
            )
        kind, amps = told.kind, told.amps_a
        if kind is not None:
            yield self._one(
                "disconnect_kind",
                "place",
                lambda: disconnect_kind(
                    kind,
                    power_hp=self.trail.number("power_hp"),
                    volts_v=self.trail.number("supply_volts_v"),
                    amps_a=amps,
                    rated_hp=told.rated_hp,
                    is_portable=told.is_portable,
                    edition=self.edition,
                    trail=self.trail,
                ),
                "table_flc_a",
                "power_hp",
                "supply_volts_v",
            )
        if amps is not None:
            yield self._one(
                "disconnect_rating",
                "place",
                lambda: disconnect_rating(amps, edition=self.edition, trail=self.trail),
                "disconnect_least_a",
            )

    def there(self) -> Iterator[Figure]:
        """Judge what is already there, item by item, and the weakest of it."""
        told = self.size.there
        if told is None:
            return
        cable = told.cable
        if cable is not None:
            there = Cable(
                kind=cable,
                size=told.cable_size,
                metal=told.cable_metal,
                insulation=told.cable_insulation,
                terminal_c=told.terminal_c,
            )
            yield self._one(
                "there_cable",
                "there",
                lambda: cable_there(
                    there,
                    self.trail.number("ambient_factor") * self.trail.number("adjustment_factor"),
                    edition=self.edition,
                    trail=self.trail,
                ),
                "required_ampacity_a",
                "ambient_factor",
                "adjustment_factor",
            )
        others, device, trip = told.other_loads_a, told.device_a, told.trip_a
        if others is not None:
            yield self._one(
                "there_other_loads",
                "there",
                lambda: other_loads_there(
                    others,
                    self.trail.number("there_cable_a"),
                    edition=self.edition,
                    trail=self.trail,
                ),
                "there_cable_a",
                "required_ampacity_a",
            )
        if device is not None:
            yield self._one(
                "there_device", "there", lambda: self._device(device), "protection_limit_a"
            )
        if trip is not None:
            yield self._one(
                "there_heaters",
                "there",
                lambda: self._heaters(trip),
                "overload_setting_a",
                "plate_amps_a",
            )
        plug, volts = told.plug_a, told.plug_v
        if plug is not None and volts is not None:
            yield self._one(
                "there_plug",
                "there",
                lambda: plug_there(
                    amps_a=plug,
                    volts_v=volts,
                    rated_hp=told.plug_hp,
                    edition=self.edition,
                    trail=self.trail,
                ),
                "table_flc_a",
                "supply_volts_v",
                "power_hp",
            )
        if weakest_part(edition=self.edition, trail=self.trail) is not None:
            yield Figure(id="weakest_part", step="weakest_part", group="there")

    def _device(self, amps_a: Decimal) -> Step:
        plate = self.reading.plate
        ratings = ratings_in(
            self.trail,
            kind=self.kind,
            phases=plate.phases or self.supply.phases,
            edition=self.edition,
            design_letter=plate.design_letter,
            is_premium=plate.is_premium_efficiency,
            machine=self.size.machine,
        )
        return device_there(
            amps_a,
            ratings,
            has_no_start=self.size.no_start is not None,
            edition=self.edition,
            trail=self.trail,
        )
