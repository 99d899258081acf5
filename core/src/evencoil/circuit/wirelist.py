"""Wire list, bill of material and terminal counts, from one netlist.

Source: NFPA 79 and IEC 60204-1 (conductor colors), trade practice (two wires under a screw).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Container, Mapping
from dataclasses import dataclass

from evencoil.circuit.library import links_of, type_of, types
from evencoil.circuit.line_of import lines_of_nets
from evencoil.circuit.netlist import Device, Wire
from evencoil.circuit.numbering import Numbered
from evencoil.circuit.text import Circuit
from evencoil.codebook import Ferrules, Profile

__all__ = [
    "Crowded",
    "Material",
    "WireRow",
    "crowded",
    "grounded_nets",
    "is_sized_for_job",
    "loose_ends",
    "material",
    "wire_rows",
]

#: ratings in the order of the list; the motor's own are on its nameplate
_RATED = ("a", "ac3_a", "mag", "iset", "coil", "prim", "taps", "sec", "va", "v", "t")
#: ratings that have to be sized for the job, on every device and by type
_SIZED = frozenset({"a", "ac3_a", "mag", "iset"})
_SIZED_BY_TYPE: Mapping[str, frozenset[str]] = {
    "autox": frozenset({"v"}),
    "drive": frozenset({"v"}),
    "heater": frozenset({"va", "v"}),
    "psu": frozenset({"v"}),
    "ptc": frozenset({"t"}),
    "rect": frozenset({"v"}),
    "solenoid": frozenset({"va"}),
    "thermostat": frozenset({"t"}),
    "xfmr": frozenset({"va", "prim"}),
}
#: secondary volts that no option of the circuit decides
_SIZED_BY_DEVICE = {("brake_transformer", "sec")}
#: figures of the simulation only, no ratings
_MODELLED = {("autox", "mag"), ("lamp", "va")}


@dataclass(frozen=True, slots=True)
class WireRow:
    """One wire: its number, its two ends, its part of the circuit, color, size, ferrules.

    A maker's link is verified where it sits and never landed.
    """

    id: str
    number: str
    start: str
    end: str
    way: str
    color: str
    size: str
    ferrules: tuple[str, str]
    is_maker: bool = False
    net: str = ""


@dataclass(frozen=True, slots=True)
class Crowded:
    """A terminal with more wires than it takes."""

    terminal: str
    wires: int
    most: int


@dataclass(frozen=True, slots=True)
class Material:
    """One line of the bill of material.

    ``ratings`` are name, value and unit; the value is empty where it is not sized yet.
    ``add_ons`` are the contacts that need an add-on block beside the built-in ones.
    """

    tag: str
    device: str
    type: str
    ratings: tuple[tuple[str, str, str], ...]
    contacts: str
    add_ons: str = ""


def _way(circuit: Circuit, start: str, end: str) -> str:
    power = {"L1", "L2", "L3"}
    for terminal in (start, end):
        owner, _, name = terminal.rpartition(".")
        item = circuit.netlist.device(owner)
        kind = types().get(item.type)
        if item.type == "supply" and name in power:
            return "power"
        if item.type == "xfmr" and name.startswith("H"):
            return "power"
        if item.type == "psu" and name in {"L", "N"}:
            return "power"
        if kind is None or kind.ways == "control" or item.type == "xfmr":
            continue
        link = next((one for one in links_of(item) if name in {one.a, one.b}), None)
        if link is not None and link.kind in {"pole", "heat", "winding", "resistor", "drive"}:
            return "power"
    return "control"


#: power, control, common and ground; alternating and direct
_COLORS: dict[str, dict[str, str]] = {
    "nfpa79": {
        "power": "black",
        "ac": "red",
        "dc": "blue",
        "ac_common": "white",
        "dc_common": "white/blue",
        "ground": "green",
        "foreign": "orange",
    },
    "iec60204": {
        "power": "black",
        "ac": "red",
        "dc": "blue",
        "ac_common": "light blue",
        "dc_common": "dark blue/white",
        "ground": "green-yellow",
        "foreign": "orange",
    },
}


#: lines L1 to L3 by the plant's rule
_PHASES: dict[str, tuple[str, str, str]] = {
    "brown_orange_yellow": ("brown", "orange", "yellow"),
    "black_red_blue": ("black", "red", "blue"),
    "brown_black_gray": ("brown", "black", "gray"),
    "red_yellow_blue": ("red", "yellow", "blue"),
}


def _line_colors(circuit: Circuit, profile: Profile, known: Mapping[str, str]) -> dict[str, str]:
    """Return the color of each line: the plant's, the high leg orange, a grounded line white.

    Source: NEC 110.15 (high leg), 200.6 (grounded conductor).
    """
    names = ("L1", "L2", "L3")
    colors = _PHASES.get(profile.phase_colors, (known["power"],) * 3)
    found = dict(zip(names, colors, strict=True))
    system = next(
        (
            item.parameters.get("system")
            for item in circuit.netlist.devices
            if item.type == "supply"
        ),
        "",
    )
    if system == "high_leg":
        found["L2"] = "orange"
    elif system == "corner":
        found["L2"] = known["ac_common"]
    return found


def _color(known: Mapping[str, str], way: str, *, is_grounded: bool, is_dc: bool) -> str:
    """Return a wire's color; only a grounded return has that of one, a hot one never."""
    if way == "power":
        return known["power"]
    kind = "dc" if is_dc else "ac"
    return known[f"{kind}_common" if is_grounded else kind]


def grounded_nets(circuit: Circuit, numbered: Numbered) -> set[int]:
    """Return the nets that are neutral or bonded to ground.

    Parameters
    ----------
    circuit : Circuit
        With its supplies.
    numbered : Numbered
        Its nets.
    """
    ends = {"supply": ("N", "PE"), "source": ("N",)}
    return {
        numbered.net_of[f"{item.id}.{end}"]
        for item in circuit.netlist.devices
        for end in ends.get(item.type, ())
        if f"{item.id}.{end}" in numbered.net_of
    }


def _ferrule(style: Ferrules, number: str, here: str, there: str) -> str:
    if style == "number":
        return number
    return f"{number} {here}" if style == "number_terminal" else f"{number} > {there}"


def _is_motors(circuit: Circuit, wire: Wire) -> bool:
    """Tell whether a grounding conductor goes to a motor's frame."""
    motors = {item.id for item in circuit.netlist.devices if item.type.startswith("motor")}
    return bool(motors & {wire.start.split(".")[0], wire.end.split(".")[0]})


def wire_rows(
    circuit: Circuit,
    numbered: Numbered,
    profile: Profile | None = None,
    power_size: str = "",
    foreign: Container[int] = (),
    ground_size: str = "",
) -> tuple[WireRow, ...]:
    """Return the wires, grounds and power first, then by number.

    Parameters
    ----------
    circuit : Circuit
        Devices, wires, tags.
    numbered : Numbered
        Wire numbers of the nets.
    profile : Profile, optional
        The works' colors, control conductor and ferrules.
    power_size : str
        Conductor of the motor circuit, empty if the sizes do not know it.
    ground_size : str
        Equipment grounding conductor of the motor, empty if the sizes do not know it.
    foreign : container of int
        Nets that stay live with the main switch open: they have a color of their own.

    Returns
    -------
    tuple of WireRow
        Ends as people read them.
    """
    profile = profile or Profile()
    colors = _COLORS[profile.wire_colors]
    is_dc = any(item.type == "psu" for item in circuit.netlist.devices)
    grounded = grounded_nets(circuit, numbered)
    lines, of_line = lines_of_nets(circuit), _line_colors(circuit, profile, colors)
    rows = []
    for wire in circuit.netlist.wires:
        number = numbered.at(wire.start)
        way = _way(circuit, wire.start, wire.end)
        is_bond = wire.start.endswith(".PE") or wire.end.endswith(".PE")
        is_grounded = numbered.net_of[wire.start] in grounded
        color = _color(colors, way, is_grounded=is_grounded, is_dc=is_dc)
        if is_bond:
            color = colors["ground"]
        elif way == "power" and numbered.net_of[wire.start] in lines:
            color = of_line[lines[numbered.net_of[wire.start]]]
        elif way == "control" and numbered.net_of[wire.start] in foreign:
            color = colors["foreign"]
        start, end = circuit.said(wire.start), circuit.said(wire.end)
        rows.append(
            WireRow(
                wire.id,
                number,
                start,
                end,
                way,
                color,
                ground_size
                if is_bond and _is_motors(circuit, wire)
                else power_size
                if way == "power"
                else profile.control_wire,
                (
                    _ferrule(profile.ferrules, number, start, end),
                    _ferrule(profile.ferrules, number, end, start),
                ),
                wire.id in circuit.makers,
                numbered.id_at(wire.start),
            )
        )

    def order(row: WireRow) -> tuple[int, int, str]:
        digits = int(row.number) if row.number.isdigit() else 9999
        is_ground = row.color == colors["ground"]
        return (0 if is_ground else 1 if row.way == "power" else 2, digits, row.number)

    return tuple(sorted(rows, key=order))


def crowded(circuit: Circuit) -> tuple[Crowded, ...]:
    """Return the terminals with too many wires.

    Parameters
    ----------
    circuit : Circuit
        To count.
    """
    counted = Counter(end for wire in circuit.netlist.wires for end in (wire.start, wire.end))
    found = []
    for item in circuit.netlist.devices:
        if item.type not in types():
            continue
        most = type_of(item.type).most_wires
        for name in item.terminals:
            terminal = f"{item.id}.{name}"
            if counted[terminal] > most:
                found.append(Crowded(terminal, counted[terminal], most))
    return tuple(found)


def loose_ends(circuit: Circuit) -> tuple[str, ...]:
    """Return the terminals of links in use whose other end is wired and this one not.

    Parameters
    ----------
    circuit : Circuit
        To look through.
    """
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    found = []
    for item in circuit.netlist.devices:
        for link in links_of(item):
            ends = [f"{item.id}.{name}" for name in (link.a, link.b)]
            there = [end in wired for end in ends]
            if any(there) and not all(there):
                alone = ends[there.index(False)]
                if not _is_free(item, link.kind):
                    found.append(alone)
    return tuple(dict.fromkeys(found))


def _is_free(item: Device, kind: str) -> bool:
    """Tell whether a path may stay half wired: spare poles, change-over sides, taps."""
    if item.type in {"autox", "xfmr"} or kind == "winding":
        return True
    if item.type == "drive":
        # its control supply and its fault relay may stay unused; its lines may not
        return kind != "drive"
    return (
        (
            kind in {"no", "nc", "timed_no", "timed_nc"}
            and any(
                parameter in item.parameters.get("aux", "")
                for parameter in ("-12-", "-16-", "-22-")
            )
        )
        # spare points: an input has the common behind it, outputs share a feed
        or kind == "input"
        or item.type in {"ptcrelay", "rtdmon", "phasemon", "gfr", "timer"}
        or (kind == "pole" and item.type in {"contactor", "cb3", "fdisc", "isolator"})
    )


def is_sized_for_job(item: Device, name: str) -> bool:
    """Tell whether a rating has to be sized for the job before it may be listed.

    Parameters
    ----------
    item : Device
        With its type.
    name : str
        Its parameter, for example ``iset``.
    """
    return (
        name in _SIZED
        or name in _SIZED_BY_TYPE.get(item.type, ())
        or (item.id, name) in _SIZED_BY_DEVICE
    )


def material(
    circuit: Circuit, is_known: Callable[[str, str], bool] = lambda item, name: True
) -> tuple[Material, ...]:
    """Return the bill of material: every device with its ratings.

    Parameters
    ----------
    circuit : Circuit
        Devices and tags.
    is_known : callable, optional
        Whether a rating (device, parameter) that has to be sized was sized or entered. One
        that was not is listed without a value.
    """
    rows = []
    for item in circuit.netlist.devices:
        if item.type not in types() or item.type == "supply":
            continue
        known = {parameter.name: parameter for parameter in type_of(item.type).parameters}
        ratings = []
        for name in _RATED:
            if name not in known or (item.type, name) in _MODELLED or item.type.startswith("motor"):
                continue
            if name == "prim" and item.parameters.get("taps"):
                continue  # one tapped primary has no halves
            if is_sized_for_job(item, name) and not is_known(item.id, name):
                ratings.append((name, "", ""))
            elif item.parameters.get(name):
                ratings.append((name, item.parameters[name], known[name].unit))
        listed = item.parameters.get("aux") or item.parameters.get("c") or ""
        tag = circuit.tags.get(item.id, item.id)
        rows.append(
            Material(tag, item.id, item.type, tuple(ratings), listed, _on_add_ons(item, listed))
        )
    return tuple(rows)


#: what a contactor of most makes has on its own frame
_BUILT_IN = ("13-14", "21-22")


def _on_add_ons(item: Device, listed: str) -> str:
    """Return the auxiliaries of a contactor that need an add-on contact block.

    One closing and one opening auxiliary are taken as built in, which differs from make to make:
    a judgment of practice, said with the list.
    """
    if item.type != "contactor":
        return ""
    return ",".join(one for one in listed.split(",") if one and one not in _BUILT_IN)
