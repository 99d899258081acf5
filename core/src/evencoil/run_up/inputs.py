"""What people give about the driven machine and the start.

Empty means: no one said it. Units are in the names.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs

__all__ = ["LoadInputs", "LoadKind", "NotedReading"]

LoadKind = Literal[
    "",
    "uncoupled",
    "fan",
    "conveyor",
    "conveyor_empty",
    "mixer",
    "crusher",
    "flywheel",
    "downhill",
]
Percent = Annotated[DecimalText, Field(ge=0, le=1000)]
Inertia = Annotated[DecimalText, Field(gt=0, lt=1000000)]


class NotedReading(Inputs):
    """A reading to expect, as it was calculated when someone noted it for a later comparison.

    ``percent`` either way is still no surprise.
    """

    id: Literal["unloaded_a", "loaded_a", "locked_a", "start_s", "line_ohm"]
    value: Annotated[DecimalText, Field(ge=0, lt=1000000)]
    unit: Literal["A", "s", "ohm"]
    percent: Annotated[int, Field(ge=0, le=100)]


class LoadInputs(Inputs):
    """What the motor drives, and how it is started.

    ``fan`` stands for fans and centrifugal pumps, ``conveyor`` for all that asks the same
    torque at any speed, ``conveyor_empty`` for the same without its goods, ``mixer`` for torque
    that grows with speed, ``crusher`` for a heavy rotor that is hard to move off, ``flywheel``
    for a press or saw with little torque and much inertia, ``downhill`` for what drives the
    motor. Torques are percent of the motor's rated torque, the load's at rated
    speed; inertias are at the motor shaft; ``first_step_s`` is the timer of a start in steps,
    ``jams_at_s`` when the machine sticks, counted from the start; ``rotor_steps`` and
    ``rotor_peak_percent`` the resistor of a wound rotor and its peaks of torque.
    """

    kind: LoadKind = ""
    torque_percent: Percent | None = None
    breakaway_percent: Percent | None = None
    inertia_lb_ft2: Inertia | None = None
    motor_inertia_lb_ft2: Inertia | None = None
    has_backstop: bool = False
    is_harmed_backward: bool = False
    jams_at_s: Annotated[DecimalText, Field(ge=0, le=600)] | None = None
    locked_torque_percent: Annotated[DecimalText, Field(gt=0, le=1000)] | None = None
    breakdown_torque_percent: Annotated[DecimalText, Field(gt=0, le=1000)] | None = None
    rotor_steps: Annotated[int, Field(ge=1, le=8)] | None = None
    rotor_peak_percent: Annotated[DecimalText, Field(gt=0, le=1000)] | None = None
    relay_kind: Literal["", "phase_loss", "plain", "two_heaters", "electronic", "melting_alloy"] = (
        ""
    )
    first_step_s: Annotated[DecimalText, Field(gt=0, le=600)] | None = None
    is_hot: bool = False
    noted: Annotated[tuple[NotedReading, ...], Field(max_length=12)] = ()
