"""The device library: one module for each family, a table and little else."""

from evencoil.circuit.devices import logic, motors, operators, protection, relays, sensors, sources

__all__ = ["logic", "motors", "operators", "protection", "relays", "sensors", "sources"]
