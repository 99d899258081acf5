"""Drawings as they are sent: shapes with what each belongs to."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer

__all__ = ["PictureOut", "ShapeOut", "TouchOut"]


def _flat(points: Any) -> Any:
    """Return points as one row of rounded figures."""
    if points and isinstance(points[0], tuple):
        return [round(value, 1) for point in points for value in point]
    return points


class ShapeOut(Answer):
    """One drawn thing, saying what it belongs to."""

    k: Literal["line", "path", "circle", "rect", "text", "dot"] = Field(validation_alias="kind")
    p: Annotated[list[float], BeforeValidator(_flat)] = Field(validation_alias="points")
    r: float = Field(default=0, validation_alias="radius")
    t: str = Field(default="", validation_alias="text")
    a: Literal["start", "middle", "end"] = Field(default="middle", validation_alias="anchor")
    w: Literal["thin", "normal", "heavy"] = Field(default="normal", validation_alias="weight")
    c: bool = Field(default=False, validation_alias="is_closed")
    net: str = ""
    link: str = ""
    device: str = ""
    role: str = ""


class TouchOut(Answer):
    """Where a terminal can be touched on a drawing [px]."""

    terminal: str
    x: float
    y: float


class PictureOut(Answer):
    """A drawing: its size, its shapes, and the same in words."""

    width: float
    height: float
    shapes: list[ShapeOut]
    twin: list[str]
    touches: list[TouchOut] = []
