"""Answers as JSON text, made where they are calculated."""

from __future__ import annotations

import json
from typing import Any

from pydantic import BaseModel

__all__ = ["JSON", "as_json"]

#: content type of an answer
JSON = "application/json; charset=utf-8"


def as_json(value: BaseModel | list[Any]) -> bytes:
    """Return an answer as JSON; one that holds NaN or an infinity is a fault."""
    said: Any = (
        [one.model_dump(mode="json", by_alias=True) for one in value]
        if isinstance(value, list)
        else value.model_dump(mode="json", by_alias=True)
    )
    return json.dumps(said, ensure_ascii=False, allow_nan=False).encode()
