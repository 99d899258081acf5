"""Netlists as plain geometry: the same on screen, in SVG and on paper."""

from evencoil.drawing.geometry import Picture, Shape
from evencoil.drawing.ladder import Ladder, draw_ladder
from evencoil.drawing.power import draw_power
from evencoil.drawing.svg import to_svg

__all__ = ["Ladder", "Picture", "Shape", "draw_ladder", "draw_power", "to_svg"]
