"""A netlist compiled for runs: the only module that knows which part a device becomes."""

from __future__ import annotations

from collections.abc import Sequence

from evencoil.circuit import Netlist
from evencoil.solver.constants import CATALOGUE, constants
from evencoil.solver.motor import TAU_S, MotorOnLoad
from evencoil.solver.parts import Part, part_for
from evencoil.solver.parts.calculated_motor import CalculatedMotor, is_its_motor
from evencoil.solver.parts.sources import LineSupply
from evencoil.solver.plant import Plant

__all__ = ["compile_plant"]


def compile_plant(
    netlist: Netlist,
    set_name: str = CATALOGUE,
    joints: Sequence[str] = (),
    motor: MotorOnLoad | None = None,
) -> Plant:
    """Return a netlist made ready for runs.

    Parameters
    ----------
    netlist : Netlist
        Devices and wires, right or wrong.
    set_name : str
        Name of the set of constants.
    joints : sequence of str
        Terminals whose joint can come loose in the runs.
    motor : MotorOnLoad or None
        The job's own motor, which is the device ``motor`` if its winding is the same.
    """
    known = constants(set_name)
    if motor is not None:
        known = {**known, "overload_tau_s": TAU_S[motor.relay_class]}
    plant = Plant(netlist, known, joints)
    plant.relay_kind = "" if motor is None else motor.relay_kind
    for place, device in enumerate(netlist.devices):
        if motor is not None and is_its_motor(device, motor):
            part: Part = CalculatedMotor(plant, device, place, motor)
        else:
            part = part_for(plant, device, place)
        plant.parts.append(part)
        plant.part_of[device.id] = part
        if plant.main_supply is None and isinstance(part, LineSupply):
            plant.main_supply = part
    plant.finish()
    return plant
