"""The state of a job's panel: a function of what was kept, whatever the order it came in."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from evencoil.acts.hands import (
    LockState,
    hands,
    is_locked,
    live_readings,
    lock_states,
    proving,
    unprovers,
)
from evencoil.acts.kinds import HANDS_ACTS, KINDS
from evencoil.acts.model import Entry
from evencoil.acts.past import Log, View
from evencoil.acts.stages import (
    StageState,
    contested,
    forbids,
    is_counted,
    next_stage,
    open_stages,
    open_trips,
    stage_state,
    stops,
)
from evencoil.acts.wiring import (
    ReadingState,
    WireState,
    item_state,
    row_state,
    torque_is_done,
    was_proven,
    wire_state,
)

__all__ = ["PanelState", "Signature", "opens", "state_of", "to_judge"]

Signature = Literal["none", "as_signed", "changed"]
#: entries that change nothing of what was signed
_ASIDE = {"note", "photo"}
_ALL = tuple(KINDS)


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelState:
    """How a job stands.

    Attributes
    ----------
    state : str
        ``still_live``, ``contested``, ``energized:`` and the stage, ``hands_in``,
        ``proven_dead``, ``locked``, ``signed``, ``fit_to_run`` or ``not_locked``.
    hands : tuple of str
        Whose hands may be in the panel.
    open : tuple of str
        What is not done, ``kind:id``; ``seen_off`` and ``near_miss`` wait for a judgment only.
    may_open, blocked : str or None, tuple of str
        The stage that may be opened now; what forbids the next one.
    """

    state: str
    hands: tuple[str, ...]
    locks: Mapping[str, LockState]
    wires: Mapping[str, WireState]
    rows: Mapping[str, ReadingState]
    items: Mapping[str, ReadingState]
    stages: Mapping[str, StageState]
    open: tuple[str, ...]
    is_fit: bool
    may_open: str | None
    blocked: tuple[str, ...]
    signature: Signature


def opens(view: View) -> Iterator[str]:
    """Go through everything that is not done, what is most dangerous first.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    yield from (f"live:{one.id}" for one in live_readings(view))
    yield from (f"stop:{one.id}" for one in stops(view))
    yield from (f"lock:{name}" for name, state in lock_states(view).items() if state != "off")
    work = view.work
    for wire in work.wires:
        if wire_state(view, wire) != "done":
            yield f"wire:{wire}"
    for wire in sorted(work.rules.torque):
        if wire in work.wires and not torque_is_done(view, wire):
            yield f"torque:{wire}"
    for row in work.rows:
        if row_state(view, row) not in {"as_expected", "accepted"}:
            yield f"row:{row}"
    yield from (f"item:{one}" for one in work.items if item_state(view, one) != "as_expected")
    yield from (f"stage:{one}" for one in work.stages if stage_state(view, one) != "ok")
    yield from dict.fromkeys(f"trip:{one.about['device']}" for one in open_trips(view))
    for one in view.of("sent_back"):
        if not any(view.log.saw(answer, one) for answer in view.of("review_asked")):
            yield f"question:{one.id}"


def to_judge(view: View) -> Iterator[tuple[str, Entry, Entry]]:
    """Go through what a reviewer has to judge: its name, the entry, and what met it unseen.

    Parameters
    ----------
    view : View
        Of the entries.
    """
    log = view.log
    for act in view.of(*HANDS_ACTS):
        if not was_proven(view, act):
            continue
        for off in unprovers(view):
            if log.are_beside(off, act):
                yield f"seen_off:{act.id}", act, off
                break
    for opening in view.of("stage_opened"):
        beside = contested(view, opening)
        if beside:
            yield f"near_miss:{opening.id}", opening, beside[0]


def _signature(log: Log) -> tuple[Signature, Entry | None]:
    signed = log.now().of("signed")
    if not signed:
        return "none", None
    last = signed[-1]
    later = [
        one
        for one in log.now().of(*_ALL)
        if one.id != last.id
        and not log.saw(last, one)
        and not (one.kind in _ASIDE and not one.body.get("stop"))
        and one.kind != "signed"
    ]
    return ("changed" if later or last.rev != log.rev else "as_signed"), last


def state_of(log: Log) -> PanelState:
    """Return how a job stands.

    Parameters
    ----------
    log : Log
        Everything that was kept.
    """
    view = log.now()
    found = tuple(opens(view))
    judged = tuple(name for name, _, _ in to_judge(view))
    signature, _ = _signature(log)
    is_fit = not found
    standing = open_stages(view)
    doubted = [one for one in standing if not is_counted(view, one) or contested(view, one)]
    inside = () if standing else tuple(hands(view))
    following = next_stage(view)
    blocked = () if following is None else tuple(forbids(view, following))
    stages = {name: stage_state(view, name) for name in view.work.stages}
    return PanelState(
        state=_named(view, doubted, standing, inside, signature, is_fit=is_fit),
        hands=inside,
        locks=lock_states(view),
        wires={name: wire_state(view, name) for name in view.work.wires},
        rows={name: row_state(view, name) for name in view.work.rows},
        items={name: item_state(view, name) for name in view.work.items},
        stages=stages,
        open=(*found, *judged),
        is_fit=is_fit,
        may_open=None if blocked or standing else following,
        blocked=blocked,
        signature=signature,
    )


def _named(
    view: View,
    doubted: list[Entry],
    standing: list[Entry],
    inside: tuple[str, ...],
    signature: Signature,
    *,
    is_fit: bool,
) -> str:
    """Return the first state that fits."""
    rounds = proving(view)
    acts = [
        one for one in view.of(*HANDS_ACTS) if any(view.log.saw(one, by.after) for by in rounds)
    ]
    covers = view.of("covers_on")
    is_closed = any(all(view.log.saw(one, act) for act in acts) for one in covers) and bool(acts)
    named = (
        (bool(live_readings(view)), "still_live"),
        (bool(doubted), "contested"),
        (bool(standing), f"energized:{standing[0].about['stage']}" if standing else ""),
        (bool(inside) and bool(acts) and not is_closed, "hands_in"),
        (bool(inside), "proven_dead"),
        (is_locked(view), "locked"),
        (signature == "as_signed" and is_fit, "signed"),
        (is_fit, "fit_to_run"),
    )
    return next((name for holds, name in named if holds), "not_locked")
