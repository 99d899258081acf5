"""A motor as coils, cage and shaft: what any joints do to it, at rest and in time.

Knows windings and NumPy; nothing of jobs, starters or devices.
"""

from evencoil.solver.motor.circuit import Circuit
from evencoil.solver.motor.estimate import Fitted, Targets, fit_circuit
from evencoil.solver.motor.heat import (
    INSULATION_C,
    WINDING_TAU_S,
    OverloadRelay,
    RelayClass,
    RelayKind,
    WindingHeat,
)
from evencoil.solver.motor.loads import Load, LoadShape
from evencoil.solver.motor.machine import AirGap, Machine, MachineCoil, machine_of
from evencoil.solver.motor.port import Element, Fields, Group, Port, Row, Wiring, three_phase
from evencoil.solver.motor.run import Ending, RunUp, Sample, Step, rpm, run_up

__all__ = [
    "INSULATION_C",
    "WINDING_TAU_S",
    "AirGap",
    "Circuit",
    "Element",
    "Ending",
    "Fields",
    "Fitted",
    "Group",
    "Load",
    "LoadShape",
    "Machine",
    "MachineCoil",
    "OverloadRelay",
    "Port",
    "RelayClass",
    "RelayKind",
    "Row",
    "RunUp",
    "Sample",
    "Step",
    "Targets",
    "WindingHeat",
    "Wiring",
    "fit_circuit",
    "machine_of",
    "rpm",
    "run_up",
    "three_phase",
]
