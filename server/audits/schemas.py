"""What an audit of a plant answers."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field as Limit

from answers.schemas.base import Answer as Out
from answers.schemas.base import Sentence
from api.schemas import Schema
from evencoil.base import ShortText

__all__ = [
    "AuditCountOut",
    "AuditHeadOut",
    "AuditLineOut",
    "AuditLinesIn",
    "AuditLinesOut",
    "AuditNeedOut",
    "AuditOut",
    "AuditPlaceOut",
    "AuditTopicOut",
    "AuditUnreadOut",
]


class AuditHeadOut(Out):
    """An audit in the list; ``supposed`` says what was supposed."""

    n: int
    by: str
    at: str
    state: str
    done: int
    total: int
    supposed: list[Sentence]
    is_kept: bool


class AuditCountOut(Out):
    """Jobs in one state."""

    state: str
    said: str
    jobs: int


class AuditTopicOut(Out):
    """A topic with the jobs in each of its states."""

    topic: str
    said: str
    counts: list[AuditCountOut]


class AuditPlaceOut(Out):
    """A machine or panel; of ``open`` motors something is not known, whatever else is."""

    name: str
    total: int
    fails: int
    doubt: int
    open: int


class AuditNeedOut(Out):
    """An unknown fact, by what it costs."""

    fact: str
    said: str
    step: str
    jobs: int
    withheld: int
    assumed: int


class AuditUnreadOut(Out):
    """A motor whose job could not be calculated, and why."""

    tag: str
    job: int
    reason: str


class AuditOut(AuditHeadOut):
    """An audit with everything it counts; ``before`` is the one that it is compared with."""

    headline: Sentence
    counts: list[AuditCountOut]
    topics: list[AuditTopicOut]
    machines: list[AuditPlaceOut]
    panels: list[AuditPlaceOut]
    needs: list[AuditNeedOut]
    unread: list[AuditUnreadOut]
    left: list[Sentence]
    before: int | None
    new: int
    gone: int
    moved: int


class AuditLinesIn(Schema):
    """Which lines: of a topic, a state, a machine, a panel; or only what changed."""

    page: Annotated[int, Limit(ge=1, le=100_000)] = 1
    topic: Annotated[str, Limit(pattern="^[a-z]{0,16}$")] = ""
    state: Annotated[str, Limit(max_length=16)] = ""
    machine: ShortText = ""
    panel: ShortText = ""
    fact: Annotated[str, Limit(max_length=60)] = ""
    change: Literal["", "any", "new", "gone", "moved"] = ""


class AuditLineOut(Out):
    """One thing that does not simply hold, and the job that it opens."""

    id: int
    tag: str
    job: int
    machine: str
    panel: str
    topic: str
    topic_said: str
    state: str
    state_said: str
    #: in the audit before, or as things are; None where nothing is known of it
    was_said: str | None
    said: str
    do: str
    guesses: list[str]
    rule: str
    step: str


class AuditLinesOut(Out):
    """A page of lines, the worst first; ``found`` lines in ``jobs`` jobs."""

    lines: list[AuditLineOut]
    found: int
    jobs: int
    page: int
    pages: int
