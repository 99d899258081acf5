"""Running up: does this motor start this load, how long does it take, what does it cost.

Knows nameplate, connections and the motor solver; no job and no drawing.
"""

from evencoil.run_up.asked import Asked, StartParts
from evencoil.run_up.expected import Expected, expected_readings
from evencoil.run_up.facts import Facts, find_facts
from evencoil.run_up.fault_cases import CAUSES
from evencoil.run_up.faults import FaultSheet, FaultState, fault_sheet
from evencoil.run_up.inputs import LoadInputs, LoadKind, NotedReading
from evencoil.run_up.restart import Restart, restarts
from evencoil.run_up.sheet import (
    METHODS,
    Change,
    CurvePoint,
    MethodSheet,
    Refused,
    RunUpSheet,
    TimerAdvice,
    advise,
    load_curve,
    method_sheet,
    methods_of,
    run_up_sheet,
)
from evencoil.run_up.starts import TAPS, Method

__all__ = [
    "CAUSES",
    "METHODS",
    "TAPS",
    "Asked",
    "Change",
    "CurvePoint",
    "Expected",
    "Facts",
    "FaultSheet",
    "FaultState",
    "LoadInputs",
    "LoadKind",
    "Method",
    "MethodSheet",
    "NotedReading",
    "Refused",
    "Restart",
    "RunUpSheet",
    "StartParts",
    "TimerAdvice",
    "advise",
    "expected_readings",
    "fault_sheet",
    "find_facts",
    "load_curve",
    "method_sheet",
    "methods_of",
    "restarts",
    "run_up_sheet",
]
