"""What the code book says: tables with their doubts, editions, plant rules, amendments.

Knows `base` only; how a table is used is decided further on.
"""

from evencoil.codebook.amendments import (
    Amendment,
    AmendmentSubject,
    amended,
    check_amendment,
    smallest_conductor,
)
from evencoil.codebook.editions import EDITIONS, Edition, edition_of, rule
from evencoil.codebook.profile import (
    DeviceNames,
    Ferrules,
    PhaseColors,
    Profile,
    RatingRule,
    Swap,
    TwistOn,
    WireColors,
)
from evencoil.codebook.steps import assumed, given, judged, tips_of, worked
from evencoil.codebook.tables.loader import Found, Table, digests, table

__all__ = [
    "EDITIONS",
    "Amendment",
    "AmendmentSubject",
    "DeviceNames",
    "Edition",
    "Ferrules",
    "Found",
    "PhaseColors",
    "Profile",
    "RatingRule",
    "Swap",
    "Table",
    "TwistOn",
    "WireColors",
    "amended",
    "assumed",
    "check_amendment",
    "digests",
    "edition_of",
    "given",
    "judged",
    "rule",
    "smallest_conductor",
    "table",
    "tips_of",
    "worked",
]
