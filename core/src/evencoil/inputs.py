"""What people give, step by step: the models that are stored and exchanged.

Empty means: nobody said it. What is worked out never stands here. Units are in
the names. Numbers travel as decimal strings, so that no float comes near them.
"""

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

from evencoil.circuit.edits import Edit, EditKind
from evencoil.connection import Joint
from evencoil.editions import Edition
from evencoil.nameplate import Assumed
from evencoil.profile import School
from evencoil.quantities import number, plain
from evencoil.sizing.protection import DeviceKind
from evencoil.texts import LongText, Text
from evencoil.winding import WindingKind

__all__ = [
    "STEPS",
    "AssumedInput",
    "DecimalText",
    "EditInput",
    "JointInput",
    "LeadsInputs",
    "PlateInputs",
    "SizeInputs",
    "StarterInputs",
    "StepName",
    "SupplyInputs",
]

StepName = Literal["supply", "leads", "size", "starter"]
STEPS: tuple[StepName, ...] = ("supply", "leads", "size", "starter")


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
    PlainSerializer(plain, return_type=str),
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


class _Inputs(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class AssumedInput(_Inputs):
    """A plate figure that nobody could read, with where it comes from."""

    field: Text
    value: Text
    reason: Text = ""

    def as_core(self) -> Assumed:
        """Return it as the reader takes it."""
        return Assumed(field=self.field, value=self.value, reason=self.reason)


class PlateInputs(_Inputs):
    """The plate as stamped, one text."""

    text: LongText = ""
    assumed: tuple[AssumedInput, ...] = Field(default=(), max_length=24)


class SupplyInputs(_Inputs):
    """The supply, by the name of its system."""

    text: Text = ""


class JointInput(_Inputs):
    """Leads that are joined in the box, and the line conductor on them if any.

    The id lasts: a role from the derived answer, a UUID from a person's tap.
    """

    id: Text = Field(min_length=1)
    leads: tuple[Text, ...] = Field(default=(), max_length=12)
    line: Literal["L1", "L2", "L3"] | None = None

    def as_core(self) -> Joint:
        """Return it as the core takes it."""
        return Joint(id=self.id, leads=self.leads, line=self.line)


class LeadsInputs(_Inputs):
    """Which winding it is, where that was read by ohms, and the joints in the box."""

    winding: WindingKind | None = None
    joints: tuple[JointInput, ...] = Field(default=(), max_length=12)


class SizeInputs(_Inputs):
    """What decides the sizes besides plate and supply."""

    edition: Edition | None = None
    school: School | None = None
    conductor_material: Literal["cu", "al"] | None = None
    insulation: Insulation | None = None
    termination_c: Literal[60, 75] | None = None
    ambient_c: DecimalText | None = None
    current_carrying: int | None = Field(default=None, ge=1, le=100)
    protection_kind: DeviceKind | None = None
    parallel_sets: int = Field(default=1, ge=1, le=12)
    between_rows: Literal["ask", "next_row_up"] = "ask"


ShortText = Annotated[Text, StringConstraints(max_length=120)]


class EditInput(_Inputs):
    """One change of the drawn circuit: what, by whom, when and why."""

    id: ShortText = Field(min_length=1)
    kind: EditKind
    wire: Text = ""
    start: ShortText = ""
    end: ShortText = ""
    device: ShortText = ""
    type: ShortText = ""
    parameters: dict[ShortText, ShortText] = Field(default={}, max_length=24)
    tag: ShortText = ""
    by: ShortText = ""
    at: ShortText = ""
    why: Text = ""

    def as_core(self) -> Edit:
        """Return it as the core takes it."""
        return Edit(**self.model_dump())


class StarterInputs(_Inputs):
    """Which starter, with which options, and what was changed on its drawing.

    ``frozen`` holds the wire numbers of the last issue for wiring, by terminal:
    later changes add numbers and never renumber.
    """

    recipe: ShortText = ""
    options: dict[ShortText, ShortText] = Field(default={}, max_length=40)
    naming: Literal["iec", "nema"] | None = None
    symbols: Literal["nema", "iec"] | None = None
    edits: tuple[EditInput, ...] = Field(default=(), max_length=500)
    frozen: dict[ShortText, ShortText] = Field(default={}, max_length=4000)
