"""Starter recipes: circuits of the catalogue, and options laid over them."""

from evencoil.starters.catalogue import CatalogueEntry, catalogue, entry_of
from evencoil.starters.recipe import Drawn, OptionSpec, draw, options_of

__all__ = [
    "CatalogueEntry",
    "Drawn",
    "OptionSpec",
    "catalogue",
    "draw",
    "entry_of",
    "options_of",
]
