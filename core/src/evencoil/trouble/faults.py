"""Every single fault of a circuit, as a changed netlist or a device that fails; and told pairs.

A pair stands only where one cause makes both: a lost line and the overload that it tripped.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

from evencoil.base import Message
from evencoil.checks import WiringFault, contact_faults, moved_wires
from evencoil.circuit import (
    CONTACTS,
    Circuit,
    Device,
    Link,
    Netlist,
    Wire,
    coils_of,
    links_of,
    winding_of_type,
)
from evencoil.trouble.tables import Age, odds_table, unplayed

__all__ = ["Fault", "faults_of", "kinds_of", "weights_of"]

#: an action of the solver that puts a device into its fault: verb, device, word
Put = tuple[str, str, str]

_FIELD = {"pb", "estop", "sel", "pilot", "thermostat", "ptc", "rtd", "zss", "drum"}
_JUMPED = {"pb", "estop", "pilot", "olr", "contactor", "relay", "thermostat"}
#: ohms of a bad joint: what a coil feed cannot take, and what a motor lead feels
JOINT_OHM = {"control": "150", "power": "0.5"}
_SAG = "0.65"
_LOADED = "1.6"
_LONG_TIMES = 20.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Fault:
    """One thing wrong, or two with one cause.

    Attributes
    ----------
    id : str
        Lasting: kind and place by ids, never by tags.
    row : str
        Of the table of odds.
    said : Message
        What is wrong, with tags and terminals.
    also : Message or None
        The second of a pair.
    repair : str
        Key of what mends it: ``trouble.repair.KEY``.
    on : frozenset of str
        Devices it is on, for the drawing.
    wire : str
        The wire it is on; empty where none is.
    netlist : Netlist
        With what is wired wrong.
    puts : tuple
        What fails, in the solver's verbs.
    joints : tuple of str
        Terminals that can come loose in it.
    left : frozenset of str
        Devices that no one operates: left off.
    is_work : bool
        Only a hand does it: after work.
    is_played : bool
        False where the model has it not: it goes by odds alone.
    shows : frozenset of str
        Symptoms that are known without playing.
    """

    id: str
    row: str
    said: Message
    repair: str
    on: frozenset[str]
    netlist: Netlist
    also: Message | None = None
    wire: str = ""
    puts: tuple[Put, ...] = ()
    joints: tuple[str, ...] = ()
    left: frozenset[str] = frozenset()
    is_work: bool = False
    is_played: bool = True
    shows: frozenset[str] = field(default_factory=frozenset)


class _Maker:
    """The circuit, and the faults of each of its things."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.netlist = circuit.netlist
        self.devices: Mapping[str, Device] = {item.id: item for item in self.netlist.devices}
        self.wired = {end for wire in self.netlist.wires for end in (wire.start, wire.end)}
        self.nets = self.netlist.nets()
        self.earth = {
            net
            for end, net in self.nets.items()
            if end.rpartition(".")[2] == "PE" and end in self.wired
        }
        self.secondary = self._secondary()
        self.power_wires = {wire.id for wire in self.netlist.wires if self._is_power(wire)}
        self.power_nets = {
            self.nets[wire.start] for wire in self.netlist.wires if wire.id in self.power_wires
        }

    def _secondary(self) -> set[int]:
        """Return the nets of each control transformer's secondary and of separate sources."""
        return {
            self.nets[f"{item.id}.{end}"]
            for item in self.netlist.devices
            if item.type in {"xfmr", "source", "psu"}
            for end in item.terminals
            if end[:1] in {"X", "L", "N", "+", "-"}
        }

    def kind(self, terminal: str) -> str:
        item = self.devices.get(terminal.rpartition(".")[0])
        return item.type if item else ""

    def make(
        self, kind: str, place: str, row: str, params: Mapping[str, str], **more: object
    ) -> Fault:
        on = frozenset(part.split(".")[0] for part in place.split("~") if part)
        fields: dict[str, object] = {
            "id": f"{kind}:{place}",
            "row": row,
            "said": Message(f"trouble.fault.{kind}", params),
            "repair": kind,
            "on": on & set(self.devices),
            "netlist": self.netlist,
            **more,
        }
        return Fault(**fields)  # type: ignore[arg-type]  # gathered by name above

    def put(
        self, kind: str, device: str, row: str, verb: str, word: str = "", **params: str
    ) -> Fault:
        place = f"{device}.{word.replace(' ', '.')}" if word else device
        return self.make(
            kind,
            place,
            row,
            {"tag": self.circuit.named(device), "word": word, **params},
            puts=((verb, device, word),),
        )

    def loose(self, kind: str, device: str, end: str) -> Fault:
        """Return a device that a terminal of its own no longer reaches."""
        return self.make(
            kind,
            device,
            kind,
            {"tag": self.circuit.named(device)},
            joints=(end,),
            puts=(("loosen", end, ""),),
        )

    # wires

    def place_of(self, wire: Wire) -> str:
        kinds = {self.kind(wire.start), self.kind(wire.end)}
        if "supply" in kinds:
            return "line_lost"
        if "joint" in kinds or any(kind.startswith("motor") for kind in kinds):
            is_inside = all(kind == "joint" or kind.startswith("motor") for kind in kinds)
            return "motor_lead_open" if is_inside else "wire_open.motor"
        if "tb" in kinds:
            return "wire_open.block"
        if kinds & _FIELD:
            return "wire_open.field"
        return "wire_open.power" if wire.id in self.power_wires else "wire_open.control"

    def _is_power(self, wire: Wire) -> bool:
        """Tell whether a wire carries the motor's current: both ends are poles or heaters."""
        for end in (wire.start, wire.end):
            owner, _, name = end.rpartition(".")
            item = self.devices[owner]
            if item.type in {"joint", "supply", "autox"} or item.type.startswith("motor"):
                continue
            if item.type == "drive" and name in {"L1", "L2", "L3", "U", "V", "W"}:
                continue
            if not any(
                name in {link.a, link.b} and link.kind in {"pole", "heat"}
                for link in links_of(item)
            ):
                return False
        return True

    def wires(self) -> Iterator[Fault]:
        for wire in self.netlist.wires:
            is_earth = self.nets[wire.start] in self.earth
            if is_earth and self.nets[wire.start] not in self.secondary:
                continue
            params = {"one": self.circuit.said(wire.start), "other": self.circuit.said(wire.end)}
            rest = tuple(one for one in self.netlist.wires if one.id != wire.id)
            place = f"{wire.start}~{wire.end}"
            yield self.make(
                "wire_open",
                place,
                self.place_of(wire),
                params,
                wire=wire.id,
                netlist=replace(self.netlist, wires=rest),
            )

    def joints(self) -> Iterator[Fault]:
        """Go through the screws: a bad joint at each, with all the wires on it."""
        for end in sorted(self.wired):
            kind = self.kind(end)
            if (
                kind in {"joint", "supply"}
                or kind.startswith("motor")
                or self.nets[end] in self.earth
            ):
                continue
            wires = self.netlist.wires_at(end)
            size = "power" if any(wire.id in self.power_wires for wire in wires) else "control"
            yield self.make(
                "joint",
                end,
                f"joint.{size}",
                {"one": self.circuit.said(end), "ohm": JOINT_OHM[size]},
                wire=wires[0].id,
                joints=(end,),
                puts=(("loosen", end, JOINT_OHM[size]),),
                # half an ohm in a motor lead moves nothing: what it shows is its own heat
                is_played=size == "control",
                shows=frozenset({"runs_hot", "runs_rough"} if size == "power" else ()),
            )

    def grounds(self) -> Iterator[Fault]:
        """Go through the control nets: one place in each, in the field where it can be."""
        seen: set[int] = set()
        # by name too: a fault's id is the same in every process
        order = sorted(self.wired, key=lambda end: (self.kind(end) not in _FIELD, end))
        for end in order:
            net = self.nets[end]
            item = self.devices[end.rpartition(".")[0]]
            if net in seen or net in self.earth or net in self.power_nets:
                continue
            if item.type in {"supply", "joint"} or item.type.startswith("motor"):
                continue
            seen.add(net)
            yield self.make(
                "ground",
                end,
                "wire_ground",
                {"one": self.circuit.said(end)},
                puts=(("ground", end, ""),),
            )

    def mistakes(self) -> Iterator[Fault]:
        """Go through what only a hand does: a neighbor screw, exchanged contacts, a jumper."""
        for one in moved_wires(self.circuit):
            yield self._mistake(
                "moved", "wire_moved", one, f"{one.wire}~{(one.joint or ('', ''))[1]}"
            )
        for one in contact_faults(self.circuit):
            device = next(iter(one.devices))
            if one.kind == "swapped":
                place = f"{device}.{one.message.params['one']}.{one.message.params['other']}"
                yield self._mistake("swapped", "wires_exchanged", one, place)
            elif one.joint and self.devices[device].type in _JUMPED:
                name = one.joint[0].rpartition(".")[2]
                link = next(
                    (link for link in links_of(self.devices[device]) if name in {link.a, link.b}),
                    None,
                )
                if link is not None and link.kind in CONTACTS:
                    yield self._mistake("jumper", "jumper", one, "~".join(one.joint), is_work=False)

    def _mistake(
        self, kind: str, row: str, one: WiringFault, place: str, *, is_work: bool = True
    ) -> Fault:
        return replace(
            self.make(kind, place, row, {}, netlist=one.netlist, is_work=is_work),
            said=one.message,
            wire=one.wire,
            on=one.devices,
        )

    # devices

    def device(self, item: Device) -> Iterator[Fault]:
        for link in links_of(item):
            ends = {f"{item.id}.{link.a}", f"{item.id}.{link.b}"}
            if link.kind in CONTACTS and ends <= self.wired:
                yield from self._contact(item, link)
        make = _BY_TYPE.get(item.type)
        if make is not None:
            yield from make(self, item)
        elif item.type.startswith("motor"):
            yield from self.motor(item)

    def _contact(self, item: Device, link: Link) -> Iterator[Fault]:
        row = {
            "pb": "no_make.button",
            "estop": "no_make.estop",
            "sel": "no_make.selector",
            "drum": "no_make.selector",
            "pilot": "no_make.sensor",
            "relay": "no_make.relay",
            "contactor": "no_make.auxiliary",
            "olr": "no_make.overload",
            "timer": "no_make.timer",
            "sdtimer": "no_make.timer",
            "plc": "output_open",
        }.get(item.type, "no_make.relay")
        yield self.put("no_make", item.id, row, "fail", f"{link.name} open", contact=link.name)
        row = "weld.output" if item.type == "plc" else "no_break"
        if item.type in {"pb", "pilot", "plc", "relay"}:
            yield self.put(
                "no_break", item.id, row, "fail", f"{link.name} closed", contact=link.name
            )

    def contactor(self, item: Device) -> Iterator[Fault]:
        kind = "relay" if item.type == "relay" else "contactor"
        yield self.put("coil_open", item.id, f"coil_open.{kind}", "open_coil")
        yield self.put("armature_blocked", item.id, "armature_blocked", "hold_out")
        poles = [link for link in links_of(item) if link.kind == "pole"]
        used = [link for link in poles if f"{item.id}.{link.a}" in self.wired]
        if used:
            yield self.put("weld", item.id, "weld.contactor", "weld")
        for link in used:
            yield self.put(
                "pole_open",
                item.id,
                "pole_open.contactor",
                "fail",
                f"{link.name} open",
                contact=link.name,
            )
        volts = float(item.parameters.get("coil", "120") or 120)
        wrong = replace(item, parameters={**item.parameters, "coil": f"{2 * volts:g}"})
        yield self.make(
            "coil_wrong",
            item.id,
            "coil_wrong",
            {"tag": self.circuit.named(item.id), "volts": f"{2 * volts:g}"},
            netlist=self._with(wrong),
            is_work=True,
        )

    def _with(self, changed: Device) -> Netlist:
        return replace(
            self.netlist,
            devices=tuple(changed if one.id == changed.id else one for one in self.netlist.devices),
        )

    def fuse(self, item: Device) -> Iterator[Fault]:
        ends = {self.nets[f"{item.id}.{end}"] for end in item.terminals}
        row = "fuse_blown.secondary" if ends & self.secondary else "fuse_blown.primary"
        yield self.put("fuse_blown", item.id, row, "blow")
        end = f"{item.id}.1"
        if end in self.wired:
            yield self.loose("fuse_holder", item.id, end)

    def main(self, item: Device) -> Iterator[Fault]:
        tag = {"tag": self.circuit.named(item.id)}
        yield self.make("left_off", item.id, "left_off", tag, left=frozenset({item.id}))
        poles = [link for link in links_of(item) if link.kind == "pole"]
        for number, link in enumerate(poles, start=1):
            if f"{item.id}.{link.a}" not in self.wired:
                continue
            if item.type == "fdisc":
                yield self.put("fuse_blown", item.id, "fuse_blown.motor", "blow", str(number))
            else:
                yield self.put(
                    "pole_open",
                    item.id,
                    "pole_open.breaker",
                    "fail",
                    f"{link.name} open",
                    contact=link.name,
                )
        if item.type in {"cb3", "mms"}:
            yield self.make(
                "tripped_breaker",
                item.id,
                "breaker_tripped",
                tag,
                puts=(("close", item.id, ""), ("trip", item.id, "")),
                left=frozenset({item.id}),
            )

    def overload(self, item: Device) -> Iterator[Fault]:
        yield self.put("overload_tripped", item.id, "overload_tripped", "trip")

    def estop(self, item: Device) -> Iterator[Fault]:
        yield self.make(
            "pressed_in",
            item.id,
            "left_off",
            {"tag": self.circuit.named(item.id)},
            puts=(("press", item.id, ""),),
            left=frozenset({item.id}),
        )

    def timer(self, item: Device) -> Iterator[Fault]:
        coil = next((link for link in links_of(item) if link.kind == "coil"), None)
        if coil is not None:
            yield self.loose("timer_dead", item.id, f"{item.id}.{coil.a}")
        delay = float(item.parameters.get("t", "5") or 5)
        long = replace(item, parameters={**item.parameters, "t": f"{_LONG_TIMES * delay:g}"})
        yield self.make(
            "timer_set",
            item.id,
            "timer_set",
            {"tag": self.circuit.named(item.id), "time": f"{_LONG_TIMES * delay:g}"},
            netlist=self._with(long),
        )

    def transformer(self, item: Device) -> Iterator[Fault]:
        end = f"{item.id}.X1"
        if end in self.wired:
            yield self.loose("transformer_open", item.id, end)

    def supply(self, item: Device) -> Iterator[Fault]:
        for end in item.terminals:
            if end in {"L1", "L2", "L3"} and f"{item.id}.{end}" in self.wired:
                yield self.put(
                    "line_lost",
                    item.id,
                    "line_lost",
                    "lose",
                    end,
                    line=self.circuit.said(f"{item.id}.{end}"),
                )
        yield self.put("supply_low", item.id, "supply_low", "sag", _SAG)
        if f"{item.id}.L3" in self.wired:
            yield self.put("lines_exchanged", item.id, "lines_exchanged", "swaplines")

    def motor(self, item: Device) -> Iterator[Fault]:
        yield self.put("jam", item.id, "load", "jam")
        yield self.put("loaded", item.id, "load", "load", _LOADED)
        for coil in coils_of(item.type, item.parameters):
            yield self.put("winding_open", item.id, "winding_open", "cut", coil.name)
        ends = [f"{item.id}.{end}" for end in item.terminals if end != "PE"]
        ends = [end for end in ends if end in self.wired]
        for end in ends[:1]:
            yield self.make(
                "winding_ground",
                end,
                "winding_ground",
                {"tag": self.circuit.named(item.id)},
                puts=(("ground", end, ""),),
            )
        yield from self._exchanged(item)

    def _exchanged(self, item: Device) -> Iterator[Fault]:
        """Exchange what feeds two leads of the motor at its box."""
        feeds = [
            wire
            for wire in self.netlist.wires
            if self.place_of(wire) == "wire_open.motor" and self.nets[wire.start] not in self.earth
        ]
        own = {item.id} | {
            one.id
            for one in self.netlist.devices
            if one.type == "joint"
            and any(
                self.nets[f"{one.id}.{end}"] == self.nets[f"{item.id}.{lead}"]
                for end in one.terminals
                for lead in item.terminals
            )
        }
        at = [
            wire
            for wire in feeds
            if {wire.start.rpartition(".")[0], wire.end.rpartition(".")[0]} & own
        ]
        if len(at) < 3:
            return
        one, other = at[0], at[1]

        def box_end(wire: Wire) -> str:
            return wire.end if wire.end.rpartition(".")[0] in own else wire.start

        a, b = box_end(one), box_end(other)
        swapped = {
            one.id: replace(one, **{"end" if one.end == a else "start": b}),
            other.id: replace(other, **{"end" if other.end == b else "start": a}),
        }
        yield self.make(
            "leads_exchanged",
            f"{a}~{b}",
            "motor_leads_exchanged",
            {"one": self.circuit.said(a), "other": self.circuit.said(b)},
            netlist=replace(
                self.netlist,
                wires=tuple(swapped.get(wire.id, wire) for wire in self.netlist.wires),
            ),
            is_work=True,
        )

    # pairs, and what is not played

    def pairs(self, single: Sequence[Fault]) -> Iterator[Fault]:
        """Go through lost lines and jams that have tripped the overload by now."""
        trips = [one for one in single if one.repair == "overload_tripped"]
        causes = {
            "fuse_blown.motor",
            "pole_open.contactor",
            "pole_open.breaker",
            "line_lost",
            "load",
        }
        for cause in single:
            if cause.row not in causes or cause.repair == "wire_open":
                continue
            for trip in trips[:1]:
                yield replace(
                    cause,
                    id=f"{cause.id}+{trip.id}",
                    also=trip.said,
                    repair="pair",
                    puts=(*cause.puts, *trip.puts),
                    on=cause.on | trip.on,
                )

    def by_odds(self) -> Iterator[Fault]:
        kinds = set[str]().union(*(kinds_of(item) for item in self.netlist.devices))
        for one in unplayed():
            needed = [item for item in self.netlist.devices if kinds_of(item) & one.needs]
            if one.row == "unloader" and "pilot" not in kinds and "motor1" not in kinds:
                continue
            if needed:
                item = needed[0]
                yield self.make(
                    one.row,
                    item.id,
                    one.row,
                    {"tag": self.circuit.named(item.id)},
                    is_played=False,
                    shows=one.symptoms,
                )


def kinds_of(item: Device) -> frozenset[str]:
    """Return what a device is to the tables: its type, and ``motor1`` for one phase.

    Parameters
    ----------
    item : Device
        Of a circuit.
    """
    is_single = item.type.startswith("motor") and winding_of_type(
        item.type, item.parameters
    ).kind.startswith("1-phase")
    return frozenset({"motor1"} if is_single else {item.type})


_BY_TYPE = {
    "contactor": _Maker.contactor,
    "relay": _Maker.contactor,
    "fuse": _Maker.fuse,
    "cb3": _Maker.main,
    "fdisc": _Maker.main,
    "mms": _Maker.main,
    "isolator": _Maker.main,
    "olr": _Maker.overload,
    "estop": _Maker.estop,
    "timer": _Maker.timer,
    "sdtimer": _Maker.timer,
    "xfmr": _Maker.transformer,
    "supply": _Maker.supply,
}


def faults_of(circuit: Circuit, *, with_work: bool = True) -> tuple[Fault, ...]:
    """Return every single fault of a circuit, and the pairs of one cause.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    with_work : bool
        Also what only a hand does: wires on neighbor screws, exchanged, coils of other volts.
    """
    maker = _Maker(circuit)
    found = [*maker.wires(), *maker.joints(), *maker.grounds()]
    for item in circuit.netlist.devices:
        found += maker.device(item)
    found += maker.mistakes()
    if not with_work:
        found = [one for one in found if not one.is_work]
    found += [*maker.pairs(found), *maker.by_odds()]
    return tuple({one.id: one for one in found}.values())


def weights_of(
    faults: Sequence[Fault], age: Age, counted: Mapping[str, float] | None = None
) -> list[float]:
    """Return the odds of each fault before any reading: those of its kind, shared by all alike.

    Parameters
    ----------
    faults : sequence of Fault
        Of one circuit.
    age : str
        Of the panel, or ``y0`` just after work.
    counted : mapping, optional
        Row to how often the plant's closed hunts proved it; a not proven one counts a quarter.

    Notes
    -----
    The plant's counts are added to the table's odds, which stand for 100 hunts in all.
    """
    table, counted = odds_table(), counted or {}
    whole = sum(row.odds[age] for row in table.values())
    alike: dict[str, int] = {}
    for one in faults:
        if one.repair != "pair":
            alike[one.row] = alike.get(one.row, 0) + 1
    pairs = sum(one.repair == "pair" for one in faults)
    found = []
    for one in faults:
        own = 100 * table[one.row].odds[age] / whole + counted.get(one.row, 0.0)
        if one.repair == "pair":
            own = 100 * table["overload_tripped"].odds[age] / whole
            found.append(own / max(1, pairs))
        else:
            found.append(own / alike[one.row])
    return found
