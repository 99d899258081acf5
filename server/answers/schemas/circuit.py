"""A drawn circuit and a rehearsal as the screens get them."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from answers.schemas.base import Answer, Refused, Sentence
from answers.schemas.parts import FindingOut
from answers.schemas.pictures import PictureOut
from evencoil.base import Message, in_trade_terms, say
from evencoil.circuit import (
    CONTACTS,
    TURNED,
    Circuit,
    device,
    io_map,
    links_of,
    points_of,
    program_of,
    types,
    usual_devices,
)
from evencoil.drawing import draw_emblem
from evencoil.job import JobStarter, RehearsedMotor
from evencoil.logic import LiveProgram
from evencoil.rehearsal import Trace
from evencoil.solver import PARTS, Motor
from evencoil.starters import CatalogueEntry, OptionSpec, found_entry, said_choice

__all__ = ["CatalogueOut", "CircuitOut", "TraceOut", "catalogue_out", "circuit_out", "trace_out"]


def _group(name: Any) -> Any:
    return Message(f"group.{name}")


def _setting(name: Any) -> Any:
    return Message(f"setting.{name}")


def _type(name: Any) -> Any:
    return Message(f"type.{name}")


class OptionOut(Answer):
    """One option of a standard circuit: the words it takes, or its least and most."""

    name: str
    label: str
    choices: list[str]
    words: list[str]
    default: str
    least: float
    most: float
    unit: str
    used: str


#: a text of the catalogue, in the plant's words
OwnText = Annotated[str, BeforeValidator(in_trade_terms)]


class RecipeOut(Answer):
    """One circuit of the catalogue."""

    id: str
    group: str
    group_label: Annotated[Sentence, BeforeValidator(_group)] = Field(validation_alias="group")
    title: OwnText
    purpose: OwnText
    use: OwnText
    avoid: OwnText
    interlocks: OwnText


class SettingOut(Answer):
    """One thing that can be set on a device: a number, a text, contacts or one of some words."""

    name: str
    label: Annotated[Sentence, BeforeValidator(_setting)] = Field(validation_alias="name")
    form: str
    default: str
    unit: str


def _emblem(name: Any) -> Any:
    return draw_emblem(device(str(name), "emblem"))


class DeviceTypeOut(Answer):
    """A kind of device that can be put into a drawing."""

    type: str = Field(validation_alias="name")
    label: Annotated[Sentence, BeforeValidator(_type)] = Field(validation_alias="name")
    letters: str = Field(validation_alias="letter_iec")
    settings: list[SettingOut] = Field(validation_alias="parameters")
    picture: Annotated[PictureOut, BeforeValidator(_emblem)] = Field(validation_alias="name")


def _usual(key: Any) -> Any:
    return Message(f"usual.{key}")


class UsualOut(Answer):
    """A device by its trade name, with its usual contacts."""

    key: str
    label: Annotated[Sentence, BeforeValidator(_usual)] = Field(validation_alias="key")
    type: str
    letters: str
    parameters: dict[str, str]


class StandardPictureOut(Answer):
    """A standard circuit as the catalogue has it, drawn; how many wires, and its devices."""

    ladder: PictureOut
    power: PictureOut
    wires: int
    devices: list[str]


class CatalogueOut(Answer):
    """The catalogue, in its order, and the device library."""

    circuits: list[RecipeOut]
    usual: list[UsualOut]
    library: list[DeviceTypeOut]


class WireOut(Answer):
    """One wire of the wire list."""

    id: str
    net: str
    number: str
    start: str
    end: str
    start_terminal: str
    end_terminal: str
    way: str
    color: str
    size: str
    ferrules: list[str]
    is_maker: bool


class RatingOut(Answer):
    """One rating of a device, with the step of the Size sheet it stands on.

    ``value`` says so where it is not sized yet, and ``is_open`` is true.
    """

    name: str
    value: str
    unit: str
    step: str
    is_open: bool


class MaterialOut(Answer):
    """One line of the bill of material."""

    tag: str
    device: str
    type: str
    type_label: str
    ratings: list[RatingOut]
    contacts: str
    add_ons: str


class DeviceOut(Answer):
    """A device as it is operated: its terminals and what can be done to it."""

    id: str
    tag: str
    type: str
    legend: str
    color: str
    terminals: list[str]
    verbs: list[str]
    positions: list[str]
    links: list[str]
    contacts: list[str]
    coils: list[str]


class IoLineOut(Answer):
    """A wired point of a programmable relay, and the name that its program gives it."""

    point: str
    name: str
    terminal: str
    wire: str
    device: str
    text: str


class NetworkOut(Answer):
    """One network of a program, as rung and as text, and the names that tell what it does."""

    rung: dict[str, Any]
    text: str
    names: list[str]


class RelayOut(Answer):
    """A programmable relay: how many points, its program, where its points are wired."""

    id: str
    tag: str
    inputs: int
    outputs: int
    analog: int
    program: str
    networks: list[NetworkOut]
    io: list[IoLineOut]


class StaleEditOut(Answer):
    """A change that no longer applies."""

    id: str
    kind: str
    reason: str


class ChangeOut(Answer):
    """One difference from the circuit as the standard circuit draws it."""

    what: str
    on: str
    text: Sentence = Field(validation_alias="message")


class RestartOut(Answer):
    """What the circuit does unasked; ``accepted`` tells by whom, ``never`` that no one may."""

    code: str
    label: str
    accepted: bool
    never: bool


class NetOut(Answer):
    """What one wire number does, and what is on it."""

    id: str
    does: str
    on: list[str]


class DrawnProblemOut(Answer):
    """A problem the drawing alone shows, with what to light."""

    rule: str
    level: str
    text: Sentence = Field(validation_alias="message")
    devices: list[str]
    nets: list[str]


class CircuitOut(Answer):
    """A starter drawn for a job."""

    entry: RecipeOut | None
    options: list[OptionOut]
    refusal: Refused
    findings: list[FindingOut]
    stale: list[StaleEditOut]
    changes: list[ChangeOut]
    hazards: list[RestartOut]
    devices: list[DeviceOut]
    relays: list[RelayOut]
    wires: list[WireOut]
    nets: list[NetOut]
    problems: list[DrawnProblemOut]
    material: list[MaterialOut]
    ladder: PictureOut
    power: PictureOut
    panel: PictureOut
    board: PictureOut
    strip: PictureOut
    rungs: list[PictureOut]
    style: Literal["nema", "iec"]


class MotorFrameOut(Answer):
    """A motor at an instant; the last four [rpm, N m, A, C] of a calculated one only."""

    word: str
    v: float = Field(validation_alias="volts_percent")
    n: float = Field(validation_alias="speed_percent")
    a: float = Field(validation_alias="coil_amps_a")
    field: str
    rpm: float | None = Field(validation_alias="speed_rpm")
    torque: float | None = Field(validation_alias="torque_nm")
    lead: float | None = Field(validation_alias="lead_amps_a")
    hot: float | None = Field(validation_alias="hottest_c")


class DriveFrameOut(Answer):
    """A drive at an instant: frequency, volts, amps, heat, fault."""

    hz: float
    set_hz: float
    out: float = Field(validation_alias="out_v")
    bus: float = Field(validation_alias="bus_v")
    bus_live: bool = Field(validation_alias="is_bus_live")
    a: float = Field(validation_alias="amps_a")
    heat: float = Field(validation_alias="heat_percent")
    fault: str


class ProgramFrameOut(Answer):
    """What a program shows that differs from the frame before; whole where it starts or stops."""

    run: bool = Field(validation_alias="is_running")
    values: dict[str, str]
    flows: dict[int, str]


class FrameOut(Answer):
    """The installation at an instant; a light frame moves speeds and heats only."""

    t: int = Field(validation_alias="time_us")
    words: dict[str, str] | None
    closed: list[str] | None
    nets: dict[str, float] | None
    live: list[str] | None
    motors: dict[str, MotorFrameOut]
    heats: dict[str, float]
    drives: dict[str, DriveFrameOut]
    programs: dict[str, ProgramFrameOut]
    snapshot: int | None


class EventOut(Answer):
    """Something that happened."""

    n: int
    t: int
    device: str
    tag: str
    what: str
    value: str
    cause: int | None
    effect: bool


class HazardOut(Answer):
    """A hazard at its instant, with its chain of causes as a sentence."""

    code: str
    name: str
    t: int
    device: str
    tag: str
    sentence: str
    chain: list[str]


class TraceOut(Answer):
    """What a rehearsal did, ten seconds ahead, with states to go on from."""

    constants: str
    said: Sentence
    mark: Sentence
    fingerprint: str
    start: int
    until: int
    never_settles: bool
    cut: bool
    frames: list[FrameOut]
    events: list[EventOut]
    hazards: list[HazardOut]
    snapshots: list[str]


def catalogue_out(entries: list[CatalogueEntry]) -> CatalogueOut:
    """Return the catalogue and the device library."""
    return CatalogueOut(
        circuits=[*entries, found_entry()],
        usual=usual_devices(),
        library=[kind for kind in types().values() if kind.name not in {"supply", "unknown_end"}],
    )


def _option(spec: OptionSpec, used: str) -> OptionOut:
    return OptionOut(
        name=spec.name,
        label=say(Message(f"option.{spec.name}")),
        choices=spec.choices,
        words=[said_choice(spec.name, word) for word in spec.choices],
        default=spec.default,
        least=spec.least,
        most=spec.most,
        unit=spec.unit,
        used=used,
    )


#: what can fail to make, stay closed or wear
_BREAKING = {"pole", *CONTACTS}


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
                color=item.parameters.get("color", ""),
                terminals=list(item.terminals),
                verbs=[] if part is None else list(part.verbs),
                positions=item.parameters.get("pos", "").split(",") if item.type in TURNED else [],
                links=[link.name for link in links_of(item)],
                contacts=[link.name for link in links_of(item) if link.kind in _BREAKING],
                coils=[link.name for link in links_of(item) if link.kind == "winding"],
            )
        )
    return found


def _hazards(starter: JobStarter) -> list[RestartOut]:
    """Return what the circuit does unasked, from the findings that say so."""
    return [
        RestartOut(
            code=name,
            label=say(Message(f"restart.{name}")),
            accepted=found.level == "note",
            never=found.level == "refusal",
        )
        for found in starter.findings
        if (name := found.code.removeprefix("restart.")) != found.code
    ]


def _nets(starter: JobStarter) -> list[NetOut]:
    if starter.circuit is None or starter.numbered is None:
        return []
    on: dict[str, list[str]] = {}
    for wire in starter.circuit.netlist.wires:
        here = on.setdefault(starter.numbered.id_at(wire.start), [])
        ends = map(starter.circuit.said, (wire.start, wire.end))
        here += [said for said in ends if said not in here]
    return [
        NetOut(id=net, does=say(does), on=on.get(net, [])) for net, does in starter.nets().items()
    ]


def _problems(starter: JobStarter) -> list[DrawnProblemOut]:
    numbered = starter.numbered
    if numbered is None:
        return []
    return [
        DrawnProblemOut(
            rule=one.rule,
            level=one.level,
            text=one.message,
            devices=one.devices,
            nets=numbered.ids_at(one.terminals),
        )
        for one in starter.drawn_problems
    ]


def _relays(circuit: Circuit | None) -> list[RelayOut]:
    return [
        RelayOut(
            id=item.id,
            tag=circuit.tags.get(item.id, item.id),
            inputs=points_of(item.parameters).inputs,
            outputs=points_of(item.parameters).outputs,
            analog=points_of(item.parameters).analog,
            program=item.parameters.get("program", ""),
            networks=list(LiveProgram(program_of(item)).networks),
            io=list(io_map(circuit, item)),
        )
        for item in (() if circuit is None else circuit.netlist.devices)
        if circuit is not None and item.type == "plc"
    ]


def _wires(starter: JobStarter) -> list[WireOut]:
    if starter.circuit is None:
        return []
    ends = {wire.id: wire for wire in starter.circuit.netlist.wires}
    return [
        WireOut(
            id=row.id,
            net=row.net,
            number=row.number,
            start=row.start,
            end=row.end,
            start_terminal=ends[row.id].start,
            end_terminal=ends[row.id].end,
            way=row.way,
            color=row.color,
            size=row.size,
            ferrules=row.ferrules,
            is_maker=row.is_maker,
        )
        for row in starter.rows()
    ]


def _material(starter: JobStarter) -> list[MaterialOut]:
    return [
        MaterialOut(
            tag=row.tag,
            device=row.device,
            type=row.type,
            type_label=say(Message(f"type.{row.type}")) if row.type in types() else row.type,
            ratings=[
                RatingOut(
                    name=say(Message(f"rating.{name}")),
                    value=value or say(Message("rating.open")),
                    unit=unit,
                    step=starter.sources.get(f"{row.device}.{name}", ""),
                    is_open=not value,
                )
                for name, value, unit in row.ratings
            ],
            contacts=row.contacts,
            add_ons=row.add_ons,
        )
        for row in starter.material()
    ]


def circuit_out(starter: JobStarter) -> CircuitOut:
    """Return a starter with drawings, lists and devices."""
    ladder = starter.ladder()
    return CircuitOut(
        entry=starter.entry,
        options=[
            _option(spec, starter.used.get(spec.name, spec.default)) for spec in starter.options
        ],
        refusal=starter.refusal,
        findings=starter.findings,
        stale=[
            StaleEditOut(id=edit.id, kind=edit.kind, reason=say(reason))
            for edit, reason in starter.stale
        ],
        changes=starter.changes(),
        hazards=_hazards(starter),
        devices=[] if starter.circuit is None else _devices(starter.circuit),
        relays=_relays(starter.circuit),
        wires=_wires(starter),
        nets=_nets(starter),
        problems=_problems(starter),
        material=_material(starter),
        ladder=ladder.picture,
        power=starter.power(),
        panel=starter.panel(),
        board=starter.board(),
        strip=starter.strip(),
        rungs=starter.rungs(ladder),
        style=starter.style,
    )


def trace_out(
    trace: Trace, circuit: Circuit, snapshots: list[str], moved: RehearsedMotor
) -> TraceOut:
    """Return a trace with its snapshots sealed, and which motor moved in it."""
    tags = circuit.tags
    return TraceOut(
        constants=trace.set_name,
        said=moved.said,
        mark=moved.mark or "",
        fingerprint=trace.fingerprint,
        start=trace.start_us,
        until=trace.until_us,
        never_settles=trace.never_settles,
        cut=trace.is_cut,
        frames=trace.frames,
        events=[
            EventOut(
                n=event.n,
                t=event.time,
                device=event.device,
                tag=circuit.named(event.device),
                what=event.aspect,
                value=event.value,
                cause=event.cause,
                effect=event.n in trace.effects,
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
