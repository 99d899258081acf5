"""One netlist from supply to stator coil: starter, box joints, motor, ratings.

The starter's three outputs go to the joints of the Leads step; the catalogue's
stand-in motor gives way to this motor's own winding. Ratings come from the
sizes, each with the step it stands on.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from evencoil.base import Step, exact, line_said
from evencoil.circuit import (
    ALIASES,
    Circuit,
    CircuitEditor,
    Device,
    Edit,
    Netlist,
    Wire,
    device,
    has_two_speeds,
    wire_id,
)
from evencoil.starters.control_supply import primary_of
from evencoil.winding import LINES, Joint, Winding

__all__ = [
    "DeviceRating",
    "MotorRating",
    "begun_panel",
    "entered_by_hand",
    "install_motor",
    "is_fed_by_line",
    "ratings_of",
    "stand_in_of",
    "with_ratings",
]

#: where the equipment grounding conductor lands
GROUND = "PE"
#: device, parameter, value, the step that it stands on
_Put = Callable[[str, str, str, str], None]
#: stand-ins that one conductor a line feeds, and their terminal for each line
_BY_LINE = {
    "motor3": {"L1": "U1", "L2": "V1", "L3": "W1"},
    "motor1": {"L1": "T1", "L2": "T4"},
}
#: where the second phase ends of a six-lead starter land on twelve leads
_TWELVE = {"T4": "T10", "T5": "T11", "T6": "T12"}


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorRating:
    """What the netlist's motor is rated for.

    ``volts_v`` is the nameplate's highest voltage, with all coils in series;
    ``amps_a`` the nameplate current that belongs to it; ``coil_v`` what one coil is
    made for, at the high speed where there are two, ``coil_low_v`` at the low one.
    """

    volts_v: Decimal | None
    amps_a: Decimal | None
    power_hp: Decimal | None
    coil_v: float | None = None
    coil_low_v: float | None = None


@dataclass(frozen=True, slots=True)
class DeviceRating:
    """A parameter of a device that this job decides, and the step it comes from, if any."""

    device: str
    parameter: str
    value: str
    step: str


#: winding kind to the motor that a panel as found begins with, where a starter switches leads
_FOUND = {
    "6": ("motor6", {}),
    "12": ("motor6", {}),
    "part-winding": ("motorpw", {}),
    "2-speed-ct": ("motor2s", {"type": "ct"}),
    "2-speed-vt": ("motor2s", {"type": "vt"}),
    "2-speed-cp": ("motor2s", {"type": "cp"}),
    "2-speed-2-winding": ("motor2w", {}),
}


def begun_panel(circuit: Circuit, kind: str) -> Circuit:
    """Return the empty panel with the motor of the job: as many terminals as can be switched.

    Its volts, amps and the supply's system come with the ratings. A single-phase supply has two
    lines.

    Parameters
    ----------
    circuit : Circuit
        The empty panel: a supply and a motor.
    kind : str
        Of the winding; empty while it is not known.
    """
    editor = CircuitEditor(circuit)
    if kind.startswith("1-phase"):
        editor.change("supply", split="1")
        made = device("motor1", "motor", {})
    elif kind in _FOUND:
        made = device(_FOUND[kind][0], "motor", _FOUND[kind][1])
    else:
        return circuit
    editor.devices["motor"] = made
    return editor.done()


def stand_in_of(circuit: Circuit) -> Device | None:
    """Return the motor that a standard circuit is drawn with, None if a job has put its own."""
    for item in circuit.netlist.devices:
        if item.id == "motor" and item.type.startswith("motor") and item.type != "motor":
            return item
    return None


def is_fed_by_line(stand_in: Device) -> bool:
    """Tell whether one conductor a line feeds the motor; else each lead has its own."""
    return stand_in.type in _BY_LINE


def install_motor(
    circuit: Circuit, winding: Winding, joints: Sequence[Joint], rating: MotorRating
) -> Circuit:
    """Return a circuit whose stand-in motor is replaced by winding and joints of the box.

    Where one conductor a line comes from the starter it lands on the joints with that line.
    Where the starter switches the leads themselves (wye-delta, part winding, two speeds) each
    of its conductors lands on its lead, and with it on whatever a bar joins to that lead.

    Parameters
    ----------
    circuit : Circuit
        With a stand-in called ``motor``.
    winding : Winding
        This motor's coils.
    joints : sequence of Joint
        The box as joined. A lead in no joint, with no conductor, stays loose.
    rating : MotorRating
        From the nameplate.

    Returns
    -------
    Circuit
        Joints are devices ``joint...``; every lead is a wire of its own.
    """
    editor = CircuitEditor(circuit)
    stand_in = editor.devices["motor"]
    outputs = {
        end: [
            wire.end if wire.start == f"motor.{end}" else wire.start
            for wire in editor.at(f"motor.{end}")
        ]
        for end in stand_in.terminals
    }
    tag = editor.tags.get("motor", "M1")
    editor.remove("motor")
    if is_fed_by_line(stand_in):
        landing = {line: outputs[end] for line, end in _BY_LINE[stand_in.type].items()}
    else:
        landing = _by_lead(stand_in, outputs, winding)
        joints = _with_landings(joints, landing)
    _put_motor(editor, tag, winding, rating)
    for joint in joints:
        leads = [lead for lead in joint.leads if lead not in LINES]
        if is_fed_by_line(stand_in):
            arrivals = {line: landing.get(line, []) for line in joint.lines}
        else:
            arrivals = {f"C{lead[1:]}": landing[lead] for lead in leads if lead in landing}
        editor.devices[joint.id] = Device(joint.id, "joint", (*arrivals, *leads))
        # the joint of line L1 is not the line
        named = line_said(joint.line or "") or "-".join(lead.removeprefix("T") for lead in leads)
        editor.tags[joint.id] = f"J-{named}"
        wires = [
            *((out, f"{joint.id}.{end}") for end, outs in arrivals.items() for out in outs),
            *((f"{joint.id}.{lead}", f"motor.{lead}") for lead in leads),
        ]
        for start, end in wires:
            name = wire_id(start, end)
            editor.wires[name] = Wire(name, start, end)
    return editor.done()


def _by_lead(
    stand_in: Device, outputs: Mapping[str, list[str]], winding: Winding
) -> dict[str, list[str]]:
    """Return what arrives for each lead of this winding, where the starter switches leads."""
    leads = {end: lead for lead, end in ALIASES.get(stand_in.type, {}).items()}
    found = {leads.get(end, end): outs for end, outs in outputs.items()}
    if stand_in.type == "motor6" and winding.kind == "12":
        found = {_TWELVE.get(lead, lead): outs for lead, outs in found.items()}
    return {lead: outs for lead, outs in found.items() if outs and lead in winding.leads}


def _with_landings(joints: Sequence[Joint], landing: Mapping[str, object]) -> tuple[Joint, ...]:
    """Return the bars of the box, and a joint of its own for each other lead with a conductor."""
    bars = [Joint(id=joint.id, leads=joint.leads) for joint in joints if len(joint.leads) > 1]
    held = {lead for joint in bars for lead in joint.leads}
    own = [Joint(id=f"joint.{lead}", leads=(lead,)) for lead in landing if lead not in held]
    return (*bars, *own)


def _put_motor(editor: CircuitEditor, tag: str, winding: Winding, rating: MotorRating) -> None:
    given: dict[str, str] = {"kind": winding.kind}
    if rating.volts_v is not None:
        given["v"] = exact(rating.volts_v)
    if rating.amps_a is not None:
        given["fla"] = exact(rating.amps_a)
    for name, volts in (("coil_v", rating.coil_v), ("coil_low_v", rating.coil_low_v)):
        if volts is not None:
            given[name] = f"{volts:.1f}"
    if rating.power_hp is not None:
        given["hp"] = exact(rating.power_hp)
    editor.devices["motor"] = device("motor", "motor", given)
    editor.tags["motor"] = tag
    _land_ground(editor)


def _land_ground(editor: CircuitEditor) -> None:
    """Wire the motor's frame to the ground of its supply, 430.242."""
    supply = next((item for item in editor.devices.values() if item.type == "supply"), None)
    if supply is not None and GROUND in supply.terminals:
        start, end = f"{supply.id}.{GROUND}", f"motor.{GROUND}"
        name = wire_id(start, end)
        editor.wires[name] = Wire(name, start, end)


#: device to its parameter and the step of the Size sheet that gives it
_CONTROL = {
    "control_transformer": ("va", "transformer_va"),
    "control_fuse_1": ("a", "primary_fuse_a"),
    "control_fuse_2": ("a", "primary_fuse_a"),
    "control_fuse": ("a", "secondary_fuse_a"),
}


def _duties(items: Mapping[str, Device], flc: str | None, step: str, put: _Put) -> None:
    """Give each contactor the part of the motor's current that it switches (AC-3).

    In a star-delta starter the winding legs carry 58 % and the star a third; each half of a
    part winding carries half. What a speed of several draws is not known here. ``step`` is
    where ``flc`` comes from.
    """
    if flc is None or any(has_two_speeds(item) for item in items.values()):
        return
    motors = [item for item in items.values() if item.type.startswith("motor")]
    if len(motors) != 1:
        return
    is_delta = {"star", "delta"} <= items.keys()
    is_half = {"first_half", "second_half"} <= items.keys()
    leg_main = is_delta and "forward_contactor" not in items
    parts = {
        **dict.fromkeys(("delta", *(("main",) if leg_main else ())), Decimal("0.58")),
        "star": Decimal(1) / 3,
    }
    halves = dict.fromkeys(("first_half", "second_half"), Decimal("0.5"))
    known = (parts if is_delta else {}) | (halves if is_half else {})
    for item in list(items.values()):
        if item.type == "contactor":
            amps = Decimal(flc) * known.get(item.id, Decimal(1))
            put(item.id, "ac3_a", exact(amps.quantize(Decimal("0.1"))), step)


def _step_number(steps: Mapping[str, Step], name: str) -> str | None:
    step = steps.get(name)
    if step is None or not isinstance(step.value, Decimal):
        return None
    return exact(step.value)


def _motor_side(
    item: Device,
    steps: Mapping[str, Step],
    line_volts_v: Decimal | None,
    put: _Put,
    *,
    branch: str,
    is_own: bool,
) -> None:
    """Rate a supply, a short-circuit device, an overload, a motor or a control transformer."""
    rating, amps = _step_number(steps, "protection_device_a"), _step_number(steps, "plate_amps_a")
    if item.type == "supply" and line_volts_v is not None:
        put(item.id, "v", exact(line_volts_v), "supply_volts_v" if steps else "")
    if item.id == branch and rating is not None:
        _protection(item, rating, _kind_of(steps), put)
    if item.type in _OVERLOADS and amps is not None:
        default = Decimal(item.parameters.get("iset") or "10")
        setting = (Decimal(amps) * default / 10).quantize(Decimal("0.01"))
        put(item.id, "iset", exact(setting), "plate_amps_a" if is_own else "")
        if item.type == "mms":
            # the trip that its maker builds in is not known; the rehearsal keeps the ratio
            ratio = Decimal(item.parameters.get("mag") or "150") / default
            put(item.id, "mag", exact((setting * ratio).quantize(Decimal(1))), "")
    if item.type.startswith("motor") and item.type != "motor" and amps is not None:
        put(item.id, "fla", amps, "plate_amps_a" if is_own else "")
    has_halves = item.id == "control_transformer" and not item.parameters.get("taps")
    if has_halves and line_volts_v is not None:
        put(item.id, "prim", exact(primary_of(line_volts_v)[0]), "supply_volts_v")


def _line_side(item: Device, items: Mapping[str, Device], line_volts_v: Decimal, put: _Put) -> None:
    """Rate what stands across the line: the autotransformer, a supply unit fed by the line."""
    drawn = next(
        (Decimal(one.parameters["v"]) for one in items.values() if one.type == "supply"), None
    )
    given = item.parameters.get("v")
    if drawn is None or not given:
        return
    if item.type == "autox":
        volts = (Decimal(given) / drawn * line_volts_v).quantize(Decimal(1))
        put(item.id, "v", exact(volts), "supply_volts_v" if volts == line_volts_v else "")
    if item.type == "drive":
        put(item.id, "v", exact(line_volts_v), "supply_volts_v")
    if item.type == "psu" and Decimal(given) == line_volts_v:
        put(item.id, "v", given, "supply_volts_v")


#: devices with a dial or heaters for the motor's current
_OVERLOADS = {"olr", "mms", "manual", "drive"}


def _protection(item: Device, rating: str, kind: str, put: _Put) -> None:
    """Rate the short-circuit device; the trip inside an inverse-time breaker is its maker's."""
    if kind == "instantaneous_breaker" and item.type == "cb3":
        put(item.id, "mag", rating, "protection_device_a")
        return
    if item.type not in {"cb3", "fdisc", "fuse"}:
        return
    put(item.id, "a", rating, "protection_device_a")
    if item.type == "cb3":
        put(item.id, "mag", exact(Decimal(rating) * 10), "")


def _kind_of(steps: Mapping[str, Step]) -> str:
    step = steps.get("protection_kind")
    return "" if step is None else str(step.value)


def _branch_of(items: Mapping[str, Device]) -> str:
    """Return the short-circuit device of this motor's own circuit; empty if there is none.

    Of a machine with several motors it is the one of the first motor, not the main.
    """
    named = ("breaker_2", "breaker") if "motor_2" in items else ("breaker", "disconnect")
    return next((name for name in named if name in items), "")


#: devices of a machine that belong to its first motor, the one of this job
_OWN = {"motor", "overload", "starter", "local_isolator"}


#: the system of a netlist's supply, by that of the job
_SYSTEMS = {
    "wye": "wye",
    "delta": "delta",
    "corner_grounded": "corner",
    "high_leg": "high_leg",
}


def ratings_of(
    circuit: Circuit,
    steps: Mapping[str, Step],
    line_volts_v: Decimal | None,
    system: str = "",
    hertz: Decimal | None = None,
) -> tuple[DeviceRating, ...]:
    """Return what supply, main device, overload and transformer are rated for in this job.

    Parameters
    ----------
    circuit : Circuit
        With the catalogue's own ratings for a 10 A motor.
    steps : mapping
        Steps of the size sheet by id.
    line_volts_v : Decimal or None
        Volts between lines. [V]
    system : str
        Of the supply; empty where it is not known.
    hertz : Decimal or None
        Of the supply. [Hz]
    """
    items: dict[str, Device] = {item.id: item for item in circuit.netlist.devices}
    found: list[DeviceRating] = []

    def put(name: str, parameter: str, value: str, source: str) -> None:
        found.append(DeviceRating(name, parameter, value, source))

    branch, is_machine = _branch_of(items), "motor_2" in items
    for item in items.values():
        is_own = not is_machine or item.id in _OWN
        _motor_side(item, steps, line_volts_v, put, branch=branch, is_own=is_own)
        if line_volts_v is not None:
            _line_side(item, items, line_volts_v, put)
        if item.type == "supply" and system in _SYSTEMS and item.parameters.get("split") != "1":
            put(item.id, "system", _SYSTEMS[system], "")
        if item.type == "supply" and hertz in {Decimal(50), Decimal(60)}:
            put(item.id, "hz", exact(hertz), "")
        if item.type == "drive" and hertz in {Decimal(50), Decimal(60)}:
            # full volts, and the speed it is set to, at the frequency of the lines
            put(item.id, "base", exact(hertz), "")
            put(item.id, "hz", exact(hertz), "")
        parameter, step = _CONTROL.get(item.id, ("", ""))
        value = _step_number(steps, step)
        if value is not None:
            put(item.id, parameter, value, step)
    # outside the NEC a contactor goes by the rated current of the motor itself
    step = next((name for name in ("table_flc_a", "plate_amps_a") if name in steps), "")
    _duties(items, _step_number(steps, step), step, put)
    return tuple(found)


def entered_by_hand(edits: Iterable[Edit]) -> frozenset[tuple[str, str]]:
    """Return the parameters that people entered, by device and name.

    Parameters
    ----------
    edits : iterable of Edit
        What people changed.
    """
    return frozenset(
        (edit.id if edit.kind == "add_device" else edit.device, name)
        for edit in edits
        if edit.kind in {"add_device", "set"}
        for name in edit.parameters
    )


def with_ratings(
    circuit: Circuit, ratings: Sequence[DeviceRating], edits: Sequence[Edit] = ()
) -> Circuit:
    """Return a circuit with its ratings; what a person put in or set goes before them.

    Parameters
    ----------
    circuit : Circuit
        With the edits done.
    ratings : sequence of DeviceRating
        From `ratings_of`.
    edits : sequence of Edit
        What people changed: devices that they added keep their own ratings, and so does
        each parameter that they set.
    """
    added = {edit.id for edit in edits if edit.kind == "add_device"}
    by_hand = entered_by_hand(edits)
    given: dict[str, dict[str, str]] = {}
    for one in ratings:
        if one.device not in added and (one.device, one.parameter) not in by_hand:
            given.setdefault(one.device, {})[one.parameter] = one.value
    devices = tuple(
        device(item.type, item.id, {**item.parameters, **given[item.id]})
        if item.id in given
        else item
        for item in circuit.netlist.devices
    )
    return replace(circuit, netlist=Netlist(devices, circuit.netlist.wires))
