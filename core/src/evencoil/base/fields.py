"""What every input model is made of: numbers as text, names, and no unknown field."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import (
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    StringConstraints,
)

from evencoil.base.quantities import exact, number
from evencoil.base.text import Text

__all__ = ["DecimalText", "Inputs", "Insulation", "ShortText"]

ShortText = Annotated[Text, StringConstraints(max_length=120)]


def _decimal(value: object) -> object:
    """Take a number as typed, or as a JSON whole number; never a float."""
    if isinstance(value, str):
        return number(value, field="number")
    if isinstance(value, bool | float):
        # pydantic turns a ValueError, and no other, into an error of this field
        raise ValueError('Write this number as text, for example "30".')
    return value


DecimalText = Annotated[
    Decimal,
    BeforeValidator(_decimal, json_schema_input_type=str),
    Field(allow_inf_nan=False, max_digits=12, decimal_places=6),
    PlainSerializer(exact, return_type=str),
]
Insulation = Literal[
    "TW",
    "UF",
    "THW",
    "THWN",
    "RHW",
    "XHHW",
    "USE",
    "THHN",
    "THWN-2",
    "THHN/THWN-2",
    "XHHW-2",
    "RHW-2",
    "USE-2",
]


class Inputs(BaseModel):
    """What people give: nothing unknown is taken, nothing changes it."""

    model_config = ConfigDict(extra="forbid", frozen=True)
