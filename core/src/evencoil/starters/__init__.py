"""The standard circuits with their options, the inputs of the step, and whether one fits a motor.

Knows netlists, windings and sizes; does not run them.
"""

from evencoil.starters.catalogue import FOUND, CatalogueEntry, catalogue, entry_of, found_entry
from evencoil.starters.control_supply import ControlSupply, fit_control
from evencoil.starters.fit import FitFacts, Load, is_two_speed, misfit, needed_leads, start_of
from evencoil.starters.inputs import AcceptedInput, DeadReadingInput, EditInput, StarterInputs
from evencoil.starters.installation import (
    MotorRating,
    begun_panel,
    entered_by_hand,
    install_motor,
    is_fed_by_line,
    ratings_of,
    stand_in_of,
    with_ratings,
)
from evencoil.starters.standard_circuit import OptionSpec, draw, options_of, said_choice

__all__ = [
    "FOUND",
    "AcceptedInput",
    "CatalogueEntry",
    "ControlSupply",
    "DeadReadingInput",
    "EditInput",
    "FitFacts",
    "Load",
    "MotorRating",
    "OptionSpec",
    "StarterInputs",
    "begun_panel",
    "catalogue",
    "draw",
    "entered_by_hand",
    "entry_of",
    "fit_control",
    "found_entry",
    "install_motor",
    "is_fed_by_line",
    "is_two_speed",
    "misfit",
    "needed_leads",
    "options_of",
    "ratings_of",
    "said_choice",
    "stand_in_of",
    "start_of",
    "with_ratings",
]
