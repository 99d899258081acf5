"""What is inside the motor: coils with named ends, lead marks, kinds, ratings, connections.

Knows the nameplate; no terminal box and no circuit.
"""

from evencoil.winding.accessories import AccessoryKind, Told, tell_accessory
from evencoil.winding.coils import KINDS, LINES, Coil, Winding, WindingKind, winding_of
from evencoil.winding.connections import (
    Connection,
    Speed,
    StartMethod,
    joinings,
    named,
    run_joinings,
    swap_lines,
)
from evencoil.winding.internal import inside_changes
from evencoil.winding.joints import Group, Joint, check_joints, counts_of, groups_of
from evencoil.winding.lead_marks import Style, names_of
from evencoil.winding.look_alikes import (
    LookAlike,
    continuity_groups,
    kind_from_plate,
    lead_counts,
    look_alikes,
)
from evencoil.winding.rating import Rating, RunShape, rating_of
from evencoil.winding.single_phase import Capacitors, StartBranch, StartSwitch, start_branch

__all__ = [
    "KINDS",
    "LINES",
    "AccessoryKind",
    "Capacitors",
    "Coil",
    "Connection",
    "Group",
    "Joint",
    "LookAlike",
    "Rating",
    "RunShape",
    "Speed",
    "StartBranch",
    "StartMethod",
    "StartSwitch",
    "Style",
    "Told",
    "Winding",
    "WindingKind",
    "check_joints",
    "continuity_groups",
    "counts_of",
    "groups_of",
    "inside_changes",
    "joinings",
    "kind_from_plate",
    "lead_counts",
    "look_alikes",
    "named",
    "names_of",
    "rating_of",
    "run_joinings",
    "start_branch",
    "swap_lines",
    "tell_accessory",
    "winding_of",
]
