"""Several motors together: feeder, taps, conversion to another voltage.

Knows jobs.
"""

from evencoil.machine.conversion import ConvertedMotor, MachineMotor, convert_motor
from evencoil.machine.feeder_sheet import FeederMember, FeederRow, FeederSheet, feeder_sheet
from evencoil.machine.inputs import ConversionInputs, FeederInputs
from evencoil.machine.plan import MachinePlan, PlannedTransformer, plan_machine

__all__ = [
    "ConversionInputs",
    "ConvertedMotor",
    "FeederInputs",
    "FeederMember",
    "FeederRow",
    "FeederSheet",
    "MachineMotor",
    "MachinePlan",
    "PlannedTransformer",
    "convert_motor",
    "feeder_sheet",
    "plan_machine",
]
