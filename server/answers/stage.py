"""Circuits ready for rehearsal, kept for a while so that the next action is quick.

Caches of this process; nothing depends on them. A circuit is found by everything that decides
it: the inputs and the whole of the plant rules. A stage is found by the fingerprint of its
netlist, so a changed rule that changes the circuit never meets the old one.
"""

from __future__ import annotations

import hashlib
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

from answers.given import GivenIn, worked
from evencoil.checks import with_expectations
from evencoil.circuit import Circuit, netlist_fingerprint
from evencoil.rehearsal import Stage
from people.models import Works
from plant.profile import profile_of

__all__ = ["lent_stage"]

_MOST = 32
_circuits: OrderedDict[str, Circuit] = OrderedDict()
_stages: OrderedDict[str, Stage] = OrderedDict()
_lock = Lock()


def _circuit(given: GivenIn, works: Works) -> Circuit:
    """Return the drawn starter of what is entered under the plant rules of today."""
    body = f"{profile_of(works)!r} {given.model_dump_json()}"
    key = hashlib.sha256(body.encode()).hexdigest()
    with _lock:
        known = _circuits.get(key)
    if known is not None:
        return known
    circuit = with_expectations(worked(given, works).starter.required())
    with _lock:
        _circuits[key] = circuit
        while len(_circuits) > _MOST:
            _circuits.popitem(last=False)
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
    with _lock:
        stage = _stages.pop(key, None)
    if stage is None:
        stage = Stage(circuit)
    stage.circuit = circuit  # tags are labels: they may have changed, the netlist has not
    yield stage
    with _lock:
        _stages[key] = stage
        while len(_stages) > _MOST:
            _stages.popitem(last=False)
