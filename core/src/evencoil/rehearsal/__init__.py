"""A circuit run through a scenario: trace, hazards with their causes, scenario tests.

Knows the solver and netlists; no job.
"""

from evencoil.rehearsal.hazards import Hazard, Watch
from evencoil.rehearsal.on_record import missing_of
from evencoil.rehearsal.probes import (
    Probe,
    act_at,
    gaps_of,
    opening_of,
    probes,
    single_acts,
    starts_of,
    stops_of,
)
from evencoil.rehearsal.scenario import Scenario, read_scenario, rehearse, trace_as_json
from evencoil.rehearsal.stage import MOST_ACTS, ScenarioAct, Stage
from evencoil.rehearsal.trace import Frame, Trace

__all__ = [
    "MOST_ACTS",
    "Frame",
    "Hazard",
    "Probe",
    "Scenario",
    "ScenarioAct",
    "Stage",
    "Trace",
    "Watch",
    "act_at",
    "gaps_of",
    "missing_of",
    "opening_of",
    "probes",
    "read_scenario",
    "rehearse",
    "single_acts",
    "starts_of",
    "stops_of",
    "trace_as_json",
]
