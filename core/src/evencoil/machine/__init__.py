"""Several motors together: feeder, taps, conversion to another voltage.

Knows jobs.
"""

from evencoil.machine.conversion import (
    MachineMotor,
    MachineTransformer,
    convert_motor,
    convert_transformer,
)
from evencoil.machine.feeder import FeederLoads, FeederMotor, size_feeder
from evencoil.machine.loads import MachineLoad, convert_load
from evencoil.machine.taps import TapTo, group_device, tap_conductor

__all__ = [
    "FeederLoads",
    "FeederMotor",
    "MachineLoad",
    "MachineMotor",
    "MachineTransformer",
    "TapTo",
    "convert_load",
    "convert_motor",
    "convert_transformer",
    "group_device",
    "size_feeder",
    "tap_conductor",
]
