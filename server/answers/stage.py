"""Circuits ready for rehearsal, kept for a while so that the next action is quick.

Caches of this process; nothing depends on them. A circuit is found by everything that decides
it: the inputs and the whole of the plant rules. A stage is found by the fingerprint of its
netlist, so a changed rule that changes the circuit never meets the old one.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import contextmanager

from answers.given import GivenIn, worked
from api.recent import Recent
from evencoil.base import Message
from evencoil.checks import with_expectations
from evencoil.circuit import Circuit, netlist_fingerprint
from evencoil.job import RehearsedMotor, rehearsed_motor
from evencoil.rehearsal import Stage
from people.models import Works
from plant.profile import profile_of

__all__ = ["lent_stage"]

_MOST = 32
_circuits: Recent[str, tuple[Circuit, RehearsedMotor]] = Recent(_MOST)
_stages: Recent[str, Stage] = Recent(_MOST)


def _circuit(given: GivenIn, works: Works) -> tuple[Circuit, RehearsedMotor]:
    """Return the drawn starter of what is entered under the plant rules of today, its motor."""
    body = f"{profile_of(works)!r} {given.model_dump_json()}"
    key = hashlib.sha256(body.encode()).hexdigest()
    known = _circuits.get(key)
    if known is not None:
        return known
    found = worked(given, works)
    circuit = with_expectations(found.starter.required())
    made = (circuit, rehearsed_motor(given, found))
    _circuits.keep(key, made)
    return made


@contextmanager
def lent_stage(given: GivenIn, works: Works) -> Iterator[tuple[Stage, RehearsedMotor]]:
    """Lend the drawn starter of what is entered, ready to be rehearsed, and say what moves in it.

    A stage holds the state of one run at a time, so it is out of the cache while it is
    lent: threads never share one.

    Raises
    ------
    CoreError
        If no starter is chosen, or it cannot be drawn.
    """
    circuit, moved = _circuit(given, works)
    key = netlist_fingerprint(circuit) + hashlib.sha256(repr(moved.motor).encode()).hexdigest()
    stage = _stages.take(key) or Stage(circuit, motor=moved.motor)
    stage.circuit = circuit  # tags are labels: they may have changed, the netlist has not
    if moved.motor is not None and stage.motor is None:
        # drawn with another motor than the job's
        moved = RehearsedMotor(
            None, Message("rehearsal.stand_in"), Message("rehearsal.mark_catalogue")
        )
    yield stage, moved
    _stages.keep(key, stage)
