"""How each device behaves in time: one class for each type of the library."""

from __future__ import annotations

from evencoil.circuit import Device
from evencoil.solver.parts.base import Part
from evencoil.solver.parts.coils import Armature, Contactor, Latch
from evencoil.solver.parts.drive import Drive
from evencoil.solver.parts.logic import ProgrammableRelay
from evencoil.solver.parts.motors import Motor
from evencoil.solver.parts.operators import Button, EmergencyStop, Lamp, Load, Pilot, Selector
from evencoil.solver.parts.protection import (
    Breaker,
    Disconnect,
    Fuse,
    Isolator,
    ManualStarter,
    Overload,
)
from evencoil.solver.parts.sensors import (
    GroundFaultRelay,
    PhaseMonitor,
    Rtd,
    RtdMonitor,
    SpeedSwitch,
    Thermistor,
    ThermistorRelay,
    Thermostat,
)
from evencoil.solver.parts.sources import (
    Autotransformer,
    LineSupply,
    Rectifier,
    Resistor,
    Source,
    Transformer,
)
from evencoil.solver.parts.timers import StarDeltaTimer, Timer
from evencoil.solver.plant import Plant

__all__ = ["PARTS", "Part", "part_for"]

PARTS: dict[str, type[Part]] = {
    "supply": LineSupply,
    "source": Source,
    "xfmr": Transformer,
    "autox": Autotransformer,
    "psu": Rectifier,
    "rect": Rectifier,
    "resistor": Resistor,
    "cb3": Breaker,
    "fdisc": Disconnect,
    "isolator": Isolator,
    "mms": ManualStarter,
    "manual": ManualStarter,
    "fuse": Fuse,
    "olr": Overload,
    "contactor": Contactor,
    "relay": Armature,
    "latch": Latch,
    "timer": Timer,
    "sdtimer": StarDeltaTimer,
    "pb": Button,
    "estop": EmergencyStop,
    "pilot": Pilot,
    "sel": Selector,
    "drum": Selector,
    "lamp": Lamp,
    "solenoid": Load,
    "heater": Load,
    "horn": Load,
    "zss": SpeedSwitch,
    "thermostat": Thermostat,
    "ptc": Thermistor,
    "ptcrelay": ThermistorRelay,
    "rtd": Rtd,
    "rtdmon": RtdMonitor,
    "phasemon": PhaseMonitor,
    "gfr": GroundFaultRelay,
    "plc": ProgrammableRelay,
    "drive": Drive,
}


def part_for(plant: Plant, device: Device, place: int) -> Part:
    """Return the part that a device becomes; joints and blocks are only nodes.

    Parameters
    ----------
    plant : Plant
        Where it adds its branches.
    device : Device
        What it is.
    place : int
        Its place in the netlist, which decides who is first where two are due.
    """
    if device.type.startswith("motor"):
        return Motor(plant, device, place)
    return PARTS.get(device.type, Part)(plant, device, place)
