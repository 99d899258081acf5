"""Leads whose tags are gone: from readings to a number for every lead.

Continuity finds which leads belong together, ohms find corners and rings, an
induction test finds phases and which end is the start.
"""

from evencoil.leads.identify.bench import PracticeBench
from evencoil.leads.identify.guide import Guided, guide
from evencoil.leads.identify.readings import Reading, Touch, Volts

__all__ = ["Guided", "PracticeBench", "Reading", "Touch", "Volts", "guide"]
