"""A fault hidden in a circuit by chance or by a colleague: read until someone is accused."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field as Limit

from answers.schemas.base import Answer as Out
from api.answers import as_json
from api.schemas import HEAVY, Schema
from desk.answer import Tell, answer
from drills.actions import HideFault
from drills.models import HiddenFault
from evencoil.practice import hidden_hunt, hideable
from evencoil.starters import catalogue
from evencoil.trouble import said_fault, symptoms
from people.access import caller_in, not_found

__all__ = ["router"]

router = Router(tags=["practice"])
Seed = Annotated[int, Limit(ge=0, lt=2**31)]
Circuit = Annotated[str, Limit(max_length=20)]


class HiddenReadingOut(Out):
    """A reading that can be taken, and what it costs."""

    id: str
    said: str
    minutes: float


class HiddenOut(Out):
    """A hidden fault: what people say, what was read, what can be read."""

    seed: int
    circuit: str
    symptom: str
    wording: str
    minutes: float
    taken: list[list[str]]
    readings: list[HiddenReadingOut]
    suspects: list[list[str]]
    is_found: bool | None
    truth: str


class HiddenIn(Schema):
    """Readings taken so far, and whom is accused."""

    seed: Seed
    #: of the catalogue; by chance if empty
    circuit: Circuit = ""
    #: the fault that a colleague hid; by chance if None
    hidden: int | None = None
    taken: Annotated[list[Annotated[str, Limit(max_length=300)]], Limit(max_length=80)] = []
    accused: Annotated[str, Limit(max_length=300)] = ""


class HideableOut(Out):
    """The faults of a circuit that can be hidden, by id and words."""

    circuit: str
    faults: list[list[str]]


class HideIn(Schema):
    """A fault to hide for colleagues."""

    circuit: Circuit
    fault: Annotated[str, Limit(max_length=300)]


class HiddenMadeOut(Out):
    """That it is hidden."""

    id: int
    circuit: str


def _hidden(body: HiddenIn, circuit: str, fault: str, tell: Tell) -> bytes:
    """Return a hidden fault as far as it was read."""
    del tell
    hunt = hidden_hunt(body.seed, circuit, fault)
    symptom = symptoms()[hunt.symptom]
    is_found = hunt.is_found(body.accused) if body.accused else None
    out = HiddenOut(
        seed=body.seed,
        circuit=hunt.circuit,
        symptom=symptom.name,
        wording=symptom.wording,
        minutes=round(hunt.minutes(body.taken), 1),
        taken=[[one, hunt.said(one), hunt.shows(one)] for one in body.taken],
        readings=[
            HiddenReadingOut(id=one.id, said=hunt.said(one.id), minutes=round(one.minutes, 1))
            for one in hunt.field.readings
            if one.id not in body.taken
        ],
        suspects=[
            [one.id, said_fault(one)]
            for one, shows in zip(hunt.field.faults, hunt.field.shows, strict=True)
            if hunt.symptom in shows and one.also is None
        ],
        is_found=is_found,
        truth=said_fault(hunt.truth) if body.accused else "",
    )
    return as_json(out)


@router.post("/w/{works}/practice/hidden", response={200: HiddenOut, **HEAVY})
def hidden(request: HttpRequest, works: str, body: HiddenIn) -> HttpResponse:
    """Return a hidden fault: what the panel shows to each reading taken, and who it was."""
    caller = caller_in(request, works)
    circuit, fault = body.circuit, ""
    if body.hidden is not None:
        row = HiddenFault.objects.filter(works=caller.works, pk=body.hidden).first()
        if row is None:
            raise not_found("hidden fault")
        circuit, fault = row.circuit, row.fault
    return answer(request, caller, _hidden, body, circuit, fault)


def _hideable(circuit: str, tell: Tell) -> bytes:
    """Return what can be hidden in a circuit."""
    del tell
    faults = [[one.id, said_fault(one)] for one in hideable(circuit)]
    return as_json(HideableOut(circuit=circuit, faults=faults))


@router.get("/w/{works}/practice/hideable", response={200: HideableOut, **HEAVY})
def to_hide(request: HttpRequest, works: str, circuit: Circuit = "3A") -> HttpResponse:
    """Return the faults of a circuit of the catalogue that can be hidden in it."""
    caller = caller_in(request, works)
    if circuit not in catalogue():
        raise not_found("circuit")
    return answer(request, caller, _hideable, circuit)


def _checked(body: HideIn, tell: Tell) -> bytes:
    """Refuse what cannot be hidden, where the circuit is laid out already."""
    del tell
    hidden_hunt(0, body.circuit, body.fault)
    return b"{}"


@router.post("/w/{works}/practice/hide", response={200: HiddenMadeOut, **HEAVY})
def hide(request: HttpRequest, works: str, body: HideIn) -> HttpResponse:
    """Hide a fault in a circuit for the people of this works."""
    caller = caller_in(request, works)
    checked = answer(request, caller, _checked, body)
    if checked.status_code != 200:
        return checked
    row = HideFault(caller, body.circuit, body.fault).run()
    return HttpResponse(
        as_json(HiddenMadeOut(id=row.pk, circuit=row.circuit)), content_type="application/json"
    )
