"""A netlist compiled for runs: the only module that knows which part a device becomes."""

from __future__ import annotations

from collections.abc import Sequence

from evencoil.circuit import Netlist
from evencoil.solver.constants import CATALOGUE, constants
from evencoil.solver.parts import part_for
from evencoil.solver.parts.sources import LineSupply
from evencoil.solver.plant import Plant

__all__ = ["compile_plant"]


def compile_plant(netlist: Netlist, set_name: str = CATALOGUE, joints: Sequence[str] = ()) -> Plant:
    """Return a netlist made ready for runs.

    Parameters
    ----------
    netlist : Netlist
        Devices and wires, right or wrong.
    set_name : str
        Name of the set of constants.
    joints : sequence of str
        Terminals whose joint can come loose in the runs.
    """
    plant = Plant(netlist, constants(set_name), joints)
    for place, device in enumerate(netlist.devices):
        part = part_for(plant, device, place)
        plant.parts.append(part)
        plant.part_of[device.id] = part
        if plant.main_supply is None and isinstance(part, LineSupply):
            plant.main_supply = part
    plant.finish()
    return plant
