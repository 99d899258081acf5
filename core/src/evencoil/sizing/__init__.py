"""The sizes of a motor circuit with their evidence, one module for each question.

Knows nameplate, supply and code book; no netlist.
"""

from evencoil.sizing.branch_circuit import MotorCircuit, branch_circuit, further_sizes
from evencoil.sizing.by_amps import horsepower_at_full_load, settle_phases
from evencoil.sizing.conductor import LARGE_CIRCUIT_A, ConductorFacts, Material, pick_conductor
from evencoil.sizing.curves import typical_points
from evencoil.sizing.full_load import horsepower_from_kw
from evencoil.sizing.heaters.read import FIELDS, BadLine, HeaterTable, headers_of, read_heaters
from evencoil.sizing.inputs import (
    DEFAULT_TRIP_CLASS,
    CoilInput,
    ControlInput,
    DriveInput,
    FaultInput,
    OverloadInput,
    SizeInputs,
)
from evencoil.sizing.locked_rotor import horsepower_at_locked_rotor
from evencoil.sizing.own import own_sizes
from evencoil.sizing.part import Fitted, fit_conductor
from evencoil.sizing.protection import (
    FUSES,
    DeviceKind,
    largest_not_above,
    next_up,
    protection_ratings,
)
from evencoil.sizing.rating_rules import RatingRuleRow, rating_rules_of
from evencoil.sizing.readings import conductor_facts, kind_of
from evencoil.sizing.starting import Start, start_shares
from evencoil.sizing.time_current import curve_sheet, volts_along

__all__ = [
    "DEFAULT_TRIP_CLASS",
    "FIELDS",
    "FUSES",
    "LARGE_CIRCUIT_A",
    "BadLine",
    "CoilInput",
    "ConductorFacts",
    "ControlInput",
    "DeviceKind",
    "DriveInput",
    "FaultInput",
    "Fitted",
    "HeaterTable",
    "Material",
    "MotorCircuit",
    "OverloadInput",
    "RatingRuleRow",
    "SizeInputs",
    "Start",
    "branch_circuit",
    "conductor_facts",
    "curve_sheet",
    "fit_conductor",
    "further_sizes",
    "headers_of",
    "horsepower_at_full_load",
    "horsepower_at_locked_rotor",
    "horsepower_from_kw",
    "kind_of",
    "largest_not_above",
    "next_up",
    "own_sizes",
    "pick_conductor",
    "protection_ratings",
    "rating_rules_of",
    "read_heaters",
    "settle_phases",
    "start_shares",
    "typical_points",
    "volts_along",
]
