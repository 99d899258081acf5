"""What a netlist does: complex nodal analysis, device behavior in time, events.

Knows devices and wires; the only room that uses NumPy.
"""

from evencoil.solver.compile import compile_plant
from evencoil.solver.constants import CATALOGUE, PHYSICAL, constants
from evencoil.solver.cover import TIMES, ZERO_TIMES, Pairs, ReadingCover, pairs_at, pairs_of
from evencoil.solver.dead import Ohms, Positions
from evencoil.solver.events import Action, Event, expand
from evencoil.solver.network import Network
from evencoil.solver.parts import PARTS
from evencoil.solver.parts.calculated_motor import CalculatedMotor
from evencoil.solver.parts.coils import Armature
from evencoil.solver.parts.drive import Drive
from evencoil.solver.parts.logic import ProgrammableRelay
from evencoil.solver.parts.motors import Motor, motors_of
from evencoil.solver.parts.protection import Overload
from evencoil.solver.parts.sensors import SpeedSwitch
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run
from evencoil.solver.stator import (
    FULL_LOAD_SLIP,
    MAGNETISING,
    CoilReading,
    StatorState,
    coil_matrix,
    solve_caged,
    solve_stator,
)
from evencoil.solver.telling import Telling

__all__ = [
    "CATALOGUE",
    "FULL_LOAD_SLIP",
    "MAGNETISING",
    "PARTS",
    "PHYSICAL",
    "TIMES",
    "ZERO_TIMES",
    "Action",
    "Armature",
    "CalculatedMotor",
    "CoilReading",
    "Drive",
    "Event",
    "Motor",
    "Network",
    "Ohms",
    "Overload",
    "Pairs",
    "Plant",
    "Positions",
    "ProgrammableRelay",
    "ReadingCover",
    "Run",
    "SpeedSwitch",
    "StatorState",
    "Telling",
    "coil_matrix",
    "compile_plant",
    "constants",
    "expand",
    "motors_of",
    "pairs_at",
    "pairs_of",
    "solve_caged",
    "solve_stator",
]
