"""How the leads are joined for a supply: derived from the coils, or refused.

A connection is right when every coil gets its rated volts, in its phase, and
carries its share of the current. The candidates of `joinings` are held against
the nameplate's rating, and the one chosen is proven on the circuit solver.

Units: volts [V].
Source: series and parallel halves, wye and delta (NEMA MG 1 part 2; textbook
machine windings).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from evencoil.base import CoreError, Message, RefusedError
from evencoil.leads.outcome import judge_joints
from evencoil.plate import Supply, Verdict
from evencoil.winding import (
    KINDS,
    Connection,
    Joint,
    Rating,
    Speed,
    StartMethod,
    Winding,
    counts_of,
    joinings,
    named,
    run_joinings,
    swap_lines,
)

__all__ = ["Derived", "State", "derive", "quick_tell"]

State = Literal["run", "start", "low", "high"]
_WITHIN = 0.10


@dataclass(frozen=True, slots=True, kw_only=True)
class Derived:
    """The connection for this supply, in each state that the motor has.

    ``run`` alone; ``start`` and ``run`` of a start in two steps; ``low`` and
    ``high`` of two speeds. ``of`` is the state asked for.
    """

    states: Mapping[State, Connection]
    of: State
    line_volts_v: float

    @property
    def connection(self) -> Connection:
        """Return the connection of the state asked for."""
        return self.states[self.of]

    @property
    def permanent(self) -> tuple[Joint, ...]:
        """Return the joints that every state has alike: all that may stay in the box.

        What one state joins and another does not, the starter switches.
        """
        states = list(self.states.values())
        blocks = [frozenset(joint.leads) for joint in states[0].joints]
        for known in states[1:]:
            others = [frozenset(joint.leads) for joint in known.joints]
            blocks = [one & other for one in blocks for other in others]
        found = sorted(tuple(sorted(block, key=_number)) for block in blocks if len(block) > 1)
        return tuple(
            Joint(id=f"joint.stays_{letter}", leads=leads)
            for letter, leads in zip("abcdef", found, strict=False)
        )


def _number(lead: str) -> int:
    return int(lead.removeprefix("T"))


def _no_start(winding: Winding, method: StartMethod) -> CoreError:
    return RefusedError(
        Message(f"leads.no_{method}.{winding.kind}"),
        field="leads.start_method",
        hint=Message(f"leads.no_{method}.hint"),
    )


def _of_rating(
    winding: Winding, rating: Rating, volts: float, speed: Speed, among: frozenset[str]
) -> Connection | None:
    """Return the connection whose rated line volts come nearest, at most 10 % off."""
    fits = [
        (abs(rating.off(known, volts)), known.name not in rating.stamped, place, known)
        for place, known in enumerate(run_joinings(winding.kind))
        if known.speed == speed and (not among or known.name in among)
    ]
    fits = [item for item in fits if item[0] <= _WITHIN]
    return min(fits, key=lambda item: item[:3])[3] if fits else None


def _wye_delta(winding: Winding, rating: Rating, volts: float) -> dict[State, Connection]:
    """Return wye to start and delta to run, if the delta takes the supply."""
    if winding.kind not in {"6", "12"}:
        raise _no_start(winding, "wye_delta")
    deltas = frozenset(
        known.name for known in run_joinings(winding.kind) if known.name.endswith("delta")
    )
    run = _of_rating(winding, rating, volts, "", deltas)
    if run is None:
        lowest = min(rating.nearest_line_v(named(winding.kind, name), volts) for name in deltas)
        raise RefusedError(
            Message("leads.wye_delta_volts", {"volts": f"{volts:.0f}", "delta": f"{lowest:.0f}"}),
            field="leads.start_method",
            hint=Message("leads.no_wye_delta.hint"),
        )
    start = named(winding.kind, run.name.replace("delta", "wye"))
    return {"start": replace(start, stage="start"), "run": run}


def _part_winding(winding: Winding, rating: Rating, volts: float) -> dict[State, Connection]:
    """Return half the winding to start and the whole in parallel to run."""
    if winding.kind == "part-winding":
        run = _of_rating(winding, rating, volts, "", frozenset())
        start = named(winding.kind, "part_winding_start")
    elif winding.kind in {"9-wye", "12"}:
        run = _of_rating(winding, rating, volts, "", frozenset({"parallel_wye"}))
        start = named(winding.kind, "half_wye_start")
        if run is not None and winding.kind == "12":
            # the two stars stay apart, so that the second half can come on by itself
            run = next(
                known
                for known in joinings(winding.kind)
                if known.name == "parallel_wye" and len(known.joints) == 5
            )
    else:
        raise _no_start(winding, "part_winding")
    if run is None:
        raise RefusedError(
            Message("leads.part_winding_volts", {"volts": f"{volts:.0f}"}),
            field="leads.start_method",
            hint=Message("leads.part_winding_volts.hint"),
        )
    return {"start": start, "run": run}


def derive(
    winding: Winding,
    *,
    rating: Rating,
    supply: Supply,
    verdict: Verdict,
    start_method: StartMethod = "full_voltage",
    speed: Speed = "",
    is_reverse: bool = False,
    swap: str = "L1-L3",
) -> Derived:
    """Return the connection that gives every coil its rated volts on this supply.

    Parameters
    ----------
    winding : Winding
        The coils.
    rating : Rating
        What the nameplate makes them for.
    supply : Supply
        Three-phase, or single-phase for a single-phase motor.
    verdict : Verdict
        The nameplate column this supply uses, and the volts it takes.
    start_method : str
        ``wye_delta`` needs all six phase ends at the delta's volts;
        ``part_winding`` two halves of which one can be left off.
    speed : str
        Of a two-speed motor; low if not said.
    is_reverse : bool
        The other direction: two incoming lines exchanged, or the start
        winding of a single-phase motor turned.
    swap : str
        Which two lines the plant exchanges.

    Returns
    -------
    Derived
        Every state, each proven on the solver.

    Raises
    ------
    CoreError
        If no connection does: wrong volts, too few leads, ends that are tied
        inside, or no second direction.
    """
    if supply.phases == 0:
        raise RefusedError(
            Message("leads.direct"), field="leads.winding", hint=Message("leads.direct.hint")
        )
    if winding.phases == 3 and supply.phases != 3:
        raise RefusedError(
            Message("verdict.one_phase"),
            field="supply.text",
            hint=Message("verdict.one_phase.hint"),
        )
    volts = float(verdict.used_volts_v)
    states = _states(winding, rating, volts, start_method, is_reverse=is_reverse)
    if not states:
        raise _none(winding, rating, volts)
    if is_reverse and winding.phases == 3:
        states = {name: swap_lines(known, swap) for name, known in states.items()}
    for state, known in states.items():
        judged = judge_joints(winding, known.joints, volts_v=volts, rating=rating)
        # in wye to start every coil gets 58 % of its volts, alike and in phase
        allowed = {"low.named"} if state == "start" else set()
        if {found.code for found in judged.findings if found.level == "doubt"} - allowed:
            raise RuntimeError(f"{winding.kind} {known.name} is not proven on the solver")
    of: State = (speed or "low") if winding.is_two_speed else "run"
    return Derived(states=states, of=of, line_volts_v=volts)


def _states(
    winding: Winding, rating: Rating, volts: float, start_method: StartMethod, *, is_reverse: bool
) -> dict[State, Connection]:
    """Return the connection of every state; empty if none takes these volts."""
    states: dict[State, Connection] = {}
    if winding.is_two_speed:
        for which in ("low", "high"):
            known = _of_rating(winding, rating, volts, which, frozenset())
            if known is not None:
                states[which] = known
        return states
    if start_method == "wye_delta":
        return _wye_delta(winding, rating, volts)
    if start_method == "part_winding":
        return _part_winding(winding, rating, volts)
    among = _direction(winding, is_reverse=is_reverse) if winding.phases == 1 else frozenset[str]()
    known = _of_rating(winding, rating, volts, "", among)
    return {} if known is None else {"run": known}


def _direction(winding: Winding, *, is_reverse: bool) -> frozenset[str]:
    """Return the connections of one direction of a single-phase motor."""
    names = frozenset(known.name for known in run_joinings(winding.kind))
    ends = frozenset(name for name in names if name.endswith("_b" if is_reverse else "_a"))
    if is_reverse and not ends:
        raise RefusedError(
            Message("leads.not_reversible"),
            field="leads.direction",
            hint=Message("leads.not_reversible.hint"),
        )
    return ends or names


def _none(winding: Winding, rating: Rating, volts: float) -> CoreError:
    """Say that nothing fits, with what would."""
    known = [item for item in run_joinings(winding.kind) if item.name in rating.stamped]
    said = ", ".join(
        f"{Message(f'connection.{item.name}')} {rating.nearest_line_v(item, volts):.0f} V"
        for item in known
    )
    return RefusedError(
        Message("leads.none", {"volts": f"{volts:.0f}", "known": said}),
        field="supply.text",
        hint=Message("leads.none.hint"),
    )


def quick_tell(winding: Winding, connection: Connection) -> Message:
    """Return how counting conductors in the box tells a connection, or cannot.

    Parameters
    ----------
    winding : Winding
        The coils.
    connection : Connection
        The connection to describe.

    Returns
    -------
    Message
        Leads and lines counted apart; which others count the same.
    """
    fed, other = counts_of(connection.joints)
    free = len(connection.free(winding))
    alike = sorted(
        {
            f"{Message(f'kind_name.{kind.kind}')}, {Message(f'connection.{known.name}')}"
            for kind in KINDS.values()
            if len(kind.leads) == len(winding.leads) and kind.phases == winding.phases
            for known in joinings(kind.kind)
            if counts_of(known.joints) == (fed, other)
            and (kind.kind, known.name) != (winding.kind, connection.name)
            and known.stage == "run"
        }
    )
    params = {
        "fed": _counted(fed),
        "groups": str(len(other)),
        "of": _counted(other),
        "free": str(free),
        "alike": "; ".join(alike),
    }
    code = "tell.joints" if other else "tell.free" if free else "tell.lines"
    return Message(f"{code}.alike" if alike else code, params)


def _counted(counts: tuple[int, ...]) -> str:
    """Return one figure where all are the same, else all of them."""
    if not counts:
        return "0"
    return str(counts[0]) if len(set(counts)) == 1 else ", ".join(map(str, counts))
