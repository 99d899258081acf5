"""The one netlist of a job: devices, wires and what is joined."""

from evencoil.circuit.netlist import Device, Netlist, Wire

__all__ = ["Device", "Netlist", "Wire"]
