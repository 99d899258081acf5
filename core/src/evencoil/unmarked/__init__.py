"""Leads whose tags are gone: from readings to a number for every lead.

Continuity finds which leads belong together, ohms find corners and rings, an
induction test finds phases and which end is the start.
"""

from evencoil.unmarked.bench import Bench
from evencoil.unmarked.guide import Guided, guide
from evencoil.unmarked.readings import Reading, Touch, Volts

__all__ = ["Bench", "Guided", "Reading", "Touch", "Volts", "guide"]
