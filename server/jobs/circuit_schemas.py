"""A drawn circuit and a played rehearsal as the screens get them."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from evencoil.base import Finding, Message, Refusal, say
from evencoil.circuit import TURNED, Circuit, links_of, types
from evencoil.job import StarterRoom
from evencoil.rehearsal import Frame, Trace
from evencoil.solver import PARTS, Motor
from evencoil.starters import CatalogueEntry, OptionSpec, found_entry
from jobs.parts import FindingOut, RefusalOut
from jobs.pictures import PictureOut, picture_out

__all__ = ["CatalogueOut", "CircuitOut", "TraceOut", "catalogue_out", "circuit_out", "trace_out"]


class OptionOut(BaseModel):
    """One option of a recipe: the words it takes, or its least and most."""

    name: str
    label: str
    choices: list[str]
    words: list[str]
    default: str
    least: float
    most: float
    unit: str
    used: str


class RecipeOut(BaseModel):
    """One circuit of the catalogue."""

    id: str
    group: str
    group_label: str
    title: str
    purpose: str
    use: str
    avoid: str
    interlocks: str


class SettingOut(BaseModel):
    """One thing that can be set on a device: a number, a text, contacts or one of some words."""

    name: str
    label: str
    form: str
    default: str
    unit: str


class DeviceTypeOut(BaseModel):
    """A kind of device that can be put into a drawing."""

    type: str
    label: str
    letters: str
    settings: list[SettingOut]


class CatalogueOut(BaseModel):
    """The catalogue, in its order, and the device library."""

    circuits: list[RecipeOut]
    library: list[DeviceTypeOut]


class WireOut(BaseModel):
    """One wire of the wire list."""

    id: str
    number: str
    start: str
    end: str
    start_terminal: str
    end_terminal: str
    way: str
    colour: str
    size: str
    ferrules: list[str]
    is_maker: bool


class RatingOut(BaseModel):
    """One rating of a device, with the step of the Size sheet it stands on."""

    name: str
    value: str
    unit: str
    step: str


class MaterialOut(BaseModel):
    """One line of the bill of material."""

    tag: str
    device: str
    type: str
    type_label: str
    ratings: list[RatingOut]
    contacts: str


class DeviceOut(BaseModel):
    """A device as the hand meets it: its terminals and what can be done to it."""

    id: str
    tag: str
    type: str
    legend: str
    terminals: list[str]
    verbs: list[str]
    positions: list[str]
    links: list[str]


class StaleEditOut(BaseModel):
    """A change that no longer applies."""

    id: str
    kind: str
    reason: str


class ChangeOut(BaseModel):
    """One difference from the circuit as the recipe draws it."""

    what: str
    on: str
    text: str


class RestartOut(BaseModel):
    """What the circuit does unasked; ``accepted`` tells by whom, ``never`` that nobody may."""

    code: str
    label: str
    accepted: bool
    never: bool


class CircuitOut(BaseModel):
    """A starter drawn for a job."""

    entry: RecipeOut | None
    options: list[OptionOut]
    refusal: RefusalOut | None
    findings: list[FindingOut]
    stale: list[StaleEditOut]
    changes: list[ChangeOut]
    hazards: list[RestartOut]
    devices: list[DeviceOut]
    wires: list[WireOut]
    material: list[MaterialOut]
    ladder: PictureOut
    power: PictureOut
    panel: PictureOut
    strip: PictureOut
    rungs: list[PictureOut]
    style: Literal["nema", "iec"]


class MotorFrameOut(BaseModel):
    """A motor at an instant."""

    word: str
    v: float
    n: float
    a: float
    field: str


class FrameOut(BaseModel):
    """The installation at an instant; a light frame moves speeds and heats only."""

    t: int
    words: dict[str, str] | None
    closed: list[str] | None
    nets: dict[str, float] | None
    motors: dict[str, MotorFrameOut]
    heats: dict[str, float]
    snapshot: int | None


class EventOut(BaseModel):
    """Something that happened."""

    n: int
    t: int
    device: str
    tag: str
    what: str
    value: str
    cause: int | None


class HazardOut(BaseModel):
    """A hazard at its instant, with its chain of causes as a sentence."""

    code: str
    name: str
    t: int
    device: str
    tag: str
    sentence: str
    chain: list[str]


class TraceOut(BaseModel):
    """What a rehearsal did, ten seconds ahead, with states to go on from."""

    constants: str
    fingerprint: str
    start: int
    until: int
    never_settles: bool
    frames: list[FrameOut]
    events: list[EventOut]
    hazards: list[HazardOut]
    snapshots: list[str]


def _entry(entry: CatalogueEntry) -> RecipeOut:
    return RecipeOut(
        id=entry.id,
        group=entry.group,
        group_label=say(Message(f"group.{entry.group}")),
        title=entry.title,
        purpose=entry.purpose,
        use=entry.use,
        avoid=entry.avoid,
        interlocks=entry.interlocks,
    )


def catalogue_out(entries: list[CatalogueEntry]) -> CatalogueOut:
    """Return the catalogue and the device library."""
    return CatalogueOut(
        circuits=[_entry(entry) for entry in [*entries, found_entry()]],
        library=[
            DeviceTypeOut(
                type=kind.name,
                label=say(Message(f"type.{kind.name}")),
                letters=kind.letter_iec,
                settings=[
                    SettingOut(
                        name=one.name,
                        label=say(Message(f"setting.{one.name}")),
                        form=one.form,
                        default=one.default,
                        unit=one.unit,
                    )
                    for one in kind.parameters
                ],
            )
            for kind in types().values()
            if kind.name not in {"supply", "unknown_end"}
        ],
    )


def _word(name: str, word: str) -> str:
    """Return a choice as it is read: figures and lines say themselves."""
    if word[:1].isdigit() or word.startswith("L"):
        return word
    return say(Message(f"option.{name}.{word}"))


def _option(spec: OptionSpec, used: str) -> OptionOut:
    return OptionOut(
        name=spec.name,
        label=say(Message(f"option.{spec.name}")),
        choices=list(spec.choices),
        words=[_word(spec.name, word) for word in spec.choices],
        default=spec.default,
        least=spec.least,
        most=spec.most,
        unit=spec.unit,
        used=used,
    )


def _finding(finding: Finding) -> FindingOut:
    return FindingOut(
        code=finding.code,
        level=finding.level,
        field=finding.field,
        text=say(finding.message),
        hint="" if finding.hint is None else say(finding.hint),
    )


def _devices(circuit: Circuit) -> list[DeviceOut]:
    found = []
    for item in circuit.netlist.devices:
        part = Motor if item.type.startswith("motor") else PARTS.get(item.type)
        found.append(
            DeviceOut(
                id=item.id,
                tag=circuit.tags.get(item.id, item.id),
                type=item.type,
                legend=item.parameters.get("legend", ""),
                terminals=list(item.terminals),
                verbs=[] if part is None else list(part.verbs),
                positions=item.parameters.get("pos", "").split(",") if item.type in TURNED else [],
                links=[link.name for link in links_of(item)],
            )
        )
    return found


def circuit_out(room: StarterRoom) -> CircuitOut:
    """Return a starter with drawings, lists and devices."""
    circuit = room.circuit
    ends = {} if circuit is None else {wire.id: wire for wire in circuit.netlist.wires}
    refusal = None if room.refusal is None else Refusal.of(room.refusal)
    ladder = room.ladder()
    return CircuitOut(
        entry=None if room.entry is None else _entry(room.entry),
        options=[_option(spec, room.used.get(spec.name, spec.default)) for spec in room.options],
        refusal=None
        if refusal is None
        else RefusalOut(
            code=refusal.code, detail=refusal.detail, field=refusal.field, hint=refusal.hint
        ),
        findings=[_finding(found) for found in room.findings],
        stale=[
            StaleEditOut(id=edit.id, kind=edit.kind, reason=say(reason))
            for edit, reason in room.stale
        ],
        changes=[
            ChangeOut(what=one.what, on=one.on, text=say(one.message)) for one in room.changes()
        ],
        hazards=[
            RestartOut(
                code=name,
                label=say(Message(f"restart.{name}")),
                accepted=found.level == "note",
                never=found.level == "refusal",
            )
            for found in room.findings
            if (name := found.code.removeprefix("restart.")) != found.code
        ],
        devices=[] if circuit is None else _devices(circuit),
        wires=[
            WireOut(
                id=row.id,
                number=row.number,
                start=row.start,
                end=row.end,
                start_terminal=ends[row.id].start,
                end_terminal=ends[row.id].end,
                way=row.way,
                colour=row.colour,
                size=row.size,
                ferrules=list(row.ferrules),
                is_maker=row.is_maker,
            )
            for row in room.rows()
        ],
        material=[
            MaterialOut(
                tag=row.tag,
                device=row.device,
                type=row.type,
                type_label=say(Message(f"type.{row.type}")) if row.type in types() else row.type,
                ratings=[
                    RatingOut(
                        name=say(Message(f"rating.{name}")),
                        value=value,
                        unit=unit,
                        step=room.sources.get(f"{row.device}.{name}", ""),
                    )
                    for name, value, unit in row.ratings
                ],
                contacts=row.contacts,
            )
            for row in room.material()
        ],
        ladder=picture_out(ladder.picture),
        power=picture_out(room.power()),
        panel=picture_out(room.panel()),
        strip=picture_out(room.strip()),
        rungs=[picture_out(one) for one in room.rungs(ladder)],
        style=room.style,
    )


def _frame(frame: Frame) -> FrameOut:
    return FrameOut(
        t=frame.time_us,
        words=None if frame.words is None else dict(frame.words),
        closed=None if frame.closed is None else list(frame.closed),
        nets=None if frame.nets is None else dict(frame.nets),
        motors={
            name: MotorFrameOut(
                word=motor.word,
                v=motor.volts_percent,
                n=motor.speed_percent,
                a=motor.coil_amps_a,
                field=motor.field,
            )
            for name, motor in frame.motors.items()
        },
        heats=dict(frame.heats),
        snapshot=frame.snapshot,
    )


def trace_out(trace: Trace, circuit: Circuit, snapshots: list[str]) -> TraceOut:
    """Return a trace with its snapshots sealed."""
    tags = circuit.tags
    return TraceOut(
        constants=trace.set_name,
        fingerprint=trace.fingerprint,
        start=trace.start_us,
        until=trace.until_us,
        never_settles=trace.never_settles,
        frames=[_frame(frame) for frame in trace.frames],
        events=[
            EventOut(
                n=event.n,
                t=event.time,
                device=event.device,
                tag=tags.get(event.device, event.device),
                what=event.aspect,
                value=event.value,
                cause=event.cause,
            )
            for event in trace.events
        ],
        hazards=[
            HazardOut(
                code=hazard.code,
                name=say(Message(f"hazard.{hazard.code}")),
                t=hazard.time_us,
                device=hazard.device,
                tag=tags.get(hazard.device, hazard.device),
                sentence=hazard.sentence,
                chain=[say(part) for part in hazard.chain],
            )
            for hazard in trace.hazards
        ],
        snapshots=snapshots,
    )
