"""The problem shape as a schema, used by every operation."""

from __future__ import annotations

from typing import Any, Self

import ninja
from ninja.schema import DjangoGetter
from pydantic import ModelWrapValidatorHandler, ValidationInfo, model_validator

__all__ = ["HEAVY", "REFUSALS", "ConflictOut", "ProblemOut", "Schema", "VersionOut"]


class Schema(ninja.Schema):
    """What is sent or answered: an answer that has its shape already is not taken apart again."""

    @model_validator(mode="wrap")
    @classmethod
    def _run_root_validator(
        cls, values: Any, handler: ModelWrapValidatorHandler[Self], info: ValidationInfo
    ) -> Self:
        if isinstance(values, cls):
            return values
        if isinstance(values, dict):
            return handler(values)
        return handler(DjangoGetter(values, cls, info.context))


class ProblemOut(Schema):
    """What is wrong, where, and what to do next."""

    code: str
    detail: str
    field: str
    hint: str


class VersionOut(Schema):
    """A version of what people gave: its number, who, when, and from where if not entered here."""

    n: int
    by: str
    at: str
    source: str = ""


class ConflictOut(ProblemOut):
    """Someone else changed it first: their version, and what they gave."""

    theirs: VersionOut
    body: dict[str, object]


REFUSALS = {401: ProblemOut, 403: ProblemOut, 404: ProblemOut, 422: ProblemOut, 400: ProblemOut}
#: of a question that waits for its turn: too many wait, or its process ended
HEAVY = {**REFUSALS, 429: ProblemOut, 503: ProblemOut}
