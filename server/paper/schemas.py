"""Issues as the screens get them."""

from __future__ import annotations

from api.schemas import Schema

__all__ = ["DifferenceOut", "IssueIn", "IssueOut", "IssuedOut"]


class IssueIn(Schema):
    """Whether the pack is also an issue for wiring, which freezes wire numbers."""

    is_for_wiring: bool = False


class IssueOut(Schema):
    """One issue: when, by whom, with which core, its seal."""

    n: int
    kind: str
    by: str
    at: str
    core_version: str
    fingerprint: str
    sha256: str


class DifferenceOut(Schema):
    """Something that is not as it was issued."""

    what: str
    issued: str
    today: str


class IssuedOut(IssueOut):
    """An issue beside what is computed today."""

    inputs_changed: bool
    core_changed: bool
    tables_changed: list[str]
    differences: list[DifferenceOut]
