"""The device library: one module for each family, a table and little else."""

from evencoil.circuit.devices import (
    drives,
    logic,
    motors,
    operators,
    protection,
    relays,
    sensors,
    sources,
)

__all__ = [
    "drives",
    "logic",
    "motors",
    "operators",
    "protection",
    "relays",
    "sensors",
    "sources",
]
