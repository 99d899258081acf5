"""What people change on a drawn circuit: an ordered list of edits, replayed.

A standard circuit makes the netlist anew whenever an option changes; the edits are then
done again in their order. One that no longer finds its wire or terminal is
reported, never dropped: it stays in the list and a person decides.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from evencoil.base import CoreError, Message
from evencoil.circuit.editor import CircuitEditor
from evencoil.circuit.library import device
from evencoil.circuit.netlist import Device, Wire
from evencoil.circuit.text import Circuit

__all__ = ["Edit", "EditKind", "Replayed", "move_ends", "replay", "swap_ends"]

EditKind = Literal[
    "add_wire", "remove_wire", "move_end", "add_device", "remove_device", "set", "tag", "maker"
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Edit:
    """One change, by whom and why.

    Attributes
    ----------
    id : str
        Lasting id; the id of the wire or device that an ``add`` makes.
    kind : str
        What is done.
    wire : str
        Wire that is removed, moved, or marked as a maker's link.
    start, end : str
        Ends of a new wire, the second empty if no one knows it; for ``move_end`` from and to.
    device : str
        Device that is set, tagged or removed.
    type : str
        Type of a new device.
    parameters : mapping
        Parameters of a new device, or those that are set.
    tag : str
        Tag of a new device, or its new tag; the number on the ferrule of a new wire.
    """

    id: str
    kind: EditKind
    wire: str = ""
    start: str = ""
    end: str = ""
    device: str = ""
    type: str = ""
    parameters: Mapping[str, str] = field(default_factory=dict)
    tag: str = ""
    by: str = ""
    at: str = ""
    why: str = ""


@dataclass(frozen=True, slots=True)
class Replayed:
    """A circuit with its edits done, and those that no longer apply."""

    circuit: Circuit
    stale: tuple[tuple[Edit, Message], ...]


class _Stale(Exception):  # noqa: N818 - a signal inside this module, not an error of anybody
    def __init__(self, message: Message) -> None:
        super().__init__(message.id)
        self.message = message


class _Replay:
    """Edits being done on a circuit, one after another."""

    def __init__(self, circuit: Circuit) -> None:
        self.editor = CircuitEditor(circuit)

    def need(self, terminal: str) -> None:
        owner, _, name = terminal.rpartition(".")
        if owner not in self.editor.devices or name not in self.editor.devices[owner].terminals:
            raise _Stale(Message("edit.no_terminal", {"terminal": terminal[:60]}))

    def do(self, edit: Edit) -> None:
        getattr(self, f"_{edit.kind}")(edit)

    def _add_wire(self, edit: Edit) -> None:
        self.need(edit.start)
        end = edit.end or self._unknown(edit)
        self.need(end)
        self.editor.wires[edit.id] = Wire(edit.id, edit.start, end)
        if edit.tag:
            self.editor.numbers[edit.id] = edit.tag

    def _unknown(self, edit: Edit) -> str:
        """Return an end that no one knows, of its own."""
        name = f"unknown.{edit.id}"
        self.editor.devices[name] = device("unknown_end", name)
        self.editor.tags[name] = (
            f"?{sum(item.type == 'unknown_end' for item in self.editor.devices.values())}"
        )
        return f"{name}.?"

    def _wire(self, edit: Edit) -> Wire:
        if edit.wire not in self.editor.wires:
            raise _Stale(Message("edit.no_wire", {"wire": edit.wire[:80]}))
        return self.editor.wires[edit.wire]

    def _remove_wire(self, edit: Edit) -> None:
        del self.editor.wires[self._wire(edit).id]
        self.editor.numbers.pop(edit.wire, None)

    def _move_end(self, edit: Edit) -> None:
        wire = self._wire(edit)
        self.need(edit.end)
        if edit.start == wire.start:
            self.editor.wires[wire.id] = replace(wire, start=edit.end)
        elif edit.start == wire.end:
            self.editor.wires[wire.id] = replace(wire, end=edit.end)
        else:
            raise _Stale(
                Message("edit.other_end", {"wire": edit.wire[:80], "terminal": edit.start[:60]})
            )
        self.editor.numbers.pop(wire.id, None)

    def _add_device(self, edit: Edit) -> None:
        try:
            self.editor.devices[edit.id] = device(edit.type, edit.id, edit.parameters)
        except CoreError as wrong:
            raise _Stale(wrong.message) from wrong
        self.editor.tags[edit.id] = edit.tag or edit.id

    def _known(self, edit: Edit) -> Device:
        if edit.device not in self.editor.devices:
            raise _Stale(Message("edit.no_device", {"device": edit.device[:60]}))
        return self.editor.devices[edit.device]

    def _remove_device(self, edit: Edit) -> None:
        item = self._known(edit)
        ends = {f"{item.id}.{terminal}" for terminal in item.terminals}
        self.editor.wires = {
            wire.id: wire
            for wire in self.editor.wires.values()
            if wire.start not in ends and wire.end not in ends
        }
        del self.editor.devices[item.id]
        self.editor.tags.pop(item.id, None)

    def _set(self, edit: Edit) -> None:
        item = self._known(edit)
        given = {**item.parameters, **edit.parameters}
        try:
            made = device(item.type, item.id, given)
        except CoreError as wrong:
            raise _Stale(wrong.message) from wrong
        lost = {f"{item.id}.{name}" for name in set(item.terminals) - set(made.terminals)}
        held = [
            wire.id for wire in self.editor.wires.values() if wire.start in lost or wire.end in lost
        ]
        if held:
            raise _Stale(Message("edit.still_wired", {"wire": held[0][:80]}))
        self.editor.devices[item.id] = made

    def _maker(self, edit: Edit) -> None:
        """Mark a wire as a link that the maker fitted, or as an ordinary one again."""
        self.editor.makers ^= {self._wire(edit).id}

    def _tag(self, edit: Edit) -> None:
        self.editor.tags[self._known(edit).id] = edit.tag


def replay(circuit: Circuit, edits: Sequence[Edit]) -> Replayed:
    """Do edits in their order.

    Parameters
    ----------
    circuit : Circuit
        As the standard circuit draws it.
    edits : sequence of Edit
        Oldest first.

    Returns
    -------
    Replayed
        The circuit, and each edit that did not apply with the reason.
    """
    replaying = _Replay(circuit)
    stale = []
    for edit in edits:
        try:
            replaying.do(edit)
        except _Stale as reason:
            stale.append((edit, reason.message))
    return Replayed(replaying.editor.circuit(), tuple(stale))


def swap_ends(circuit: Circuit, one: str, other: str, prefix: str) -> tuple[Edit, ...]:
    """Return the edits that exchange everything on two terminals.

    Parameters
    ----------
    circuit : Circuit
        As it stands.
    one : str
        A terminal as ``device.terminal``.
    other : str
        The other one.
    prefix : str
        Start of the new edits' ids.
    """
    return move_ends(circuit, {one: other, other: one}, prefix)


def move_ends(circuit: Circuit, to: Mapping[str, str], prefix: str) -> tuple[Edit, ...]:
    """Return the edits that move everything on some terminals to others.

    Parameters
    ----------
    circuit : Circuit
        As it stands.
    to : mapping
        Terminals as ``device.terminal``, each to where what is on it goes; wires between two of
        them stay.
    prefix : str
        Start of the new edits' ids.
    """
    found: list[Edit] = []
    for wire in circuit.netlist.wires:
        if {wire.start, wire.end} <= set(to):
            continue
        for end in (wire.start, wire.end):
            if end in to:
                found.append(
                    Edit(
                        id=f"{prefix}.{len(found)}",
                        kind="move_end",
                        wire=wire.id,
                        start=end,
                        end=to[end],
                    )
                )
    return tuple(found)
