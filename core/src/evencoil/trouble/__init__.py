"""Fault finding: what can be wrong, what to read next, when to doubt, what proves the cause.

Knows circuits, solver, rehearsal and checks; no job.
"""

from evencoil.trouble.closed import NOT_PROVEN_COUNTS, ClosedVerdict, HuntStep, closed_verdict
from evencoil.trouble.faults import Fault, faults_of, weights_of
from evencoil.trouble.field import Field, field_of
from evencoil.trouble.hunt import (
    Answer,
    Case,
    Group,
    Hunt,
    Offer,
    answer_at,
    hunt,
    known_symptom,
    value_of,
)
from evencoil.trouble.played import Script, Seen, play, script_of
from evencoil.trouble.readings import SETUP_MIN, Reading
from evencoil.trouble.said import (
    SaidGroup,
    SaidHunt,
    SaidOffer,
    said_answer_of,
    said_fault,
    said_held,
    said_hunt,
    said_reading,
    said_value,
)
from evencoil.trouble.tables import (
    AGES,
    Age,
    Belief,
    Odds,
    Symptom,
    beliefs,
    judged,
    odds_table,
    symptoms,
    unplayed,
)
from evencoil.trouble.told import symptoms_of
from evencoil.trouble.which import (
    ONLY_SEEN,
    OPERATIONS,
    Alike,
    Behavior,
    Ranked,
    behavior_of,
    differs,
    rank,
    said_option,
)

__all__ = [
    "AGES",
    "NOT_PROVEN_COUNTS",
    "ONLY_SEEN",
    "OPERATIONS",
    "SETUP_MIN",
    "Age",
    "Alike",
    "Answer",
    "Behavior",
    "Belief",
    "Case",
    "ClosedVerdict",
    "Fault",
    "Field",
    "Group",
    "Hunt",
    "HuntStep",
    "Odds",
    "Offer",
    "Ranked",
    "Reading",
    "SaidGroup",
    "SaidHunt",
    "SaidOffer",
    "Script",
    "Seen",
    "Symptom",
    "answer_at",
    "behavior_of",
    "beliefs",
    "closed_verdict",
    "differs",
    "faults_of",
    "field_of",
    "hunt",
    "judged",
    "known_symptom",
    "odds_table",
    "play",
    "rank",
    "said_answer_of",
    "said_fault",
    "said_held",
    "said_hunt",
    "said_option",
    "said_reading",
    "said_value",
    "script_of",
    "symptoms",
    "symptoms_of",
    "unplayed",
    "value_of",
    "weights_of",
]
