"""The kinds of entries: who may make one, what it has to name, which figures it holds.

Closings (what shuts a door) are everyone's; the role here is that of an opening.

Units: as written beside each limit.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from evencoil.acts.model import Role

__all__ = [
    "HANDS_ACTS",
    "KINDS",
    "MAY_SHUT_HANDS",
    "MAY_SHUT_POWER",
    "RANK",
    "RESULTS",
    "TOUCHES",
    "Kind",
]

#: each may do what those before it may; ``other`` opens nothing
RANK: Mapping[Role, int] = {"other": -1, "apprentice": 0, "electrician": 1, "reviewer": 2}


@dataclass(frozen=True, slots=True, kw_only=True)
class Kind:
    """One kind.

    Attributes
    ----------
    role : str
        Least role of an opening.
    needs_hands : bool
        Its maker's hands must be open in its own past.
    is_online : bool
        Made over the network only.
    about : tuple of str
        What it has to name.
    or_about : str
        What it may name instead, all alone; empty for nothing.
    figures : mapping
        Name of a figure in the body to its unit and limits; an empty unit is none.
    can_be_open : bool
        A meter may show an open circuit.
    """

    role: Role = "apprentice"
    needs_hands: bool = False
    is_online: bool = False
    about: tuple[str, ...] = ()
    or_about: str = ""
    figures: Mapping[str, tuple[str, str, str]] = field(default_factory=dict)
    can_be_open: bool = False


_VOLTS = {"value": ("V", "0", "50000")}
_OHMS = {"value": ("ohm", "0", "1000000000")}

KINDS: Mapping[str, Kind] = {
    "source_listed": Kind(about=("source",), figures={"wait_s": ("", "0", "7200")}),
    "lock_on": Kind(),
    "lock_off": Kind(about=("locks",)),
    "foreign_lock_removed": Kind(role="reviewer", is_online=True, about=("lock",)),
    "meter_live": Kind(role="electrician", about=("round",), figures=_VOLTS),
    "dead_point": Kind(about=("round", "point"), figures=_VOLTS),
    "left_panel": Kind(),
    "conductor_recorded": Kind(needs_hands=True),
    "landed": Kind(needs_hands=True, about=("wire", "ends")),
    "torqued": Kind(
        needs_hands=True,
        about=("wire",),
        figures={"value": ("", "0", "20000"), "target": ("", "0", "20000")},
    ),
    "color_seen": Kind(needs_hands=True, about=("wire",)),
    "different_here": Kind(about=("wire", "ends")),
    "factory_link_verified": Kind(needs_hands=True, about=("link",)),
    "dead_reading": Kind(needs_hands=True, about=("row",), figures=_OHMS, can_be_open=True),
    "insulation_reading": Kind(
        needs_hands=True,
        about=("group",),
        figures={
            "value": ("Mohm", "0", "10000000"),
            "temp_c": ("", "-40", "200"),
            "ten": ("", "0", "10000000"),
        },
        can_be_open=True,
    ),
    "ground_continuity": Kind(needs_hands=True, about=("item",), figures=_OHMS, can_be_open=True),
    "coil_ohms": Kind(needs_hands=True, about=("item",), figures=_OHMS, can_be_open=True),
    "covers_on": Kind(role="electrician"),
    "people_clear": Kind(role="electrician", figures={"locks_left": ("", "0", "1000")}),
    "stage_opened": Kind(role="electrician", about=("stage",)),
    "control_result": Kind(about=("opened",)),
    "phase_sequence": Kind(about=("opened",)),
    "bump_result": Kind(about=("opened",)),
    # a motor in service has no stage: they are read because of a trip
    "volts": Kind(about=("opened",), or_about="trip", figures=_VOLTS),
    "amps": Kind(about=("opened",), or_about="trip", figures={"value": ("A", "0", "20000")}),
    "start_amps": Kind(about=("opened",), figures={"value": ("A", "0", "200000")}),
    "start_time": Kind(about=("opened",), figures={"value": ("s", "0", "600")}),
    "speed": Kind(about=("opened",), figures={"value": ("rpm", "0", "20000")}),
    "vibration": Kind(about=("opened",), figures={"mm_s": ("", "0", "100")}),
    "joint_check": Kind(about=("opened",), figures={"value": ("", "-40", "5000")}),
    "stage_closed": Kind(role="electrician", about=("opened",)),
    "swap_done": Kind(role="electrician", needs_hands=True, about=("wires",)),
    "trip": Kind(about=("device",)),
    "reset": Kind(role="electrician", about=("device",)),
    "heater_seen": Kind(about=("device",)),
    "setting_seen": Kind(about=("device",)),
    "photo": Kind(),
    "note": Kind(),
    "review_asked": Kind(role="electrician"),
    "sent_back": Kind(role="reviewer", is_online=True, about=("figure",)),
    "signed": Kind(role="reviewer", is_online=True),
    "correction": Kind(),
}

#: made with fingers in a box
HANDS_ACTS = tuple(name for name, kind in KINDS.items() if kind.needs_hands)
#: results of a stage: power was on when they were made
RESULTS = (
    "control_result",
    "phase_sequence",
    "bump_result",
    "volts",
    "amps",
    "start_amps",
    "start_time",
    "speed",
    "vibration",
    "joint_check",
)
#: a hand was on a wire
TOUCHES = ("landed", "different_here")
#: kinds of which some shut the door for hands, and for power: where only the kind of an entry is
#: known, not what it says, it is taken to do so
MAY_SHUT_HANDS = (
    "source_listed",
    "lock_off",
    "foreign_lock_removed",
    "meter_live",
    "dead_point",
    "left_panel",
    "stage_opened",
    "stage_closed",
    *RESULTS,
    "trip",
    "note",
    "correction",
)
MAY_SHUT_POWER = (*HANDS_ACTS, "lock_on", "dead_point", "different_here", "trip", "note")
