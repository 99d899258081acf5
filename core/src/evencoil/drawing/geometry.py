"""Shapes: lines, arcs, circles, words, each saying what it belongs to.

Units: lengths [px] of a drawing, 1 px being a quarter of a millimetre on paper.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Literal

__all__ = ["MM_PER_PX", "Pen", "Picture", "Shape", "Touch", "at", "text_size", "turned"]

#: length of a pixel on paper [mm]
MM_PER_PX = 0.25
#: height of words by what they are [px]
_TEXT_SIZE = {"tag": 13, "number": 12, "ends": 10, "row": 12, "use": 11, "lead": 10}

Kind = Literal["line", "path", "circle", "rect", "text", "dot"]
Weight = Literal["thin", "normal", "heavy"]


@dataclass(frozen=True, slots=True)
class Shape:
    """One drawn thing.

    Attributes
    ----------
    kind : str
        ``line`` and ``rect`` have two points, ``path`` has any number, ``circle``
        and ``dot`` a center and a radius, ``text`` a place and words.
    points : tuple of (float, float)
        Corners or center. [px]
    net : str
        Id of the net it belongs to, empty for none.
    link : str
        ``device:link`` of the contact, coil or pole that it is part of.
    device : str
        Device id, for tags.
    """

    kind: Kind
    points: tuple[tuple[float, float], ...]
    radius: float = 0.0
    text: str = ""
    anchor: Literal["start", "middle", "end"] = "middle"
    weight: Weight = "normal"
    is_closed: bool = False
    net: str = ""
    link: str = ""
    device: str = ""
    role: str = ""


@dataclass(slots=True)
class Pen:
    """Collects shapes that share what they belong to."""

    net: str = ""
    link: str = ""
    device: str = ""
    shapes: list[Shape] = field(default_factory=list)

    def _add(self, shape: Shape) -> None:
        self.shapes.append(replace(shape, net=self.net, link=self.link, device=self.device))

    def line(self, *points: tuple[float, float], weight: Weight = "normal") -> None:
        """Draw a line through points."""
        self._add(Shape("line" if len(points) == 2 else "path", points, weight=weight))

    def path(self, *points: tuple[float, float], is_closed: bool = True) -> None:
        """Draw a closed outline."""
        self._add(Shape("path", points, is_closed=is_closed))

    def circle(
        self, centre: tuple[float, float], radius: float, role: str = "", words: str = ""
    ) -> None:
        """Draw a circle; with a role it stands for something, which its words name."""
        self._add(Shape("circle", (centre,), radius, text=words, role=role))

    def dot(self, centre: tuple[float, float], radius: float = 3.0) -> None:
        """Draw a filled dot: a junction."""
        self._add(Shape("dot", (centre,), radius))

    def rect(self, one: tuple[float, float], other: tuple[float, float]) -> None:
        """Draw a rectangle between two corners."""
        self._add(Shape("rect", (one, other)))

    def text(
        self,
        place: tuple[float, float],
        words: str,
        anchor: Literal["start", "middle", "end"] = "middle",
        role: str = "",
    ) -> None:
        """Write words."""
        self.shapes.append(
            Shape(
                "text",
                (place,),
                text=words,
                anchor=anchor,
                net=self.net,
                link=self.link,
                device=self.device,
                role=role,
            )
        )


@dataclass(frozen=True, slots=True)
class Touch:
    """Where a terminal stands on a sheet [px], by ``device.terminal``."""

    terminal: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Picture:
    """A finished drawing: its size, its shapes, and the same in words.

    Attributes
    ----------
    width, height : float
        Size. [px]
    twin : tuple of str
        One line a rung or device, for reading without sight.
    touches : tuple of Touch
        Where each terminal can be touched; nothing is drawn there.
    """

    width: float
    height: float
    shapes: tuple[Shape, ...]
    twin: tuple[str, ...]
    touches: tuple[Touch, ...] = ()


def text_size(shape: Shape) -> int:
    """Return the height of a text shape's words [px].

    Parameters
    ----------
    shape : Shape
        Of kind ``text``.
    """
    return _TEXT_SIZE.get(shape.role, 11)


def at(place: tuple[float, float], *, is_upright: bool, shapes: list[Shape]) -> list[Shape]:
    """Return symbol shapes put at a place, along the line or down it.

    Parameters
    ----------
    place : (float, float)
        Where the symbol begins. [px]
    is_upright : bool
        True turns its way from left-to-right into top-to-bottom.
    shapes : list of Shape
        Drawn along the line from (0, 0).
    """
    x, y = place
    found = []
    for shape in shapes:
        points = tuple((x - v, y + u) if is_upright else (x + u, y + v) for u, v in shape.points)
        found.append(replace(shape, points=points))
    return found


def turned(
    centre: tuple[float, float], radius: float, steps: int = 12
) -> list[tuple[float, float]]:
    """Return the points of an upper half circle from left to right.

    Parameters
    ----------
    centre : (float, float)
        Its center. [px]
    radius : float
        [px]
    steps : int
        How many pieces.
    """
    from math import cos, pi, sin  # noqa: PLC0415 - used here only

    return [
        (
            centre[0] - radius * cos(pi * step / steps),
            centre[1] - radius * sin(pi * step / steps),
        )
        for step in range(steps + 1)
    ]
