"""Choosing a starter, and naming one that was there: the catalogue beside this motor."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router
from pydantic import StringConstraints

from answers.given import GivenIn, worked
from answers.schemas.base import Answer, Sentence
from api.schemas import REFUSALS, Schema
from evencoil.base import HugeText, Message, OutOfRangeError, Text, in_trade_terms, say
from evencoil.circuit import Near, nearest, read_netlist, read_trace
from evencoil.job import Choice, choices
from evencoil.starters import catalogue
from people.access import caller_in

__all__ = ["router"]

router = Router(tags=["choosing"])
MOST_EDITS = 500


class ChoiceHazardOut(Answer):
    """What a circuit does that no one asks for."""

    code: str
    label: str


class ChoiceOut(Answer):
    """One starter beside the others, with the one reason."""

    id: str
    line_percent: float | None
    torque_percent: float | None
    line_a: str
    leads: list[int]
    verdict: str
    reason: Sentence
    hazards: list[ChoiceHazardOut]


class NearOut(Answer):
    """A circuit of the catalogue, and each difference of the traced one."""

    id: str
    title: str
    score: int
    fits: int
    against: list[Sentence]
    lacking: list[Sentence]


class NetlistIn(Schema):
    """A netlist as text."""

    text: Annotated[HugeText, StringConstraints(min_length=1)]


class TraceIn(Schema):
    """One line of tracing, on the drawing as the screen holds it."""

    given: GivenIn
    line: Annotated[Text, StringConstraints(min_length=1, max_length=200)]


class TracedWireOut(Answer):
    """A wire that a line calls out."""

    start: str
    end: str
    number: str


class TracedOut(Answer):
    """A device or a wire of a netlist file, as an edit of an empty panel."""

    id: str
    kind: str
    start: str = ""
    end: str = ""
    device: str = ""
    type: str = ""
    tag: str = ""
    parameters: dict[str, str] = {}

    @classmethod
    def of(cls, id_: str, kind: str, **given: Any) -> TracedOut:
        """Return an edit of a kind."""
        return cls(id=id_, kind=kind, **given)


def _choice(one: Choice) -> ChoiceOut:
    return ChoiceOut(
        id=one.id,
        line_percent=None if one.line_percent is None else round(float(one.line_percent), 1),
        torque_percent=(
            None if one.torque_percent is None else round(float(one.torque_percent), 1)
        ),
        line_a="" if one.line_a is None else f"{one.line_a:.0f}",
        leads=one.leads,
        verdict=one.verdict,
        reason=one.reason,
        hazards=[
            ChoiceHazardOut(code=name, label=say(Message(f"restart.{name}")))
            for name in one.hazards
        ],
    )


@router.post("/w/{works}/choose", response={200: list[ChoiceOut], **REFUSALS})
def choose(request: HttpRequest, works: str, body: GivenIn) -> list[ChoiceOut]:
    """Lay every starter of the catalogue beside this motor and this load."""
    done = worked(body, caller_in(request, works).works)
    return [_choice(one) for one in choices(done, body.starter.load)]


def _near(one: Near) -> NearOut:
    return NearOut(
        id=one.id,
        title=in_trade_terms(catalogue()[one.id].title),
        score=one.score,
        fits=one.fits,
        against=one.against,
        lacking=one.lacking,
    )


@router.post("/w/{works}/nearest", response={200: list[NearOut], **REFUSALS})
def name_it(request: HttpRequest, works: str, body: GivenIn) -> list[NearOut]:
    """Name the circuits that the drawn one is nearest to, with each difference."""
    starter = worked(body, caller_in(request, works).works).starter
    if starter.circuit is None:
        return []
    known = {name: entry.circuit for name, entry in catalogue().items()}
    return [_near(one) for one in nearest(starter.circuit, known)]


@router.post("/w/{works}/trace", response={200: list[TracedWireOut], **REFUSALS})
def trace(request: HttpRequest, works: str, body: TraceIn) -> list[TracedWireOut]:
    """Read one line of tracing; nothing is kept."""
    starter = worked(body.given, caller_in(request, works).works).starter
    return [
        TracedWireOut(start=one.start, end=one.end, number=one.number)
        for one in read_trace(starter.required(), body.line)
    ]


@router.post("/w/{works}/netlist", response={200: list[TracedOut], **REFUSALS})
def netlist(request: HttpRequest, works: str, body: NetlistIn) -> list[TracedOut]:
    """Read a netlist file; return it as edits of an empty panel, or the line that is wrong."""
    caller_in(request, works)
    read = read_netlist(body.text)
    # the empty panel has one supply and one motor of its own: these give way
    own = [item.id for item in read.netlist.devices if item.id in {"supply", "motor"}]
    found = [TracedOut.of(f"remove.{name}", "remove_device", device=name) for name in own]
    found += [
        TracedOut.of(
            item.id,
            "add_device",
            type=item.type,
            tag=read.tags.get(item.id, item.id),
            parameters=dict(item.parameters),
        )
        for item in read.netlist.devices
    ]
    found += [
        TracedOut.of(
            wire.id,
            "add_wire",
            start=wire.start,
            end=wire.end,
            tag=read.numbers.get(wire.id, ""),
        )
        for wire in read.netlist.wires
    ]
    if len(found) > MOST_EDITS:
        raise OutOfRangeError(
            Message("netlist.too_many_edits", {"count": str(len(found)), "most": str(MOST_EDITS)}),
            field="text",
            hint=Message("netlist.too_many.hint"),
        )
    return found
