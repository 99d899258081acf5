"""What is this circuit? Catalogue circuits and their miswirings ranked by what was seen of it.

Each is played the way people use it, by the role of a button, never by its tag. Equal ones stay
equal. What could plug, short or overspeed a candidate is never proposed, only taken if seen.

Source: the rehearsal's own solver (textbook topic).
"""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from importlib.resources import files
from typing import Any

from evencoil.base import CoreError, Message, say
from evencoil.circuit import Circuit, differences
from evencoil.rehearsal import ScenarioAct, Stage, act_at, opening_of, starts_of, stops_of
from evencoil.starters import draw, entry_of, options_of, said_choice
from evencoil.trouble.faults import faults_of
from evencoil.trouble.played import DRIVEN

__all__ = [
    "OPERATIONS",
    "Alike",
    "Behavior",
    "Ranked",
    "behavior_of",
    "candidates",
    "differs",
    "played_anew",
    "rank",
    "said_option",
]

_SECOND = 1_000_000
#: what can be seen of a circuit, each with its answers; only the first ones are ever proposed
OPERATIONS: Mapping[str, tuple[str, ...]] = {
    "let_go": ("keeps_running", "drops_out", "nothing"),
    "stop": ("stops", "runs_on"),
    "change_over": ("yes", "no"),
    "ways": ("one", "two"),
    "overload_test": ("stays_off", "starts_again", "runs_on"),
    "other_running": ("nothing", "drops_out", "reverses", "goes_over", "trips"),
    "both": ("neither", "one", "trips"),
    "power_back": ("stays_off", "starts"),
}
#: never proposed: it may plug, short, or start a machine that no one expects
ONLY_SEEN = {"other_running", "both", "power_back", "overload_test"}


@dataclass(frozen=True, slots=True)
class Behavior:
    """What a circuit does when it is worked, by operation; an operation it has not is not in it."""

    seen: Mapping[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Alike:
    """A circuit of the catalogue, one of its options, or one of its miswirings."""

    circuit: str
    option: str
    fault: Message | None
    behavior: Behavior
    risks: frozenset[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Ranked:
    """How well candidates agree with what was seen, and what would part the best.

    ``agrees`` is of how many; those that agree alike are one rank. ``propose`` is the operation
    that parts the best ones without harm; empty where only a dead reading may.
    """

    best: tuple[tuple[Alike, int], ...]
    of: int
    propose: str
    parts: Mapping[str, int]
    refused: tuple[str, ...]


class _Played:
    """One circuit worked in small scenarios."""

    def __init__(self, circuit: Circuit) -> None:
        self.circuit = circuit
        self.stage = Stage(circuit)
        self.starts = [
            start for start in starts_of(self.stage)[:2] if start and start[-1].do == "push"
        ]
        self.stops = stops_of(circuit)
        #: of what was played last
        self.hazards: set[str] = set()

    def words(self, acts: Sequence[ScenarioAct], until_s: float) -> Mapping[str, str]:
        trace = self.stage.play(
            [*opening_of(self.circuit), *acts], until_us=round(until_s * _SECOND)
        )
        self.hazards = {one.code for one in trace.hazards}
        return trace.words_at(trace.until_us)

    def runs(self, words: Mapping[str, str]) -> bool:
        return bool(self.ways(words))

    def ways(self, words: Mapping[str, str]) -> set[str]:
        return {
            words.get(item.id, "")
            for item in self.circuit.netlist.devices
            if item.type.startswith("motor")
        } & DRIVEN

    def closed(self, words: Mapping[str, str]) -> set[str]:
        return {
            item.id
            for item in self.circuit.netlist.devices
            if item.type == "contactor" and words.get(item.id) == "1"
        }

    def tripped(self, words: Mapping[str, str]) -> bool:
        return bool({"tripped", "blown"} & set(words.values()))


def behavior_of(circuit: Circuit) -> tuple[Behavior, frozenset[str]]:
    """Return what a circuit does when it is worked, and which operations would harm it.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    play = _Played(circuit)
    found: dict[str, str] = {}
    risks: set[str] = set()
    if not play.starts:
        held = [
            item.id
            for item in circuit.netlist.devices
            if item.type == "pb" and item.id not in play.stops
        ]
        runs = any(play.runs(play.words([act_at(2, "press", button)], 2.6)) for button in held[:2])
        return Behavior({"let_go": "drops_out" if runs else "nothing"}), frozenset()
    start = list(play.starts[0])
    found["let_go"] = "keeps_running"
    begun, late = play.words(start, 3.5), play.words(start, 14)
    first, last = play.closed(begun), play.closed(late)
    found["change_over"] = "yes" if first != last and play.runs(late) else "no"
    found["ways"] = "two" if len(play.starts) > 1 else "one"
    if play.stops:
        pushed = [*start, *(act_at(8, "press", button) for button in play.stops)]
        off = play.words(pushed, 9)
        found["stop"] = "runs_on" if play.closed(off) and play.runs(off) else "stops"
    _trip(play, start, found)
    back = play.words([*start, act_at(8, "dip", "", "4")], 16)
    found["power_back"] = "starts" if play.runs(back) else "stays_off"
    if len(play.starts) > 1:
        risks = _other(play, start, found)
    return Behavior(found), frozenset(risks)


def _trip(play: _Played, start: list[ScenarioAct], found: dict[str, str]) -> None:
    """Trip each overload relay by its test, and reset it."""
    relays = [item.id for item in play.circuit.netlist.devices if item.type == "olr"]
    if not relays:
        return
    trip = [*start, *(act_at(8, "trip", one) for one in relays)]
    words = play.words(trip, 9)
    if play.closed(words) and play.runs(words):
        found["overload_test"] = "runs_on"
        return
    reset = [*trip, *(act_at(14, "reset", one) for one in relays)]
    again = play.words(reset, 17)
    found["overload_test"] = "starts_again" if play.runs(again) else "stays_off"


def _other(play: _Played, start: list[ScenarioAct], found: dict[str, str]) -> set[str]:
    """Press the other button while it runs, and both; return what of it does harm."""
    risks = set()
    other = play.starts[1][-1]
    words = play.words([*start, act_at(8, "push", other.on)], 10)
    if play.hazards:
        risks.add("other_running")
    first = play.words(start, 7.9)
    before = play.closed(first)
    if play.tripped(words):
        found["other_running"] = "trips"
    elif play.closed(words) == before:
        found["other_running"] = "nothing"
    else:
        runs = play.closed(words) and play.runs(words)
        turned = play.ways(words) & {"plug", "rev"} and not play.ways(first) & {"plug", "rev"}
        over = "reverses" if turned else "goes_over"
        found["other_running"] = over if runs else "drops_out"
    both = play.words([act_at(2, "press", start[-1].on), act_at(2, "press", other.on)], 2.8)
    if play.hazards:
        risks.add("both")
    found["both"] = "trips" if play.tripped(both) else "one" if play.closed(both) else "neither"
    return risks


@cache
def candidates() -> tuple[Alike, ...]:
    """Return the catalogue, its options one at a time, and miswirings of its reversing circuits.

    They were played once and are kept as a table (`tools/behaviors.py` makes it anew); an option
    or a miswiring that behaves as its circuit does is not in it.
    """
    text = files("evencoil.trouble").joinpath("tables/behaviors.json").read_text("utf-8")
    return tuple(
        Alike(
            circuit=row["circuit"],
            option=row.get("option", ""),
            fault=Message(row["fault"]["id"], row["fault"]["params"]) if "fault" in row else None,
            behavior=Behavior(row["seen"]),
            risks=frozenset(row.get("risks", ())),
        )
        for row in json.loads(text)["rows"]
    )


def said_option(option: str) -> str:
    """Return an option in words: its name and what is chosen; empty for none.

    Parameters
    ----------
    option : str
        As in the table: ``reset=auto``.
    """
    name, _, word = option.partition("=")
    if not name:
        return ""
    return f"{say(Message(f'option.{name}'))}: {said_choice(name, word)}"


@lru_cache(maxsize=128)
def differs(circuit: str, option: str) -> tuple[Message, ...]:
    """Return the devices and wires by which an option differs from the standard circuit.

    Parameters
    ----------
    circuit : str
        Of the catalogue.
    option : str
        As in the table; nothing differs without one.
    """
    name, _, word = option.partition("=")
    if not name:
        return ()
    there = draw(circuit, {name: word}).circuit
    return tuple(one.message for one in differences(draw(circuit).circuit, there))


def played_anew(name: str) -> list[dict[str, Any]]:
    """Return the rows of one circuit of the catalogue, played: itself, options, miswirings.

    Parameters
    ----------
    name : str
        Of the catalogue.
    """
    found: list[dict[str, Any]] = []
    circuit = draw(name).circuit
    _add(found, circuit, circuit=name)
    for spec in options_of(entry_of(name)):
        for word in (one for one in spec.choices if one != spec.default):
            try:
                other = draw(name, {spec.name: word}).circuit
            except CoreError:
                continue
            _add(found, other, circuit=name, option=f"{spec.name}={word}")
    if name.startswith(("3", "6")):
        for one in faults_of(circuit):
            if one.repair in {"wire_open", "jumper", "swapped"} and one.row != "line_lost":
                told = {"id": one.said.id, "params": dict(one.said.params)}
                _add(found, replace(circuit, netlist=one.netlist), circuit=name, fault=told)
    return found


def _add(found: list[dict[str, Any]], drawn: Circuit, **about: Any) -> None:
    """Add a row where it behaves as no row before it does."""
    try:
        behavior, risks = behavior_of(drawn)
    except CoreError:
        return
    row = {**about, "seen": dict(behavior.seen), "risks": sorted(risks)}
    known = found[:1] if "fault" in about else found
    if all(row["seen"] != one["seen"] for one in known):
        found.append(row)


def rank(seen: Mapping[str, str], among: Sequence[Alike] | None = None) -> Ranked:
    """Return the circuits that behave as was seen, the best first.

    Parameters
    ----------
    seen : mapping
        Operation to what it did, from `OPERATIONS`.
    among : sequence of Alike, optional
        The catalogue with its miswirings unless said.
    """
    known = candidates() if among is None else among
    scored = sorted(
        (
            (one, sum(one.behavior.seen.get(key) == word for key, word in seen.items()))
            for one in known
        ),
        key=lambda pair: (-pair[1], pair[0].fault is not None, pair[0].option != ""),
    )
    best = [pair for pair in scored if pair[1] == scored[0][1]] if scored else []
    parts: dict[str, int] = {}
    for key in OPERATIONS:
        if key not in seen:
            parts[key] = len({one.behavior.seen.get(key, "") for one, _ in best})
    harmful = {risk for one, _ in best for risk in one.risks}
    able = [key for key, count in parts.items() if count > 1 and key not in ONLY_SEEN | harmful]
    return Ranked(
        best=tuple(scored[:40]),
        of=len(seen),
        propose=max(able, key=lambda key: parts[key]) if able else "",
        parts=parts,
        refused=tuple(
            key for key, count in parts.items() if count > 1 and key in ONLY_SEEN | harmful
        ),
    )
