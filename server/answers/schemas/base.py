"""What every answer is made of: models read straight from core objects, sentences said once."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict

from evencoil.base import CoreError, Message, Refusal, plain, say

__all__ = ["Answer", "Label", "OneDecimal", "Plain", "RefusalOut", "Refused", "Sentence", "label"]


class Answer(BaseModel):
    """An answer whose fields are those of a core object, by name or by validation alias."""

    model_config = ConfigDict(from_attributes=True, populate_by_name=True)


def _said(value: Any) -> Any:
    """Return the sentence of a message, or of what carries one; empty for None."""
    if value is None:
        return ""
    message = getattr(value, "message", value)
    return say(message) if isinstance(message, Message) else str(value)


def label(field: str) -> str:
    """Return what a field is called."""
    return say(Message(f"label.{field}")) if field else ""


def _plain(value: Any) -> Any:
    if value is None:
        return ""
    return plain(value) if isinstance(value, Decimal) else value


#: the one place where a core message becomes text
Sentence = Annotated[str, BeforeValidator(_said)]
#: a field's name as people read it
Label = Annotated[str, BeforeValidator(label)]
#: a decimal without exponent and trailing zeros; empty for None
Plain = Annotated[str, BeforeValidator(_plain)]
OneDecimal = Annotated[float, BeforeValidator(lambda value: round(float(value), 1))]


class RefusalOut(Answer):
    """Why a figure is withheld."""

    code: str
    detail: str
    field: str
    hint: str


def _refused(value: Any) -> Any:
    return Refusal.of(value) if isinstance(value, CoreError) else value


#: a refusal, or the core error that tells it, or nothing
Refused = Annotated[RefusalOut | None, BeforeValidator(_refused)]
