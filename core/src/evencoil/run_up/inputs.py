"""What people give about the driven machine and the start.

Empty means: no one said it. Units are in the names.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs

__all__ = ["LoadInputs", "LoadKind"]

LoadKind = Literal["", "uncoupled", "fan", "conveyor", "mixer", "downhill"]
Percent = Annotated[DecimalText, Field(ge=0, le=1000)]
Inertia = Annotated[DecimalText, Field(gt=0, lt=1000000)]


class LoadInputs(Inputs):
    """What the motor drives, and how it is started.

    ``fan`` stands for fans and centrifugal pumps, ``conveyor`` for all that asks the same
    torque at any speed, ``mixer`` for torque that grows with speed, ``downhill`` for what
    drives the motor. Torques are percent of the motor's rated torque, the load's at rated
    speed; inertias are at the motor shaft; ``first_step_s`` is the timer of a start in steps.
    """

    kind: LoadKind = ""
    torque_percent: Percent | None = None
    breakaway_percent: Percent | None = None
    inertia_lb_ft2: Inertia | None = None
    motor_inertia_lb_ft2: Inertia | None = None
    has_backstop: bool = False
    locked_torque_percent: Annotated[DecimalText, Field(gt=0, le=1000)] | None = None
    breakdown_torque_percent: Annotated[DecimalText, Field(gt=0, le=1000)] | None = None
    relay_kind: Literal["", "phase_loss", "plain"] = ""
    first_step_s: Annotated[DecimalText, Field(gt=0, le=600)] | None = None
    is_hot: bool = False
