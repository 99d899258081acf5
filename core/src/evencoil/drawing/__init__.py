"""Netlists and curves as plain geometry: the same on screen, in SVG, PDF and DXF.

Knows netlists and runs; computes no rule.
"""

from evencoil.drawing.emblem import draw_emblem
from evencoil.drawing.geometry import MM_PER_PX, Pen, Picture, Shape, Touch, text_size
from evencoil.drawing.ladder import Ladder, draw_ladder
from evencoil.drawing.panel import draw_panel, draw_strip, strip_rows
from evencoil.drawing.power import draw_power
from evencoil.drawing.purpose import purposes
from evencoil.drawing.run_up_curves import draw_run_up_torque, draw_run_up_traces
from evencoil.drawing.start_branch import draw_start_branch
from evencoil.drawing.svg import to_svg
from evencoil.drawing.symbols import Style
from evencoil.drawing.upright import draw_rungs
from evencoil.drawing.windings import draw_winding, winding_points

__all__ = [
    "MM_PER_PX",
    "Ladder",
    "Pen",
    "Picture",
    "Shape",
    "Style",
    "Touch",
    "draw_emblem",
    "draw_ladder",
    "draw_panel",
    "draw_power",
    "draw_run_up_torque",
    "draw_run_up_traces",
    "draw_rungs",
    "draw_start_branch",
    "draw_strip",
    "draw_winding",
    "purposes",
    "strip_rows",
    "text_size",
    "to_svg",
    "winding_points",
]
