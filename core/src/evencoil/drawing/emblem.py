"""A device by itself, small: its paths below each other, for a list to choose from.

Units: lengths [px]. Source: the symbols of NEMA ICS 19 and IEC 60617.
"""

from __future__ import annotations

from itertools import islice

from evencoil.circuit import Device, Link, links_of
from evencoil.drawing.geometry import Pen, Picture, Shape, at
from evencoil.drawing.symbols import LENGTH, Style, symbol

__all__ = ["draw_emblem"]

#: how many paths are drawn, and how far apart [px]
_MOST, _ROW, _MARGIN = 3, 36.0, 4.0
#: what has no symbol along a line of its own
_BOXED = {"winding", "primary", "secondary", "source", "rectifier", "sensor"}


def draw_emblem(device: Device, style: Style = "nema") -> Picture:
    """Return a device's first paths as symbols; a box where it has none.

    Parameters
    ----------
    device : Device
        With its parameters.
    style : str
        ``nema`` or ``iec`` symbols.
    """
    # one of a kind says it: three poles are one pole here
    kinds: dict[str, Link] = {}
    for link in links_of(device):
        if link.kind not in _BOXED:
            kinds.setdefault(link.kind, link)
    shapes: list[Shape] = []
    y = _ROW / 2 + _MARGIN
    for link in islice(kinds.values(), _MOST):
        shapes += at((_MARGIN, y), is_upright=False, shapes=symbol(device, link, style))
        y += _ROW
    if not shapes:
        pen = Pen(device=device.id)
        pen.rect((_MARGIN, y - 12), (_MARGIN + LENGTH, y + 12))
        shapes, y = pen.shapes, y + _ROW
    return Picture(LENGTH + 2 * _MARGIN, y - _ROW / 2 + _MARGIN, tuple(shapes), ())
