"""The branch circuit of a hermetic compressor: Article 440."""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import Figure, Message, MissingError, Step, Trail, figure, plain, wait_for
from evencoil.codebook import Profile
from evencoil.plate import Band, PlateReading, Supply, Verdict
from evencoil.sizing.conductor import conductor
from evencoil.sizing.grounding import grounding_conductor
from evencoil.sizing.hermetic import (
    hermetic_conductor_ampacity,
    hermetic_current,
    hermetic_device,
    hermetic_disconnect,
    hermetic_overload,
    stamped_limit,
)
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.protection import FUSES
from evencoil.sizing.readings import (
    add_conductor_inputs,
    add_device_limits,
    conductor_facts,
    kind_of,
    size_input,
)

__all__ = ["compressor_circuit", "grounding_step"]


def grounding_step(size: SizeInputs, profile: Profile, phases: int, trail: Trail) -> Step:
    """Return the equipment grounding conductor.

    Parameters
    ----------
    size : SizeInputs
        Conductor material, kind of fuse or breaker.
    profile : Profile
        Edition and plant rules.
    phases : int
        1 or 3.
    trail : Trail
        Holds conductor and fuse or breaker.
    """
    wait_for(trail, "protection_device_a", "conductor_size")
    return grounding_conductor(
        material=conductor_facts(size).material,
        kind=kind_of(size),
        phases=phases,
        edition=profile.edition,
        trail=trail,
    )


def compressor_circuit(
    reading: PlateReading, supply: Supply, verdict: Verdict, size: SizeInputs, profile: Profile
) -> tuple[Trail, tuple[Figure, ...]]:
    """Return the branch circuit of a hermetic compressor, Article 440.

    Parameters
    ----------
    reading : PlateReading
        The nameplate.
    supply : Supply
        The supply.
    verdict : Verdict
        The nameplate column in use.
    size : SizeInputs
        What decides the sizes besides.
    profile : Profile
        Edition and plant rules.

    Raises
    ------
    MissingError
        If the rated-load current is not on the nameplate; it becomes the refusal of its figure.
    """
    trail, plate, edition = Trail(), reading.plate, profile.edition
    phases = plate.phases or supply.phases

    def amps_of(bands: tuple[Band, ...], step_id: str) -> Decimal | None:
        if len(bands) not in {1, len(plate.volts_v)}:
            return None
        value = bands[verdict.column if len(bands) > 1 else 0].high
        trail.add(
            Step(
                id=step_id,
                value=value,
                unit="A",
                kind="read",
                shown=plain(value),
                working=Message("hermetic.read", {"value": plain(value)}),
            )
        )
        return value

    def current() -> Step:
        rated = amps_of(plate.rated_load_amps_a, "rated_load_a")
        if rated is None:
            raise MissingError(
                Message("hermetic.no_amps"),
                field="rated_load_amps_a",
                hint=Message("hermetic.no_amps.hint"),
            )
        selection = amps_of(plate.selection_amps_a, "selection_a")
        return hermetic_current(
            rated_load_a=rated, selection_a=selection, edition=edition, trail=trail
        )

    def wire() -> Step:
        wait_for(trail, "hermetic_current_a")
        add_conductor_inputs(size, trail)
        stamped = plate.minimum_circuit_ampacity_a
        if stamped is None:
            hermetic_conductor_ampacity(edition=edition, trail=trail)
        else:
            stamped_limit("required_ampacity_a", stamped, edition=edition, trail=trail)
        return conductor(conductor_facts(size), edition=edition, trail=trail)

    def device() -> Step:
        wait_for(trail, "hermetic_current_a")
        size_input(trail, "protection_kind", size.protection_kind)
        if plate.maximum_overcurrent_a is not None:
            return stamped_limit(
                "protection_device_a", plate.maximum_overcurrent_a, edition=edition, trail=trail
            )
        add_device_limits(size, trail)
        return hermetic_device(
            kind=kind_of(size),
            has_no_start=size.no_start is not None,
            maker_limit=None
            if size.maker_limit is None
            else (size.maker_limit.amps_a, size.maker_limit.source),
            edition=edition,
            trail=trail,
        )

    def switch() -> Step:
        wait_for(trail, "protection_device_a")
        return hermetic_disconnect(is_fuse=kind_of(size) in FUSES, edition=edition, trail=trail)

    return trail, (
        figure("hermetic_current_a", current),
        figure("conductor_size", wire),
        figure("protection_device_a", device),
        figure("overload_setting_a", lambda: hermetic_overload(edition=edition, trail=trail)),
        figure("grounding_conductor_size", lambda: grounding_step(size, profile, phases, trail)),
        figure("disconnect_switch_a", switch),
    )
