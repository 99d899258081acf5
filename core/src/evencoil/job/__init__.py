"""One job from inputs to answers: job file, inputs, the calculation of every step, step states.

Knows every room before it.
"""

from evencoil.job.choosing import Choice, choices
from evencoil.job.drawn_sizes import with_drawing
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
    work_out_job,
)
from evencoil.job.inputs import STEPS, StepName
from evencoil.job.starter import StarterRoom, work_out_starter
from evencoil.job.starter_states import starter_states
from evencoil.job.work_out import Worked, work_out

__all__ = [
    "MAX_BYTES",
    "SCHEMA",
    "STEPS",
    "Choice",
    "FileAmendment",
    "FileMotor",
    "FileProfile",
    "JobFile",
    "JobKind",
    "StarterRoom",
    "StepName",
    "Worked",
    "canonical",
    "choices",
    "dump",
    "fingerprint",
    "json_schema",
    "load",
    "starter_states",
    "with_drawing",
    "work_out",
    "work_out_job",
    "work_out_starter",
]
