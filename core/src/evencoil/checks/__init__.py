"""What is wrong with a circuit: rules by graph and by running it, proofs, dead checks.

Knows netlists, solver and rehearsal; no job.
"""

from evencoil.checks.check import check_circuit, isolations_of
from evencoil.checks.dead.bench import (
    OPEN_OHM,
    ZERO_OHM,
    Bench,
    Hand,
    Observed,
    hands_of,
    live_terminals,
    spots_of,
)
from evencoil.checks.dead.evidence import WireEvidence, wire_evidence
from evencoil.checks.dead.faults import WiringFault, contact_faults, moved_wires
from evencoil.checks.dead.plan import Check, DeadChecks, dead_checks
from evencoil.checks.dead.sheet import DeadSheet, dead_sheet, said_expected, said_hand
from evencoil.checks.dead.suspects import ohms_read, readings_hold, suspects
from evencoil.checks.expected import with_expectations
from evencoil.checks.insulation import (
    at_40_c,
    insulation_bands,
    least_at_40_mohm,
    polarization_index,
    said_insulation,
    volts_of_tester,
)
from evencoil.checks.isolators import Isolation, isolations
from evencoil.checks.load import on_transformer
from evencoil.checks.model import Problem
from evencoil.checks.power import bridges_of, exclusive_pairs, lines_behind_drive
from evencoil.checks.proofs import Proof, ProofKind, prove
from evencoil.checks.reach import COILED, LINE_ENDS, SWITCHES, Graph
from evencoil.checks.restarts import Restart, restarts_of, waiting_isolators

__all__ = [
    "COILED",
    "LINE_ENDS",
    "OPEN_OHM",
    "SWITCHES",
    "ZERO_OHM",
    "Bench",
    "Check",
    "DeadChecks",
    "DeadSheet",
    "Graph",
    "Hand",
    "Isolation",
    "Observed",
    "Problem",
    "Proof",
    "ProofKind",
    "Restart",
    "WireEvidence",
    "WiringFault",
    "at_40_c",
    "bridges_of",
    "check_circuit",
    "contact_faults",
    "dead_checks",
    "dead_sheet",
    "exclusive_pairs",
    "hands_of",
    "insulation_bands",
    "isolations",
    "isolations_of",
    "least_at_40_mohm",
    "lines_behind_drive",
    "live_terminals",
    "moved_wires",
    "ohms_read",
    "on_transformer",
    "polarization_index",
    "prove",
    "readings_hold",
    "restarts_of",
    "said_expected",
    "said_hand",
    "said_insulation",
    "spots_of",
    "suspects",
    "volts_of_tester",
    "waiting_isolators",
    "wire_evidence",
    "with_expectations",
]
