"""The terminal box: connection derived, joints as made, housing, leads without tags.

Knows windings and the solver; no starter.
"""

from evencoil.leads.derive import Derived, derive
from evencoil.leads.identify.bench import PracticeBench
from evencoil.leads.identify.guide import Guided, guide
from evencoil.leads.identify.readings import lead_letters
from evencoil.leads.identify.stored import guide_bench
from evencoil.leads.inputs import BenchInputs, JointInput, JointsInputs, LeadsInputs, TwoSleeves
from evencoil.leads.joint_plan import JointsWorked, plan_joints
from evencoil.leads.outcome import CoilState, Outcome
from evencoil.leads.stud_board import Laid
from evencoil.leads.switched_box import named_conductors
from evencoil.leads.terminal_box import Box, CheckedDiagram, ToldAccessory, work_out_box

__all__ = [
    "BenchInputs",
    "Box",
    "CheckedDiagram",
    "CoilState",
    "Derived",
    "Guided",
    "JointInput",
    "JointsInputs",
    "JointsWorked",
    "Laid",
    "LeadsInputs",
    "Outcome",
    "PracticeBench",
    "ToldAccessory",
    "TwoSleeves",
    "derive",
    "guide",
    "guide_bench",
    "lead_letters",
    "named_conductors",
    "plan_joints",
    "work_out_box",
]
