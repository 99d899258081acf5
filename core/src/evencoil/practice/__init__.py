"""Practice: questions from the live rules with fresh figures, each wrong route named.

Knows the job, its rules and fault finding; no person.
"""

from evencoil.practice.boxes import BOX_DAYS, due_after, next_box
from evencoil.practice.drills import drill, said_asked, said_fact, said_part, said_slip
from evencoil.practice.hidden import HiddenHunt, hidden_hunt
from evencoil.practice.model import (
    KINDS,
    Drill,
    DrillKind,
    Fact,
    Part,
    Slip,
    Verdict,
    judge,
    judge_parts,
    names_section,
)

__all__ = [
    "BOX_DAYS",
    "KINDS",
    "Drill",
    "DrillKind",
    "Fact",
    "HiddenHunt",
    "Part",
    "Slip",
    "Verdict",
    "drill",
    "due_after",
    "hidden_hunt",
    "judge",
    "judge_parts",
    "names_section",
    "next_box",
    "said_asked",
    "said_fact",
    "said_part",
    "said_slip",
]
