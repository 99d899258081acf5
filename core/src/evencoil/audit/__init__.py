"""Many jobs held against the rules: worst first, unknown facts by cost, what if, what changed.

Knows jobs; no person and no database.
"""

from evencoil.audit.job_audit import AuditLine, FactNeed, JobAudit, audit_job, line_rank
from evencoil.audit.played import PlayedOnce
from evencoil.audit.table import HEADS, audit_csv, audit_row
from evencoil.audit.topics import STATES, TOPICS, AuditState, Topic, topic_of
from evencoil.audit.what_if import Supposed, WhatIf, said_if, suppose
from evencoil.audit.whole import (
    Change,
    Place,
    PlantNeed,
    Tally,
    changes,
    doubtful_in,
    headline,
)

__all__ = [
    "HEADS",
    "STATES",
    "TOPICS",
    "AuditLine",
    "AuditState",
    "Change",
    "FactNeed",
    "JobAudit",
    "Place",
    "PlantNeed",
    "PlayedOnce",
    "Supposed",
    "Tally",
    "Topic",
    "WhatIf",
    "audit_csv",
    "audit_job",
    "audit_row",
    "changes",
    "doubtful_in",
    "headline",
    "line_rank",
    "said_if",
    "suppose",
    "topic_of",
]
