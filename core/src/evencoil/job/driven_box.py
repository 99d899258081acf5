"""The chosen starter drives the box: it decides how the motor starts, and so what stays joined."""

from __future__ import annotations

from evencoil.base import CoreError
from evencoil.leads import LeadsInputs
from evencoil.starters import FOUND, StarterInputs, catalogue, entry_of, is_two_speed, start_of

__all__ = ["driven_by_starter", "is_drive"]


def is_drive(starter: StarterInputs) -> bool:
    """Tell whether a drive was chosen to start the motor.

    Parameters
    ----------
    starter : StarterInputs
        As entered; a starter as found tells nothing before it is drawn.
    """
    known = catalogue().get(starter.standard_circuit)
    return known is not None and known.group == "drive"


def driven_by_starter(leads: LeadsInputs, starter: StarterInputs) -> tuple[LeadsInputs, bool]:
    """Return the Leads inputs with the starter's way to start, and whether it has two speeds.

    A starter that has not been chosen, or that was found in place, changes nothing.

    Parameters
    ----------
    leads : LeadsInputs
        As entered.
    starter : StarterInputs
        As entered.
    """
    if not starter.standard_circuit or starter.standard_circuit == FOUND:
        return leads, False
    try:
        entry = entry_of(starter.standard_circuit)
    except CoreError:
        return leads, False
    start = start_of(entry)
    method = "full_voltage" if start == "autotransformer" else start
    return leads.model_copy(update={"start_method": method}), is_two_speed(entry)
