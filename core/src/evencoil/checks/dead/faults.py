"""Single wiring faults that people make, one changed netlist for each."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

from evencoil.base import Message
from evencoil.circuit import CONTACTS, Circuit, Netlist, Wire, links_of, said_end

__all__ = ["FaultKind", "contact_faults", "missing_wires", "moved_wires", "wiring_faults"]

#: no one lands a control wire on a pole, or the other way round
_POLES = {"1L1", "2T1", "3L2", "4T2", "5L3", "6T3"}


FaultKind = Literal["missing", "swapped", "jumper", "moved"]


def _without(netlist: Netlist, wire: str) -> Netlist:
    return replace(netlist, wires=tuple(item for item in netlist.wires if item.id != wire))


@dataclass(frozen=True, slots=True, kw_only=True)
class WiringFault:
    """A netlist with one thing wired wrong.

    Attributes
    ----------
    kind : str
        What it is.
    message : Message
        Its words.
    wire : str
        The wire that is wrong; empty where none is.
    base : Netlist
        Without the wrong wire, or with the contacts exchanged.
    devices : frozenset of str
        What the wrong wire, or the exchanged contacts, are on.
    joint : (str, str), optional
        Where a wire is that should not be: with it, the base is the netlist of the fault.
    """

    kind: FaultKind
    message: Message
    wire: str
    base: Netlist
    devices: frozenset[str]
    joint: tuple[str, str] | None = None

    @property
    def netlist(self) -> Netlist:
        """Return the whole of it."""
        if self.joint is None:
            return self.base
        extra = Wire(f"{self.wire or self.joint[0]}.wrong", *self.joint)
        return replace(self.base, wires=(*self.base.wires, extra))


def wiring_faults(circuit: Circuit) -> Iterator[WiringFault]:
    """Go through every single wiring mistake: a wire missing or moved, contacts exchanged."""
    yield from missing_wires(circuit)
    yield from moved_wires(circuit)
    yield from contact_faults(circuit)


def _parts_alike(one: Netlist, other: Netlist) -> bool:
    """Tell whether two netlists of the same devices join the same terminals."""
    seen: dict[int, int] = {}
    back: dict[int, int] = {}
    there = other.nets()
    for terminal, net in one.nets().items():
        far = there[terminal]
        if seen.setdefault(net, far) != far or back.setdefault(far, net) != net:
            return False
    return True


def missing_wires(circuit: Circuit) -> Iterator[WiringFault]:
    """Leave out each wire in turn."""
    netlist = circuit.netlist
    for wire in netlist.wires:
        params = {"start": circuit.said(wire.start), "end": circuit.said(wire.end)}
        yield WiringFault(
            kind="missing",
            message=Message("dead.missing", params),
            wire=wire.id,
            base=_without(netlist, wire.id),
            devices=_owners(wire.start, wire.end),
        )


def contact_faults(circuit: Circuit) -> Iterator[WiringFault]:
    """Exchange contacts of one device; bridge each contact, pole, heater and fuse that is wired.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    """
    netlist = circuit.netlist
    wired = {end for wire in netlist.wires for end in (wire.start, wire.end)}
    for item in netlist.devices:
        contacts = [link for link in links_of(item) if link.kind in CONTACTS]
        tag = circuit.tags.get(item.id, item.id)
        for one, other in combinations(contacts, 2):
            if one.kind != other.kind:
                turned = _swapped(netlist, item.id, {one.a: other.a, one.b: other.b})
                if _parts_alike(netlist, turned):
                    continue
                said = Message(
                    "dead.swapped",
                    {"tag": tag, "one": f"{one.a}-{one.b}", "other": f"{other.a}-{other.b}"},
                )
                yield WiringFault(
                    kind="swapped",
                    message=said,
                    wire="",
                    base=turned,
                    devices=frozenset({item.id}),
                )
        for link in links_of(item):
            if link.kind not in {*CONTACTS, "fuse", "pole", "heat"}:
                continue
            joint = (f"{item.id}.{link.a}", f"{item.id}.{link.b}")
            if not wired.issuperset(joint):
                continue
            said = Message(
                "dead.jumper", {"tag": tag, "one": said_end(link.a), "other": said_end(link.b)}
            )
            yield WiringFault(
                kind="jumper",
                message=said,
                wire="",
                base=netlist,
                joint=joint,
                devices=frozenset({item.id}),
            )


def _swapped(netlist: Netlist, device: str, pairs: Mapping[str, str]) -> Netlist:
    both = {**pairs, **{value: key for key, value in pairs.items()}}

    def end(terminal: str) -> str:
        owner, _, name = terminal.rpartition(".")
        return f"{owner}.{both[name]}" if owner == device and name in both else terminal

    return replace(
        netlist,
        wires=tuple(
            replace(wire, start=end(wire.start), end=end(wire.end)) for wire in netlist.wires
        ),
    )


def moved_wires(circuit: Circuit) -> Iterator[WiringFault]:
    """Land each end of each wire on another terminal of the same device.

    What joins the same terminals as before is no mistake.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    """
    netlist = circuit.netlist
    devices = {item.id: item for item in netlist.devices}
    for wire in netlist.wires:
        base = _without(netlist, wire.id)
        nets = base.nets()
        as_drawn = {nets[wire.start], nets[wire.end]}
        for at, far in ((wire.start, wire.end), (wire.end, wire.start)):
            owner, _, name = at.rpartition(".")
            item = devices.get(owner)
            if item is None or item.type in {"joint", "supply"}:
                continue
            for other in item.terminals:
                landed = f"{owner}.{other}"
                if other == name or (other in _POLES) != (name in _POLES):
                    continue
                joins = {nets[far], nets[landed]}
                # joined as drawn, or no new joint where the wire was one too many
                if joins == as_drawn or len(joins) == len(as_drawn) == 1:
                    continue
                params = {
                    "far": circuit.said(far),
                    "at": circuit.said(at),
                    "other": circuit.said(landed),
                }
                yield WiringFault(
                    kind="moved",
                    message=Message("dead.moved", params),
                    wire=wire.id,
                    base=base,
                    joint=(far, landed),
                    devices=_owners(at, far),
                )


def _owners(*terminals: str) -> frozenset[str]:
    """Return the devices that terminals stand on."""
    return frozenset(name.rpartition(".")[0] for name in terminals)
