"""What differs between two netlists of one origin: the standard circuit, and the actual one."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, say
from evencoil.circuit.text import Circuit

__all__ = ["Difference", "differences"]

What = Literal[
    "wire_off", "wire_on", "wire_moved", "device_off", "device_on", "setting", "tag", "maker"
]


@dataclass(frozen=True, slots=True)
class Difference:
    """One difference, with the wire or device that it is about."""

    what: What
    on: str
    message: Message


def differences(before: Circuit, after: Circuit) -> tuple[Difference, ...]:
    """Return what changed from one circuit to another with the same ids.

    Parameters
    ----------
    before : Circuit
        For example as the standard circuit draws it.
    after : Circuit
        With its edits.
    """
    return (*_devices(before, after), *_wires(before, after), *_makers(before, after))


def _makers(before: Circuit, after: Circuit) -> Iterator[Difference]:
    for wire in after.netlist.wires:
        if wire.id in after.makers - before.makers:
            ends = {"start": after.said(wire.start), "end": after.said(wire.end)}
            yield Difference("maker", wire.id, Message("diff.maker", ends))


def _devices(before: Circuit, after: Circuit) -> Iterator[Difference]:
    old = {item.id: item for item in before.netlist.devices}
    new = {item.id: item for item in after.netlist.devices}
    for name, item in old.items():
        tag = before.tags.get(name, name)
        if name not in new:
            yield Difference("device_off", name, Message("diff.device_off", {"tag": tag}))
            continue
        there = new[name]
        if after.tags.get(name, name) != tag:
            params = {"tag": tag, "new": after.tags.get(name, name)}
            yield Difference("tag", name, Message("diff.tag", params))
        for key in sorted({*item.parameters, *there.parameters}):
            was, now = item.parameters.get(key, ""), there.parameters.get(key, "")
            if was != now:
                params = {"tag": tag, "name": key, "was": was or "—", "now": now or "—"}
                yield Difference("setting", name, Message("diff.setting", params))
    for name, item in new.items():
        if name not in old:
            params = {"tag": after.tags.get(name, name), "type": say(Message(f"type.{item.type}"))}
            yield Difference("device_on", name, Message("diff.device_on", params))


def _wires(before: Circuit, after: Circuit) -> Iterator[Difference]:
    old = {wire.id: wire for wire in before.netlist.wires}
    new = {wire.id: wire for wire in after.netlist.wires}
    for name, wire in old.items():
        ends = {"start": before.said(wire.start), "end": before.said(wire.end)}
        if name not in new:
            yield Difference("wire_off", name, Message("diff.wire_off", ends))
        elif {new[name].start, new[name].end} != {wire.start, wire.end}:
            there = new[name]
            params = {
                **ends,
                "new_start": after.said(there.start),
                "new_end": after.said(there.end),
            }
            yield Difference("wire_moved", name, Message("diff.wire_moved", params))
    for name, wire in new.items():
        if name not in old:
            ends = {"start": after.said(wire.start), "end": after.said(wire.end)}
            yield Difference("wire_on", name, Message("diff.wire_on", ends))
