"""Checks of the drawn circuit: what is wrong with it, and what each isolator leaves live."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Sentence
from api.answers import as_json
from api.schemas import HEAVY
from desk.answer import Tell, answer
from evencoil.base import Message, say
from evencoil.checks import Isolation, Problem, isolations_of
from evencoil.circuit import Circuit, Numbered
from people.access import caller_in
from people.models import Works

__all__ = ["router"]

router = Router(tags=["checks"])
_NAMED = 8


class FixOut(Answer):
    """One edit of a proposed change."""

    id: str
    kind: str
    wire: str
    start: str
    end: str
    device: str
    parameters: dict[str, str]


class CheckOut(Answer):
    """A finding: its rule, cause and place, what to change, and what to light."""

    rule: str
    level: str
    level_label: str
    text: Sentence
    change: Sentence
    devices: list[str]
    nets: list[str]
    edits: list[FixOut]
    played: bool


class IsolationOut(Answer):
    """What one isolator leaves live when it is open."""

    device: str
    tag: str
    clean: bool
    lines: list[str]


class ChecksOut(Answer):
    """Everything that the checks say of a circuit."""

    found: list[CheckOut]
    isolations: list[IsolationOut]


def _check(one: Problem, numbered: Numbered) -> CheckOut:
    return CheckOut(
        rule=one.rule,
        level=one.level,
        level_label=say(Message(f"checks.level.{one.level}")),
        text=one.message,
        change=one.change,
        devices=one.devices,
        nets=numbered.ids_at(one.terminals),
        edits=one.edits,
        played=one.is_played,
    )


def _isolation(circuit: Circuit, one: Isolation) -> IsolationOut:
    tag = circuit.tags.get(one.device, one.device)

    def listed(names: tuple[str, ...]) -> str:
        said = [
            circuit.said(name) if "." in name else circuit.tags.get(name, name) for name in names
        ]
        more = f" and {len(said) - _NAMED} more" if len(said) > _NAMED else ""
        return ", ".join(said[:_NAMED]) + more

    lines = []
    for name, places in (
        ("live", one.live),
        ("control", one.control),
        ("coils", one.coils),
        ("motors", one.motors),
    ):
        if places:
            params = {"tag": tag, "count": str(len(places)), "places": listed(places)}
            lines.append(say(Message(f"isolation.{name}", params)))
    if not lines:
        lines = [say(Message("isolation.none", {"tag": tag}))]
    return IsolationOut(device=one.device, tag=tag, clean=not one.live, lines=lines)


def checked(given: GivenIn, works: Works, tell: Tell) -> bytes:
    """Return what the checks say of the starter of what is given."""
    del tell
    starter = worked(given, works).starter
    circuit, numbered = starter.circuit, starter.numbered
    if circuit is None or numbered is None:
        return as_json(ChecksOut(found=[], isolations=[]))
    return as_json(
        ChecksOut(
            found=[_check(one, numbered) for one in starter.problems()],
            isolations=[_isolation(circuit, one) for one in isolations_of(circuit)],
        )
    )


@router.post("/w/{works}/checks", response={200: ChecksOut, **HEAVY})
def checks(request: HttpRequest, works: str, body: GivenIn) -> HttpResponse:
    """Check the starter of what is given; nothing is saved."""
    caller = caller_in(request, works)
    return answer(request, caller, checked, body, caller.works, decided_by=body)
