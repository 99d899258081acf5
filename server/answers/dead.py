"""The dead check of a netlist, calculated once for screen and paper."""

from __future__ import annotations

import hashlib
from collections.abc import Callable

from django.core.cache import caches

from api.build import build
from evencoil.checks import DeadChecks, dead_checks
from evencoil.circuit import Circuit, netlist_fingerprint

__all__ = ["dead_checks_of", "known_dead_checks"]


def _key(circuit: Circuit) -> str:
    """Return the key under which the checks of a netlist are kept."""
    said = f"{build()} {netlist_fingerprint(circuit)} {list(circuit.tags.values())!r}"
    return f"dead.{hashlib.sha256(said.encode()).hexdigest()}"


def dead_checks_of(circuit: Circuit, tell: Callable[[int, int], None] | None = None) -> DeadChecks:
    """Return the checks of a netlist; the same netlist under the same tags is kept.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    tell : callable, optional
        Told how many mistakes were gone through, of how many.
    """
    found = known_dead_checks(circuit)
    if found is None:
        found = dead_checks(circuit, tell)
        caches["answers"].set(_key(circuit), found)
    return found


def known_dead_checks(circuit: Circuit) -> DeadChecks | None:
    """Return the checks of a netlist where they are kept; None where nobody asked for them yet.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    found = caches["answers"].get(_key(circuit))
    return found if isinstance(found, DeadChecks) else None
