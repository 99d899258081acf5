"""One line of the Size sheet: the step that answers it, or why it is withheld."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from evencoil.base.errors import CoreError, MissingError
from evencoil.base.evidence import Step, Trail
from evencoil.base.words import Message

__all__ = ["Figure", "Refusal", "figure", "wait_for"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Refusal:
    """Why a figure is withheld: the one shape of every problem."""

    code: str
    detail: str
    field: str
    hint: str

    @classmethod
    def of(cls, error: CoreError) -> Refusal:
        """Return the refusal that an error tells."""
        return cls(**error.problem())


@dataclass(frozen=True, slots=True, kw_only=True)
class Figure:
    """One line of the Size sheet: the step that answers it, or the refusal."""

    id: str
    step: str | None
    refusal: Refusal | None = None
    group: str = "branch"


def wait_for(trail: Trail, *names: str) -> None:
    """Refuse a figure whose ground is not there yet.

    Parameters
    ----------
    trail : Trail
        The steps made so far.
    names : str
        Steps that it stands on.

    Raises
    ------
    MissingError
        If one of them was not made.
    """
    gone = next((name for name in names if name not in trail), None)
    if gone is not None:
        raise MissingError(
            Message("size.waits_for", {"what": str(Message(f"label.{gone}"))}),
            field=gone,
            hint=Message("size.waits_for.hint"),
        )


def figure(name: str, make: Callable[[], Step], group: str = "branch") -> Figure:
    """Return the figure that a rule makes, or its refusal.

    Parameters
    ----------
    name : str
        Name of the figure.
    make : callable
        Makes the step that answers it.
    group : str
        Part of the Size sheet on which it stands.
    """
    try:
        return Figure(id=name, step=make().id, group=group)
    except CoreError as error:
        return Figure(id=name, step=None, refusal=Refusal.of(error), group=group)
