"""Geometry as SVG text: for files and for paper.

The screen draws the same shapes itself, so that it can light and tap them.
"""

from __future__ import annotations

from html import escape

from evencoil.drawing.geometry import Picture, Shape, text_size

__all__ = ["to_svg"]

_WIDTH = {"thin": 1.0, "normal": 1.6, "heavy": 3.0}


def _points(shape: Shape) -> str:
    return " ".join(f"{x:.1f},{y:.1f}" for x, y in shape.points)


def _one(shape: Shape) -> str:
    stroke = f'stroke-width="{_WIDTH[shape.weight]}"'
    x, y = shape.points[0]
    if shape.kind in {"line", "path"}:
        tag = "polygon" if shape.is_closed else "polyline"
        return f'<{tag} points="{_points(shape)}" {stroke}/>'
    if shape.kind == "rect":
        (x, y), (x2, y2) = shape.points
        left, top = min(x, x2), min(y, y2)
        span = f'width="{abs(x2 - x):.1f}" height="{abs(y2 - y):.1f}"'
        return f'<rect x="{left:.1f}" y="{top:.1f}" {span} {stroke}/>'
    if shape.kind == "circle":
        return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{shape.radius:.1f}" {stroke}/>'
    if shape.kind == "dot":
        return (
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{shape.radius:.1f}" fill="#000" stroke="none"/>'
        )
    size = text_size(shape)
    weight = ' font-weight="600"' if shape.role in {"tag", "number"} else ""
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" text-anchor="{shape.anchor}" font-size="{size}"{weight} '
        f'stroke="none" fill="#000">{escape(shape.text)}</text>'
    )


def to_svg(picture: Picture, title: str = "", font: str = "Atkinson Hyperlegible Mono") -> str:
    """Return a drawing as SVG.

    Parameters
    ----------
    picture : Picture
        The geometry.
    title : str
        Said by screen readers.
    font : str
        Family of all words.
    """
    body = "".join(_one(shape) for shape in picture.shapes)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {picture.width:.0f} '
        f'{picture.height:.0f}" width="{picture.width:.0f}" height="{picture.height:.0f}" '
        f'font-family="{escape(font)}" fill="none" stroke="#000" stroke-linecap="round" '
        f'stroke-linejoin="round"><title>{escape(title)}</title>{body}</svg>'
    )
