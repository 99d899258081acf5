"""How often this motor can be started: from cold, after running, and how long to wait.

Relay and winding remember: each start is run with what the one before left. Between starts
in a row the motor is taken as stopped at once, so the counts are on the safe side. The
motor's maker, or NEMA MG 1 by the inertia of the load, may allow fewer.

Units: [s], [K]. Source: first-order thermal images (textbook protection).
"""

from __future__ import annotations

from dataclasses import dataclass
from math import floor, log
from typing import Literal

from evencoil.leads import Derived
from evencoil.run_up.facts import Facts
from evencoil.run_up.sheet import MethodSheet, go, relay_of, winding_of
from evencoil.run_up.starts import Method, Plan, method_plan
from evencoil.solver.motor import WINDING_TAU_S

__all__ = ["Restart", "restarts"]

_MOST = 6
_MOST_PER_HOUR = 60
_LONGEST_WAIT_S = 4 * 3600.0
#: judgment: a winding at rest cools so much slower than one whose fan turns
_SLOWER = 2.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Restart:
    """What starts in a row come to.

    Attributes
    ----------
    cold, hot : int
        Starts in a row from cold, and after a day at rated load; ``most`` means that or more.
    most : int
        How many were tried.
    ends_by : str
        What forbids the next one: ``relay``, ``winding``, ``device``, or ``none`` of them.
    wait_s : float or None
        How long to wait after a stop from rated load until one more start gets through;
        None if no wait helps, 0 if none is needed. [s]
    per_hour : int or None
        Starts an hour that relay and winding stand for good, at rated load between them;
        None where even one does not.
    """

    cold: int
    hot: int
    most: int
    ends_by: Literal["relay", "winding", "device", "none"]
    wait_s: float | None
    per_hour: int | None


_BY: dict[str, Literal["relay", "winding", "device"]] = {
    "tripped": "relay",
    "burnt": "winding",
    "opened": "device",
}


def _in_a_row(facts: Facts, plan: Plan, first_s: float, *, is_hot: bool) -> tuple[int, str]:
    """Return how many starts get through, and how the one after them ends."""
    relay, winding = relay_of(facts, plan, is_hot=is_hot), winding_of(facts, is_hot=is_hot)
    for done in range(_MOST):
        run = go(facts, plan, first_s, relay=relay, winding=winding)
        if run.ending != "running":
            return done, run.ending
    return _MOST, "running"


def _gets_through(facts: Facts, plan: Plan, first_s: float, waited_s: float) -> bool:
    """Tell whether a start gets through after a stop from rated load and a wait."""
    relay, winding = relay_of(facts, plan, is_hot=True), winding_of(facts, is_hot=True)
    relay.warm([0.0] * len(relay.heat or ()), waited_s)
    winding.warm([0.0] * len(winding.rise_k), waited_s / _SLOWER)
    return go(facts, plan, first_s, relay=relay, winding=winding).ending == "running"


def _wait_s(facts: Facts, plan: Plan, first_s: float) -> float | None:
    if _gets_through(facts, plan, first_s, 0.0):
        return 0.0
    if not _gets_through(facts, plan, first_s, _LONGEST_WAIT_S):
        return None
    low, high = 0.0, _LONGEST_WAIT_S
    while high - low > 30:
        middle = (low + high) / 2
        if _gets_through(facts, plan, first_s, middle):
            high = middle
        else:
            low = middle
    return high


def _apart_s(steady: float, more: float, limit: float, tau_s: float) -> float | None:
    """Return how far apart starts must be so that their heat stays under a limit [s].

    ``more`` is what one start adds to the ``steady`` heat of running.
    """
    room = limit - steady
    if more >= room:
        return None
    return -tau_s * log(1 - more / room)


def _per_hour(facts: Facts, plan: Plan, first_s: float) -> int | None:
    relay, winding = relay_of(facts, plan, is_hot=True), winding_of(facts, is_hot=True)
    before, rise = relay.level, max(winding.rise_k)
    if go(facts, plan, first_s, relay=relay, winding=winding).ending != "running":
        return None
    found = [
        _apart_s(before, max(relay.level - before, 0.0), 1.0, relay.tau_s),
        _apart_s(rise, max(max(winding.rise_k) - rise, 0.0), facts.limit_k, WINDING_TAU_S),
    ]
    known = [apart for apart in found if apart is not None]
    if len(known) < len(found):
        return None
    return min(floor(3600 / max(*known, 1.0)), _MOST_PER_HOUR)


def restarts(facts: Facts, method: Method, states: Derived, sheet: MethodSheet) -> Restart | None:
    """Return what starts in a row come to, one way; None where no start gets through at all.

    Parameters
    ----------
    facts : Facts
        The motor and its load.
    method : str
        Which way to start.
    states : Derived
        Of this way.
    sheet : MethodSheet
        Of this way, with the timer that was used.
    """
    plan = method_plan(facts, method, states)
    cold, ends = _in_a_row(facts, plan, sheet.first_s, is_hot=False)
    if cold == 0:
        return None
    hot, ends_hot = _in_a_row(facts, plan, sheet.first_s, is_hot=True)
    return Restart(
        cold=cold,
        hot=hot,
        most=_MOST,
        ends_by=_BY.get(ends_hot, _BY.get(ends, "none")),
        wait_s=_wait_s(facts, plan, sheet.first_s),
        per_hour=_per_hour(facts, plan, sheet.first_s),
    )
