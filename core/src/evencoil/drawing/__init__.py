"""Netlists as plain geometry: the same on screen, in SVG and on paper."""

from evencoil.drawing.geometry import Picture, Shape
from evencoil.drawing.ladder import Ladder, draw_ladder
from evencoil.drawing.panel import StripRow, draw_panel, draw_strip, strip_rows
from evencoil.drawing.power import draw_power
from evencoil.drawing.svg import to_svg
from evencoil.drawing.upright import draw_rungs

__all__ = [
    "Ladder",
    "Picture",
    "Shape",
    "StripRow",
    "draw_ladder",
    "draw_panel",
    "draw_power",
    "draw_rungs",
    "draw_strip",
    "strip_rows",
    "to_svg",
]
