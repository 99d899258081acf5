"""Even Coil, the core: from nameplate to a starter that is wired, proven and signed off.

The names below are those that outside programs use. A job file goes in, answers come out:

>>> from evencoil import Scenario, load, rehearse, work_out_job
>>> job = load(
...     b'{"format": "even-coil-job", "schema": 6,'
...     b' "job_id": "0192f0c4-9a10-7c3e-8a51-2f6b1f0c2a01",'
...     b' "motor": {"id": "0192f0c4-9a10-7c3e-8a51-2f6b1f0c2a02", "motor_tag": "IC-2"},'
...     b' "plate": {"text": "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G"},'
...     b' "supply": {"text": "480Y/277"}, "starter": {"standard_circuit": "2A"}}'
... )
>>> worked = work_out_job(job)
>>> step = next(step for step in worked.steps if step.id == "table_flc_a")
>>> step.text, step.unit, step.rule.section
('21', 'A', 'Table 430.250')
>>> scenario = Scenario.model_validate({"actions": [
...     {"at_s": "0", "do": "close", "on": "breaker"},
...     {"at_s": "1", "do": "turn", "on": "SS1", "word": "AUTO"},
...     {"at_s": "2", "do": "on", "on": "PS1"},
...     {"at_s": "4", "do": "dip", "word": "1"},
... ]})
>>> for hazard in rehearse(worked.starter.circuit, scenario).hazards:
...     print(hazard.sentence)
power back → KM1 pulls in → M1 driven forward → M1 starts, and no one pressed anything
"""

from evencoil.base import CoreError, __version__, say
from evencoil.codebook import Profile
from evencoil.job import (
    JobFile,
    JobInputs,
    Worked,
    dump,
    fingerprint,
    json_schema,
    load,
    work_out,
    work_out_job,
)
from evencoil.rehearsal import Scenario, Trace, read_scenario, rehearse

__all__ = [
    "CoreError",
    "JobFile",
    "JobInputs",
    "Profile",
    "Scenario",
    "Trace",
    "Worked",
    "__version__",
    "dump",
    "fingerprint",
    "json_schema",
    "load",
    "read_scenario",
    "rehearse",
    "say",
    "work_out",
    "work_out_job",
]
