"""What a rehearsal has to show before power may come: every motor run and stopped, no hazard.

Source: judgment; a circuit that was only drawn is not one that was played.
"""

from __future__ import annotations

from collections.abc import Iterator

from evencoil.base import Message
from evencoil.circuit import Circuit
from evencoil.rehearsal.trace import Trace

__all__ = ["missing_of"]

_STILL = {"off", "coast"}


def missing_of(circuit: Circuit, trace: Trace) -> Iterator[Message]:
    """Go through what a rehearsal does not show yet; nothing is missing of a good one.

    Parameters
    ----------
    circuit : Circuit
        As it was played.
    trace : Trace
        From the start, with nothing cut off.
    """
    for hazard in trace.hazards:
        yield Message(
            "rehearsal.record.hazard",
            {
                "hazard": str(Message(f"hazard.{hazard.code}")),
                "device": circuit.named(hazard.device),
            },
        )
    if trace.never_settles or trace.is_cut:
        yield Message("rehearsal.record.cut")
        return
    for name in trace.frames[-1].motors:
        words = [frame.motors[name].word for frame in trace.frames]
        if all(word in _STILL for word in words):
            yield Message("rehearsal.record.not_run", {"motor": circuit.named(name)})
        elif words[-1] not in _STILL:
            yield Message("rehearsal.record.not_stopped", {"motor": circuit.named(name)})
    closed = {one.partition(":")[0] for frame in trace.frames for one in frame.closed or ()}
    pulled = {
        name
        for frame in trace.frames
        for name, word in (frame.words or {}).items()
        if word == "1" and name in closed
    }
    for item in circuit.netlist.devices:
        if item.type == "contactor" and item.id not in pulled:
            yield Message("rehearsal.record.not_pulled", {"contactor": circuit.named(item.id)})
