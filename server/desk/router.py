"""How far a question is that was asked and not answered yet."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Path, Router
from pydantic import Field

from api.schemas import REFUSALS, Schema
from desk.answer import NAME, progress
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["questions"])


class ProgressOut(Schema):
    """Waiting with how many ahead, or running and how far of how much; 0 where that is unknown."""

    state: str
    done: int
    of: int


Name = Annotated[str, Path(...), Field(pattern=f"^{NAME.pattern}$")]


@router.get("/w/{works}/questions/{name}", response={200: ProgressOut, **REFUSALS})
def how_far(request: HttpRequest, works: str, name: Name) -> dict[str, Any]:
    """Return how far a question of this person is, by the name it was asked under."""
    return progress(caller_in(request, works), name)
