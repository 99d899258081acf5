"""A panel as it is sent: what there is to do, what was done, how it stands."""

from __future__ import annotations

import uuid
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from api.schemas import Schema
from evencoil.acts import (
    MAY_SHUT_HANDS,
    MAY_SHUT_POWER,
    Log,
    PanelState,
    Source,
    Work,
    figure,
    landings,
    open_trips,
    sources,
    state_of,
    tells,
    torque_is_done,
)
from evencoil.base import Message, Text, say
from evencoil.checks import said_insulation
from panel.models import Act, PanelRevision
from panel.names import open_said
from panel.readings_in import BadReadingOut
from panel.staged import PanelStageOut, stages_out
from people.access import Caller

__all__ = [
    "PanelActIn",
    "PanelActsIn",
    "PanelAnswersOut",
    "PanelOnlineIn",
    "PanelOut",
    "PanelSignIn",
    "PanelStripOut",
    "ReadingsTakenOut",
    "panel_out",
    "said_answer",
    "strip_out",
]

Id = Annotated[Text, StringConstraints(min_length=1, max_length=120)]
Short = Annotated[Text, StringConstraints(max_length=200)]
Value = Short | bool | int | list[Id] | None


class PanelActIn(Schema):
    """One entry as a device made it; who did it is known from the session."""

    uid: uuid.UUID
    kind: Annotated[Text, StringConstraints(min_length=1, max_length=32)]
    device: Annotated[Text, StringConstraints(min_length=1, max_length=64)]
    rev: int = Field(ge=1, le=100000)
    about: dict[Id, Id | list[Id]] = Field(default_factory=dict, max_length=8)
    body: dict[Id, Value] = Field(default_factory=dict, max_length=20)
    based_on: list[uuid.UUID] = Field(default_factory=list, max_length=400)
    observed_at: Annotated[Text, StringConstraints(max_length=40)] = ""
    clock_off_s: float = Field(default=0.0, ge=-1e9, le=1e9, allow_inf_nan=False)


class PanelOnlineIn(PanelActIn):
    """One entry that is made over the network only."""

    kind: Literal["foreign_lock_removed", "sent_back"]


class PanelSignIn(Schema):
    """A signature: over what was seen, with what was judged and accepted by name."""

    uid: uuid.UUID
    device: Annotated[Text, StringConstraints(min_length=1, max_length=64)]
    rev: int = Field(ge=1, le=100000)
    based_on: list[uuid.UUID] = Field(default_factory=list, max_length=400)
    license: Annotated[Text, StringConstraints(max_length=60)] = ""
    accepts: list[Id] = Field(default_factory=list, max_length=400)
    observed_at: Annotated[Text, StringConstraints(max_length=40)] = ""


class PanelActsIn(Schema):
    """What a device sends, in the order it was made."""

    acts: list[PanelActIn] = Field(max_length=200)


class PanelEntryOut(Schema):
    """An entry that was received."""

    id: str
    kind: str
    by: str
    name: str
    rev: int
    about: dict[str, Any]
    body: dict[str, Any]
    observed_at: str
    received_at: str
    answer: str
    said: str


class PanelSourceOut(Schema):
    """A source by name, and what stays live when it is isolated."""

    id: str
    said: str
    isolator: str
    isolator_said: str
    stays_live: list[str]
    can_pull_in: list[str]
    wait_s: float


class PanelPointOut(Schema):
    """Where a source is proven dead."""

    id: str
    source: str
    one: str
    other: str


class PanelWireOut(Schema):
    """A wire to land."""

    id: str
    number: str
    start: str
    end: str
    start_said: str
    end_said: str
    color: str
    size: str
    way: str
    net: str
    does: str
    state: str
    needs_torque: bool
    is_torqued: bool
    needs_second: bool
    landed_by: list[str]


class PanelCoilOut(Schema):
    """A coil that can be read on the bench; empty while it was not."""

    id: str
    said: str
    ohms: str


class PanelDeviceOut(Schema):
    """What can trip or is set: its trips, and whether the last is answered."""

    id: str
    said: str
    can_trip: bool
    has_setting: bool
    resets_itself: bool
    trips: int
    is_tripped: bool
    seen: str


class PanelSwapOut(Schema):
    """Which two conductors change places if it turns the wrong way."""

    said: str
    wires: list[str]


class PanelRowOut(Schema):
    """An ohm reading to take, and how it stands."""

    id: str
    start_said: str
    end_said: str
    held: list[str]
    expects: str
    wires: list[str]
    state: str


class PanelItemOut(Schema):
    """A reading of a motor: ground of its frame, insulation of its windings.

    ``off`` is what has to be disconnected first, ``told`` what the last reading says.
    """

    id: str
    kind: str
    said: str
    unit: str
    tester_v: str
    asks: str
    off: list[str]
    state: str
    told: list[str]


class PanelStripOut(Schema):
    """What every screen of a job says while a lock is on; empty while none is."""

    state: str
    locks: list[str]


class PanelLockOut(Schema):
    """A lock: whose, on what, and how it stands."""

    id: str
    by: str
    name: str
    isolator: str
    lock_no: str
    state: str
    place: str
    box: str
    key_in: str


class PanelBandOut(Schema):
    """Least reading between two temperatures, the upper one left out [°C]."""

    from_c: int
    to_c: int
    least: str


class PanelExpectedOut(Schema):
    """What a reading should be: the browser compares, and knows no rule."""

    id: str
    kind: str
    unit: str
    min: str | None
    max: str | None
    bands: list[PanelBandOut] = Field(default_factory=list)


class PanelOut(Schema):
    """How a panel stands, and everything that is needed to go on without network."""

    me: str
    role: str
    rev: int
    state: str
    hands: list[str]
    hands_said: list[str]
    open: list[str]
    open_said: list[str]
    signature: str
    signed_by: str
    signed_at: str
    signed_issue: int
    after_signing: list[str]
    may_open: str | None
    blocked: list[str]
    is_fit: bool
    told: list[str]
    notice: str
    sources: list[PanelSourceOut]
    points: list[PanelPointOut]
    locks: list[PanelLockOut]
    wires: list[PanelWireOut]
    rows: list[PanelRowOut]
    items: list[PanelItemOut]
    stages: list[PanelStageOut]
    coils: list[PanelCoilOut]
    devices: list[PanelDeviceOut]
    starts: list[str]
    swap: PanelSwapOut | None
    roll: PanelSwapOut | None
    shuts_hands: list[str]
    shuts_power: list[str]
    people: dict[str, str]
    asides: list[str]
    line_side: list[str]
    expected: list[PanelExpectedOut]
    entries: list[PanelEntryOut]
    heads: list[str]


class PanelAnswerOut(Schema):
    """The answer to one entry, and what it means."""

    uid: str
    answer: str
    said: str


class PanelAnswersOut(Schema):
    """The answers, and how the panel stands after them."""

    answers: list[PanelAnswerOut]
    panel: PanelOut


class ReadingsTakenOut(Schema):
    """How many readings of a table were kept, and which lines were not taken."""

    kept: int
    bad: list[BadReadingOut]
    panel: PanelOut


def said_answer(answer: str, body: dict[str, Any]) -> str:
    """Return an answer in words."""
    name, _, rest = answer.partition(":")
    reason, _, what = rest.partition(":")
    code = f"acts.answer.{name}:{reason}" if reason else f"acts.answer.{name}"
    params = {
        "value": str(body.get("value", "this")),
        "what": say(Message(f"acts.blocked.{what}")) if what else "something",
    }
    return say(Message(code, params))


def _locks(log: Log, state: PanelState, names: dict[str, str]) -> list[PanelLockOut]:
    return [
        PanelLockOut(
            id=one.id,
            by=one.by,
            name=names.get(one.by, one.by),
            isolator=str(one.about.get("isolator", "")),
            lock_no=str(one.body.get("lock_no", "")),
            state=state.locks[one.id],
            place=str(one.body.get("place", "isolator")),
            box=str(one.body.get("box", "") or ""),
            key_in=str(one.body.get("key_in", "") or ""),
        )
        for one in log.now().of("lock_on")
    ]


def _expected(revision: PanelRevision, work: Work) -> list[PanelExpectedOut]:
    return [
        *(
            PanelExpectedOut(
                id=point["id"],
                kind="dead_point",
                unit="V",
                min="0",
                max=work.rules.dead_limit_v,
            )
            for point in revision.body["points"]
        ),
        *(
            PanelExpectedOut(id=name, kind="dead_reading", unit="ohm", min=row.least, max=row.most)
            for name, row in work.rows.items()
        ),
        *(
            PanelExpectedOut(
                id=item["id"],
                kind=item["kind"],
                unit=item["unit"],
                min=work.expect[item["id"]].get("min"),
                max=work.expect[item["id"]].get("max"),
                bands=[
                    PanelBandOut(from_c=low, to_c=high, least=least)
                    for low, high, least in work.expect[item["id"]].get("bands", [])
                ],
            )
            for item in revision.body["items"]
            if item["id"] in work.expect
        ),
    ]


def strip_out(log: Log, rows: list[Act]) -> PanelStripOut:
    """Return whose locks are on, and how the panel stands."""
    state = state_of(log)
    names = {row.by.username: str(row.by) for row in rows}
    on = [one for one in _locks(log, state, names) if one.state != "off"]
    return PanelStripOut(
        state=state.state if on else "",
        locks=[f"{one.name} {one.lock_no}".strip() for one in on],
    )


def _signature(caller: Caller, log: Log, rows: list[Act], state: PanelState) -> dict[str, Any]:
    """Return the last signature and what came after it."""
    signed = [row for row in rows if row.kind == "signed" and row.answer == "kept"]
    if not signed:
        return {
            "signature": state.signature,
            "signed_by": "",
            "signed_at": "",
            "signed_issue": 0,
            "after_signing": [],
        }
    last = signed[-1]
    seen = log.entry(str(last.uid))
    after = [
        row
        for row in rows
        if row.uid != last.uid
        and row.answer.startswith(("kept", "superseded"))
        and not log.saw(seen, log.entry(str(row.uid)))
    ]
    return {
        "signature": state.signature,
        "signed_by": str(last.by),
        "signed_at": caller.works.local(last.received_at),
        "signed_issue": int(last.body.get("issue", 0)),
        "after_signing": [f"{row.kind.replace('_', ' ')}, {row.by}" for row in after],
    }


def _wire(told: dict[str, Any], log: Log, state: PanelState) -> PanelWireOut:
    rules, name = log.work.rules, told["id"]
    landed, _ = landings(log.now(), name)
    return PanelWireOut(
        **{"net": "", "does": "", **told},
        state=state.wires.get(name, "not_done"),
        needs_torque=name in rules.torque,
        is_torqued=torque_is_done(log.now(), name),
        needs_second=name in rules.two_person,
        landed_by=list(dict.fromkeys(one.by for one in landed)),
    )


def _devices(revision: PanelRevision, log: Log) -> list[PanelDeviceOut]:
    view = log.now()
    waiting = {str(one.about["device"]) for one in open_trips(view)}
    found = []
    for told in revision.body.get("devices", []):
        of = [
            one
            for one in view.of("trip", "heater_seen", "setting_seen")
            if one.about["device"] == told["id"] and not view.is_corrected(one)
        ]
        seen = [one for one in of if one.kind != "trip"]
        found.append(
            PanelDeviceOut(
                **told,
                trips=len(of) - len(seen),
                is_tripped=told["id"] in waiting,
                seen=str(seen[-1].body.get("code") or seen[-1].body.get("value", ""))
                if seen
                else "",
            )
        )
    return found


def _swap(revision: PanelRevision, name: str) -> PanelSwapOut | None:
    told = revision.body.get(name)
    return None if told is None else PanelSwapOut(said=told["said"], wires=told["wires"])


_ROW = ("id", "start_said", "end_said", "held", "expects", "wires")


def _listed(log: Log) -> list[tuple[str, Source]]:
    """Return the sources that were found at the panel and are in no netlist."""
    known = sources(log.now())
    return [(name, one) for name, one in known.items() if name not in log.work.sources]


def _items(revision: PanelRevision, log: Log, state: PanelState) -> list[PanelItemOut]:
    known = {one["id"]: one for one in revision.body["items"]}
    missing = {"kind": "", "unit": "", "tester_v": "", "asks": "", "off": []}
    return [
        PanelItemOut(
            **known.get(name)
            or {**missing, "id": name, "said": say(Message(f"panel.item.{name}"))},
            state=how,
            told=_told(log, name),
        )
        for name, how in state.items.items()
    ]


def _told(log: Log, item: str) -> list[str]:
    """Return what the last insulation reading of an item says."""
    view = log.now()
    found = [
        one
        for one in view.of("insulation_reading")
        if one.about["group"] == item and not view.is_corrected(one) and "temp_c" in one.body
    ]
    if not found:
        return []
    body = found[-1].body
    ten = figure(body["ten"]) if body.get("ten") else None
    said = said_insulation(figure(body["value"]), figure(body["temp_c"]), ten)
    return [say(one) for one in said]


def panel_out(
    caller: Caller, revision: PanelRevision, log: Log, rows: list[Act], notice: str
) -> PanelOut:
    """Return how a panel stands, for one person."""
    state = state_of(log)
    names = {row.by.username: str(row.by) for row in rows}
    me = caller.user.username
    return PanelOut(
        me=me,
        role=caller.role,
        rev=revision.n,
        state=state.state,
        hands=list(state.hands),
        hands_said=[names.get(one, one) for one in state.hands],
        open=list(state.open),
        open_said=[open_said(revision, log, one, names) for one in state.open],
        **_signature(caller, log, rows, state),
        may_open=state.may_open,
        blocked=[say(Message(f"acts.blocked.{one}")) for one in state.blocked],
        is_fit=state.is_fit,
        notice=notice,
        told=[say(Message(code)) for who, code in sorted(tells(log)) if who == me],
        sources=[
            *(PanelSourceOut(**one) for one in revision.body["sources"]),
            *(
                PanelSourceOut(
                    id=name,
                    said=name,
                    isolator=one.isolator,
                    isolator_said=one.isolator,
                    stays_live=[],
                    can_pull_in=[],
                    wait_s=one.wait_s,
                )
                for name, one in _listed(log)
            ),
        ],
        points=[
            *(PanelPointOut(**one) for one in revision.body["points"]),
            *(
                PanelPointOut(
                    id=point,
                    source=name,
                    one=say(Message("panel.point_of", {"source": name})),
                    other=say(Message("panel.point_other")),
                )
                for name, one in _listed(log)
                for point in one.points
            ),
        ],
        locks=_locks(log, state, names),
        wires=[_wire(one, log, state) for one in revision.body["wires"]],
        rows=[
            PanelRowOut(
                **{key: one[key] for key in _ROW},
                state=state.rows.get(one["id"], "not_read"),
            )
            for one in revision.body["rows"]
        ],
        items=_items(revision, log, state),
        stages=stages_out(revision, log, state, names),
        coils=[PanelCoilOut(**one) for one in revision.body.get("coils", [])],
        devices=_devices(revision, log),
        starts=revision.body.get("starts", []),
        swap=_swap(revision, "swap"),
        roll=_swap(revision, "roll"),
        shuts_hands=list(MAY_SHUT_HANDS),
        shuts_power=list(MAY_SHUT_POWER),
        people=names,
        asides=revision.body["asides"],
        line_side=revision.body["line_side"],
        expected=_expected(revision, log.work),
        entries=[
            PanelEntryOut(
                id=str(row.uid),
                kind=row.kind,
                by=row.by.username,
                name=str(row.by),
                rev=row.rev,
                about=row.about,
                body=row.body,
                observed_at=row.observed_at,
                received_at=row.received_at.isoformat(),
                answer=row.answer,
                said=said_answer(row.answer, row.body),
            )
            for row in rows
        ],
        heads=log.heads(),
    )
