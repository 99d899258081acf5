"""Practice: questions from the live rules with fresh figures, each wrong route named.

Knows the job, its rules and fault finding; no person.
"""

from evencoil.practice.boxes import BOX_DAYS, due_after, next_box
from evencoil.practice.drills import drill, said_asked, said_fact, said_part, said_slip
from evencoil.practice.hidden import HiddenHunt, hidden_hunt, hideable
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
    part_answers,
)
from evencoil.practice.panel import Asked, Metered, MeterKind, ask_panel, bare_edits, meter_at

__all__ = [
    "BOX_DAYS",
    "KINDS",
    "Asked",
    "Drill",
    "DrillKind",
    "Fact",
    "HiddenHunt",
    "MeterKind",
    "Metered",
    "Part",
    "Slip",
    "Verdict",
    "ask_panel",
    "bare_edits",
    "drill",
    "due_after",
    "hidden_hunt",
    "hideable",
    "judge",
    "judge_parts",
    "meter_at",
    "names_section",
    "next_box",
    "part_answers",
    "said_asked",
    "said_fact",
    "said_part",
    "said_slip",
]
