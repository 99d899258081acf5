"""One job from inputs to answers: job file, inputs, the calculation of every step, step states.

Knows every room before it.
"""

from evencoil.job.choosing import Choice, choices
from evencoil.job.drive_settings import DriveSetting, DriveSettings, drive_settings
from evencoil.job.file import (
    MAX_BYTES,
    SCHEMA,
    FileAmendment,
    FileMotor,
    FileProfile,
    JobFile,
    JobKind,
    canonical,
    dump,
    fingerprint,
    json_schema,
    load,
    upcast_step,
    work_out_job,
)
from evencoil.job.inputs import STEPS, JobInputs, StepName, step_model
from evencoil.job.job_starter import JobStarter
from evencoil.job.next_up import next_up
from evencoil.job.panel import (
    NOT_CALCULATED,
    PanelAsks,
    PanelPoint,
    PanelSource,
    PanelWire,
    PanelWork,
    WhichWires,
    panel_roll,
    panel_swap,
    panel_work,
)
from evencoil.job.panel_items import PanelItem
from evencoil.job.panel_rows import PanelRow
from evencoil.job.panel_stages import PanelStage
from evencoil.job.panel_swap import PanelSwap
from evencoil.job.rehearsed_motor import RehearsedMotor, rehearsed_motor
from evencoil.job.run_up import JobRunUp, run_up_of
from evencoil.job.stand_ins import StandIn, stand_in
from evencoil.job.starter_states import starter_states
from evencoil.job.work_out import work_out
from evencoil.job.worked import Worked

__all__ = [
    "MAX_BYTES",
    "NOT_CALCULATED",
    "SCHEMA",
    "STEPS",
    "Choice",
    "DriveSetting",
    "DriveSettings",
    "FileAmendment",
    "FileMotor",
    "FileProfile",
    "JobFile",
    "JobInputs",
    "JobKind",
    "JobRunUp",
    "JobStarter",
    "PanelAsks",
    "PanelItem",
    "PanelPoint",
    "PanelRow",
    "PanelSource",
    "PanelStage",
    "PanelSwap",
    "PanelWire",
    "PanelWork",
    "RehearsedMotor",
    "StandIn",
    "StepName",
    "WhichWires",
    "Worked",
    "canonical",
    "choices",
    "drive_settings",
    "dump",
    "fingerprint",
    "json_schema",
    "load",
    "next_up",
    "panel_roll",
    "panel_swap",
    "panel_work",
    "rehearsed_motor",
    "run_up_of",
    "stand_in",
    "starter_states",
    "step_model",
    "upcast_step",
    "work_out",
    "work_out_job",
]
