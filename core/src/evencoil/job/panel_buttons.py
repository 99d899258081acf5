"""What each button, selector and sensor of a panel must do, found by playing the circuit.

Source: the circuit solver; nothing here is taken from a list of what a circuit ought to do.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from evencoil.base import CoreError, Message
from evencoil.circuit import Circuit
from evencoil.rehearsal import (
    ScenarioAct,
    Stage,
    opening_of,
    single_acts,
    starts_of,
    stops_of,
)

__all__ = ["Button", "Played", "played_of"]

_SECOND = 1_000_000
#: how long each act is watched, and when a start before it has long been done [us]
_WATCH_US, _RUNS_US = 20 * _SECOND, 30 * _SECOND
#: what is watched: what a coil or a lamp shows
_WATCHED = {"contactor", "relay", "latch", "lamp", "horn", "solenoid"}
_ON = {"1", "on"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Button:
    """One operator action, and what must be seen."""

    id: str
    said: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Played:
    """What the buttons of a panel must do, and the ways round that its motor can be started.

    Attributes
    ----------
    ways : tuple of Button
        A start for each direction, where there are two; empty for one direction.
    """

    buttons: tuple[Button, ...] = ()
    ways: tuple[Button, ...] = ()


def played_of(circuit: Circuit) -> Played:
    """Return what each operator action must do, starts first, then stops while it runs.

    Every stop is tried after every start: one in the branch of one start does not stop another.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    """
    stage = Stage(circuit)
    try:
        opening, starts = opening_of(circuit), starts_of(stage)
    except CoreError:
        return Played()
    found = [_pressed(stage, opening, (), act) for act in single_acts(circuit)]
    # a selector and then a sensor: neither does anything alone
    found += [_pressed(stage, opening, start[:-1], start[-1]) for start in starts if len(start) > 1]
    for start in starts:
        stops = [("push", one) for one in stops_of(circuit)]
        # it latches: it is pressed, never pushed and let go
        stops += [("press", one) for one in _estops(circuit)]
        found += [
            _pressed(stage, opening, start, ScenarioAct(at_us=_RUNS_US, do=do, on=stop))
            for do, stop in stops
        ]
    return Played(
        buttons=tuple({one.id: one for one in found}.values()),
        ways=tuple(_ways(stage, opening, starts)),
    )


def _ways(
    stage: Stage, opening: list[ScenarioAct], starts: Sequence[tuple[ScenarioAct, ...]]
) -> Iterator[Button]:
    """Go through one start of each direction; none where the motor is only started one way."""
    found: dict[bool, Button] = {}
    for start in starts:
        trace = stage.play([*opening, *start], until_us=_RUNS_US)
        speeds = [one.speed_percent for one in trace.frames[-1].motors.values()]
        fastest = max(speeds, key=abs, default=0.0)
        if fastest == 0.0:
            continue
        acts = ", ".join(_act(stage.circuit, one) for one in start)
        found.setdefault(fastest > 0, Button(id=_named(start), said=acts))
    if len(found) == 2:
        yield from found.values()


def _named(acts: Sequence[ScenarioAct]) -> str:
    """Return acts as a name that stays while they do."""
    return ".".join(f"{one.on}.{one.word}".rstrip(".") for one in acts)


def _estops(circuit: Circuit) -> list[str]:
    return [item.id for item in circuit.netlist.devices if item.type == "estop"]


def _pressed(
    stage: Stage, opening: list[ScenarioAct], before: tuple[ScenarioAct, ...], act: ScenarioAct
) -> Button:
    """Play one act, from rest or while it runs, and say what changes."""
    circuit = stage.circuit
    then = act.at_us + _WATCH_US
    trace = stage.play([*opening, *before, act], until_us=then)
    shown = [
        trace.words_at(act.at_us + later)
        for later in (-1, _SECOND // 5, 3 * _SECOND // 2, _WATCH_US)
    ]
    changes = list(_changes(circuit, shown))
    is_running = act.at_us >= _RUNS_US
    key = "running" if is_running else "after" if before else "rest"
    said = Message(
        f"panel.button.{key}",
        {
            "before": ", ".join(_act(circuit, one) for one in before),
            "act": _act(circuit, act),
            "does": "; ".join(changes) if changes else str(Message("panel.button.nothing")),
        },
    )
    return Button(
        id=".".join([key, *([_named(before)] if before else []), _named([act])]), said=str(said)
    )


def _act(circuit: Circuit, act: ScenarioAct) -> str:
    tag = f"{circuit.named(act.on)} {act.word}".strip()
    return str(Message(f"panel.button.act.{act.do}", {"tag": tag}))


def _changes(circuit: Circuit, shown: Sequence[Mapping[str, str]]) -> Iterator[str]:
    """Go through what a coil or a lamp does: before, while held, after it, and at the end."""
    for item in circuit.netlist.devices:
        if item.type not in _WATCHED:
            continue
        was, held, after, end = (words.get(item.id, "") in _ON for words in shown)
        name = ""
        if was:
            name = "" if end else "drops"
        elif held:
            name = "while" if not after else "stays" if end else "until"
        elif end or after:
            name = "later"
        if name:
            kind = "lamp" if item.type in {"lamp", "horn"} else "coil"
            yield str(Message(f"panel.button.{kind}.{name}", {"tag": circuit.named(item.id)}))
