"""What people did at the panel, and what it proves: locks, rounds, wires, readings, stages.

Knows nothing of netlists, jobs or servers: what entries can be about is handed in.
"""

from evencoil.acts.figures import OPEN, FigureError, bounds_at, figure, is_within, judged
from evencoil.acts.hands import sources
from evencoil.acts.kinds import (
    HANDS_ACTS,
    KINDS,
    MAY_SHUT_HANDS,
    MAY_SHUT_POWER,
    RANK,
    RESULTS,
    Kind,
)
from evencoil.acts.model import Entry, Role, Row, Rules, Source, Stage, Wire, Work
from evencoil.acts.past import Log, View
from evencoil.acts.receive import is_opening, receive
from evencoil.acts.results import (
    expected_in,
    expected_of_entry,
    is_result_good,
    place_of,
    turns_as_before,
)
from evencoil.acts.rolled import Rolled, rolled_leads
from evencoil.acts.stages import open_trips
from evencoil.acts.state import PanelState, Signature, opens, state_of, to_judge
from evencoil.acts.stored import work_as_json, work_from_json
from evencoil.acts.tells import CLOCK_OFF_S, tells
from evencoil.acts.wiring import landings, torque_is_done

__all__ = [
    "CLOCK_OFF_S",
    "HANDS_ACTS",
    "KINDS",
    "MAY_SHUT_HANDS",
    "MAY_SHUT_POWER",
    "OPEN",
    "RANK",
    "RESULTS",
    "Entry",
    "FigureError",
    "Kind",
    "Log",
    "PanelState",
    "Role",
    "Rolled",
    "Row",
    "Rules",
    "Signature",
    "Source",
    "Stage",
    "View",
    "Wire",
    "Work",
    "bounds_at",
    "expected_in",
    "expected_of_entry",
    "figure",
    "is_opening",
    "is_result_good",
    "is_within",
    "judged",
    "landings",
    "open_trips",
    "opens",
    "place_of",
    "receive",
    "rolled_leads",
    "sources",
    "state_of",
    "tells",
    "to_judge",
    "torque_is_done",
    "turns_as_before",
    "work_as_json",
    "work_from_json",
]
