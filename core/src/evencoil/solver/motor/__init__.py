"""A motor as coils, cage and shaft: what any joints do to it, at rest and in time.

Knows windings and NumPy; nothing of jobs, starters or devices.
"""

from evencoil.solver.motor.circuit import Circuit
from evencoil.solver.motor.estimate import Fitted, Targets, fit_circuit
from evencoil.solver.motor.heat import (
    INSULATION_C,
    LOST_S,
    TAU_S,
    WINDING_TAU_S,
    OverloadRelay,
    RelayClass,
    RelayKind,
    ShortCircuitDevice,
    WindingHeat,
)
from evencoil.solver.motor.loads import Load, LoadShape
from evencoil.solver.motor.machine import AirGap, Machine, MachineCoil, MachineSpeed, machine_of
from evencoil.solver.motor.on_load import MotorOnLoad
from evencoil.solver.motor.port import (
    Element,
    FieldPort,
    Fields,
    Group,
    Port,
    Row,
    Wiring,
    both_ways,
    row_value,
    three_phase,
)
from evencoil.solver.motor.run import Ending, RunUp, Sample, Step, rpm, run_up
from evencoil.solver.motor.single_phase import (
    CLOSES_AGAIN,
    START_SPEED,
    SingleFitted,
    SingleKind,
    SingleTargets,
    fit_single,
    series_ohm,
    single_machine,
)

__all__ = [
    "CLOSES_AGAIN",
    "INSULATION_C",
    "LOST_S",
    "START_SPEED",
    "TAU_S",
    "WINDING_TAU_S",
    "AirGap",
    "Circuit",
    "Element",
    "Ending",
    "FieldPort",
    "Fields",
    "Fitted",
    "Group",
    "Load",
    "LoadShape",
    "Machine",
    "MachineCoil",
    "MachineSpeed",
    "MotorOnLoad",
    "OverloadRelay",
    "Port",
    "RelayClass",
    "RelayKind",
    "Row",
    "RunUp",
    "Sample",
    "ShortCircuitDevice",
    "SingleFitted",
    "SingleKind",
    "SingleTargets",
    "Step",
    "Targets",
    "WindingHeat",
    "Wiring",
    "both_ways",
    "fit_circuit",
    "fit_single",
    "machine_of",
    "row_value",
    "rpm",
    "run_up",
    "series_ohm",
    "single_machine",
    "three_phase",
]
