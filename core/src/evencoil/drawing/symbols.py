"""Symbols of the two public standards, drawn along a line of fixed length.

NEMA ICS 19 and IEC 60617, in plain strokes. A symbol reaches from (0, 0) to
(`LENGTH`, 0); the lines that meet it are the net's.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from evencoil.circuit import Device, Link
from evencoil.drawing.geometry import Pen, Shape, turned

__all__ = ["LENGTH", "Style", "symbol"]

LENGTH = 44.0
Style = Literal["nema", "iec"]
_OPENERS = {"nc", "nc_late", "timed_nc"}
_SWITCHES = {"pilot", "zss", "thermostat"}


def _leads(pen: Pen, left: float, right: float) -> None:
    pen.line((0, 0), (left, 0))
    pen.line((right, 0), (LENGTH, 0))


def _contact_nema(pen: Pen, kind: str) -> None:
    _leads(pen, 18, 26)
    pen.line((18, -10), (18, 10))
    pen.line((26, -10), (26, 10))
    if kind in _OPENERS:
        pen.line((13, 11), (31, -11))
    if kind.startswith("timed"):
        pen.line((22, 10), (22, 16))
        pen.line((19, 13), (22, 16), (25, 13))


def _contact_iec(pen: Pen, kind: str) -> None:
    if kind in _OPENERS:
        _leads(pen, 14, 30)
        pen.line((14, 0), (33, -10))
        pen.line((30, 0), (30, -10))
    else:
        _leads(pen, 14, 30)
        pen.line((14, 0), (29, -10))
    if kind.startswith("timed"):
        pen.line((21, -5), (21, -15))
        pen.line(*turned((21, -15), 4))


def _button(pen: Pen, kind: str, *, is_latched: bool) -> None:
    """Draw a contact bar over or under two points, with its plunger."""
    _leads(pen, 12, 32)
    pen.circle((14, 0), 2.4)
    pen.circle((30, 0), 2.4)
    plate = 3.6 if kind in _OPENERS else -7.0
    pen.line((9, plate), (35, plate))
    pen.line((22, plate), (22, -14))
    if is_latched:
        pen.line(*turned((22, -12), 8))
        pen.line((14, -12), (30, -12))
    else:
        pen.line((17, -14), (27, -14))


def _switch(pen: Pen, kind: str) -> None:
    """Draw a lever between two points, worked by the process from below."""
    _leads(pen, 12, 32)
    pen.circle((14, 0), 2.4)
    pen.circle((30, 0), 2.4)
    if kind in _OPENERS:
        pen.line((14, 2.4), (33, 4))
    else:
        pen.line((14, -2.4), (30, -9))
    pen.line((22, 3.2 if kind in _OPENERS else -5.5), (22, 13))
    pen.path((17, 13), (27, 13), (22, 18))


def _selector(pen: Pen, kind: str) -> None:
    del kind
    _leads(pen, 12, 32)
    pen.circle((14, 0), 2.4)
    pen.circle((30, 0), 2.4)
    pen.line((9, -5), (35, -5))
    pen.line((22, -5), (22, -13))
    pen.line((17, -16), (27, -10))


def _coil_nema(pen: Pen) -> None:
    _leads(pen, 9, 35)
    pen.circle((22, 0), 13)


def _coil_iec(pen: Pen) -> None:
    _leads(pen, 14, 30)
    pen.rect((14, -13), (30, 13))


def _lamp(pen: Pen, style: Style) -> None:
    _leads(pen, 11, 33)
    pen.circle((22, 0), 11)
    if style == "iec":
        pen.line((14.2, -7.8), (29.8, 7.8))
        pen.line((14.2, 7.8), (29.8, -7.8))
        return
    for u, v in ((1, 1), (1, -1), (-1, 1), (-1, -1)):
        pen.line((22 + u * 9, v * 9), (22 + u * 14, v * 14))


def _fuse(pen: Pen) -> None:
    pen.line((0, 0), (LENGTH, 0))
    pen.rect((12, -5), (32, 5))


def _heat(pen: Pen, style: Style) -> None:
    if style == "iec":
        pen.line((0, 0), (13, 0))
        pen.line((31, 0), (LENGTH, 0))
        pen.rect((10, -9), (34, 9))
        pen.line((13, 0), (16, 0), (16, -6), (28, -6), (28, 0), (31, 0))
        return
    _leads(pen, 10, 34)
    pen.line(*turned((16, 0), 6))
    pen.line(*[(u, -v) for u, v in turned((28, 0), 6)])


def _pole(pen: Pen, device: Device, style: Style) -> None:
    if device.type in {"cb3", "mms"}:
        _leads(pen, 12, 32)
        pen.circle((14, 0), 2.4)
        pen.circle((30, 0), 2.4)
        pen.line(*turned((22, -3), 10))
        return
    if device.type in {"fdisc", "isolator", "manual", "drum"}:
        _leads(pen, 10, 24 if device.type == "fdisc" else 32)
        pen.line((10, 0), (26, -11))
        pen.circle((10, 0), 2.0)
        if device.type == "fdisc":
            pen.rect((28, -4.5), (42, 4.5))
        return
    if style == "iec":
        _leads(pen, 14, 30)
        pen.line((14, 0), (29, -10))
        pen.line(*turned((33, 0), 3))
    else:
        _contact_nema(pen, "no")


def _winding(pen: Pen) -> None:
    _leads(pen, 7, 37)
    for centre in (12, 22, 32):
        pen.line(*turned((centre, 0), 5))


def _zigzag(pen: Pen) -> None:
    _leads(pen, 8, 36)
    pen.line((8, 0), (11, -7), (17, 7), (23, -7), (29, 7), (33, -7), (36, 0))


def _box(pen: Pen) -> None:
    _leads(pen, 10, 34)
    pen.rect((10, -10), (34, 10))


def _converter(pen: Pen) -> None:
    """Draw a converter: a box parted from corner to corner, as IEC 60617 has it."""
    _box(pen)
    pen.line((10, 10), (34, -10))


def symbol(device: Device, link: Link, style: Style) -> list[Shape]:
    """Return the symbol of a link of a device, along the line from (0, 0).

    Parameters
    ----------
    device : Device
        Whose link it is.
    link : Link
        The path drawn.
    style : str
        ``nema`` or ``iec``.

    Returns
    -------
    list of Shape
        To be put in place with `evencoil.drawing.geometry.at`.
    """
    pen = Pen(link=f"{device.id}:{link.name}", device=device.id)
    is_iec = style == "iec"
    by_kind: dict[str, Callable[[], None]] = {
        "coil": lambda: (_coil_iec if is_iec else _coil_nema)(pen),
        "lamp": lambda: _lamp(pen, style),
        "load": lambda: (_zigzag if device.type == "solenoid" else _box)(pen),
        "heat": lambda: _heat(pen, style),
        "pole": lambda: _pole(pen, device, style),
    }
    by_type: dict[str, Callable[[], None]] = {
        **{kind: lambda: _switch(pen, link.kind) for kind in _SWITCHES},
        "pb": lambda: _button(pen, link.kind, is_latched=False),
        "estop": lambda: _button(pen, link.kind, is_latched=True),
        "sel": lambda: _selector(pen, link.kind),
    }
    if link.kind in _SIMPLE:
        _SIMPLE[link.kind](pen)
    elif link.kind in by_kind:
        by_kind[link.kind]()
    elif device.type in by_type:
        by_type[device.type]()
    else:
        (_contact_iec if is_iec else _contact_nema)(pen, link.kind)
    return pen.shapes


_SIMPLE: dict[str, Callable[[Pen], None]] = {
    "fuse": _fuse,
    "winding": _winding,
    "primary": _winding,
    "secondary": _winding,
    "resistor": _zigzag,
    "source": _box,
    "rectifier": _box,
    "sensor": _zigzag,
    "input": _box,
    "drive": _converter,
}
