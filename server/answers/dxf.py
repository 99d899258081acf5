"""Geometry as a DXF file: the same drawing, in millimetres, one layer a kind of thing.

Written by a known library; wires, devices and words lie on layers of their own.
Units: 1 px of a drawing is a quarter of a millimetre [mm].
"""

from __future__ import annotations

import io

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.layout import Modelspace

from evencoil.drawing import MM_PER_PX, Picture, Shape, text_size

__all__ = ["to_dxf"]

_LAYERS = {"WIRES": 7, "DEVICES": 5, "WORDS": 8}
_ALIGN = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}


def to_dxf(picture: Picture) -> bytes:
    """Return a drawing as DXF, release 2010, in ASCII.

    Parameters
    ----------
    picture : Picture
        The geometry; its upper left corner comes to lie at (0, height).
    """
    drawing = Drawing.new("R2010")
    drawing.units = units.MM
    for name, color in _LAYERS.items():
        drawing.layers.add(name, color=color)
    space = drawing.modelspace()
    for shape in picture.shapes:
        _put(space, shape, picture.height)
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue().encode("utf-8")


def _put(space: Modelspace, shape: Shape, height: float) -> None:
    points = [(x * MM_PER_PX, (height - y) * MM_PER_PX) for x, y in shape.points]
    layer = "WIRES" if shape.net and not shape.link else "DEVICES"
    if shape.kind == "text":
        size = text_size(shape) * MM_PER_PX
        entity = space.add_text(shape.text, height=size, dxfattribs={"layer": "WORDS"})
        entity.set_placement(points[0], align=_ALIGN[shape.anchor])
        return
    given = {"layer": layer}
    if shape.kind in {"circle", "dot"}:
        space.add_circle(points[0], shape.radius * MM_PER_PX, dxfattribs=given)
        return
    if shape.kind == "rect":
        (x, y), (x2, y2) = points
        points = [(x, y), (x2, y), (x2, y2), (x, y2)]
    is_closed = shape.is_closed or shape.kind == "rect"
    if len(points) == 2:
        space.add_line(points[0], points[1], dxfattribs=given)
    elif points:
        space.add_lwpolyline(points, close=is_closed, dxfattribs=given)
