"""Drawings as they are sent: shapes with what each belongs to."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.drawing import Picture, Shape

__all__ = ["PictureOut", "ShapeOut", "picture_out"]


class ShapeOut(BaseModel):
    """One drawn thing, saying what it belongs to."""

    k: Literal["line", "path", "circle", "rect", "text", "dot"]
    p: list[float]
    r: float = 0
    t: str = ""
    a: Literal["start", "middle", "end"] = "middle"
    w: Literal["thin", "normal", "heavy"] = "normal"
    c: bool = False
    net: str = ""
    link: str = ""
    device: str = ""
    role: str = ""


class PictureOut(BaseModel):
    """A drawing: its size, its shapes, and the same in words."""

    width: float
    height: float
    shapes: list[ShapeOut]
    twin: list[str]


def _shape(shape: Shape) -> ShapeOut:
    return ShapeOut(
        k=shape.kind,
        p=[round(value, 1) for point in shape.points for value in point],
        r=shape.radius,
        t=shape.text,
        a=shape.anchor,
        w=shape.weight,
        c=shape.is_closed,
        net=shape.net,
        link=shape.link,
        device=shape.device,
        role=shape.role,
    )


def picture_out(picture: Picture) -> PictureOut:
    """Return a drawing as it is sent."""
    return PictureOut(
        width=picture.width,
        height=picture.height,
        shapes=[_shape(shape) for shape in picture.shapes],
        twin=list(picture.twin),
    )
