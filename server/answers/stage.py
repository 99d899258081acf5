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
from evencoil.checks import with_expectations
from evencoil.circuit import Circuit, netlist_fingerprint
from evencoil.rehearsal import Stage
from people.models import Works
from plant.profile import profile_of

__all__ = ["lent_stage"]

_MOST = 32
_circuits: Recent[str, Circuit] = Recent(_MOST)
_stages: Recent[str, Stage] = Recent(_MOST)


def _circuit(given: GivenIn, works: Works) -> Circuit:
    """Return the drawn starter of what is entered under the plant rules of today."""
    body = f"{profile_of(works)!r} {given.model_dump_json()}"
    key = hashlib.sha256(body.encode()).hexdigest()
    known = _circuits.get(key)
    if known is not None:
        return known
    circuit = with_expectations(worked(given, works).starter.required())
    _circuits.keep(key, circuit)
    return circuit


@contextmanager
def lent_stage(given: GivenIn, works: Works) -> Iterator[Stage]:
    """Lend the drawn starter of what is entered, ready to be rehearsed.

    A stage holds the state of one run at a time, so it is out of the cache while it is
    lent: threads never share one.

    Raises
    ------
    CoreError
        If no starter is chosen, or it cannot be drawn.
    """
    circuit = _circuit(given, works)
    key = netlist_fingerprint(circuit)
    stage = _stages.take(key) or Stage(circuit)
    stage.circuit = circuit  # tags are labels: they may have changed, the netlist has not
    yield stage
    _stages.keep(key, stage)
