"""The standard circuits with their options, the inputs of the step, and whether one fits a motor.

Knows netlists, windings and sizes; does not run them.
"""

from evencoil.starters.catalogue import FOUND, CatalogueEntry, catalogue, entry_of, found_entry
from evencoil.starters.fit import LEADS_OF, Load, MotorFacts, barred_by, start_of
from evencoil.starters.inputs import AcceptedInput, DeadReadingInput, StarterInputs
from evencoil.starters.installation import MotorRating, install_motor, rate
from evencoil.starters.recipe import OptionSpec, draw, options_of

__all__ = [
    "FOUND",
    "LEADS_OF",
    "AcceptedInput",
    "CatalogueEntry",
    "DeadReadingInput",
    "Load",
    "MotorFacts",
    "MotorRating",
    "OptionSpec",
    "StarterInputs",
    "barred_by",
    "catalogue",
    "draw",
    "entry_of",
    "found_entry",
    "install_motor",
    "options_of",
    "rate",
    "start_of",
]
