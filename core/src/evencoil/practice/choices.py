"""Questions with choices: which joints for a supply, which hazard is this.

The right answer is derived, or played; the wrong ones are those of the neighbors.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from functools import cache

from evencoil.base import Message, say
from evencoil.job import JobInputs, work_out
from evencoil.practice.model import Drill, Fact, Slip
from evencoil.rehearsal import Stage, act_at, opening_of, starts_of
from evencoil.starters import draw, entry_of

__all__ = ["hazard_drill", "joints_drill"]

_WINDINGS = (("9-wye", "9"), ("9-delta", "9"), ("12", "12"))
_SUPPLIES = {"460": "480Y/277", "230": "240"}
_NO_TIES = "every lead to its own line"


@cache
def _joints(winding: str, leads: str, volts: str) -> tuple[str, ...]:
    """Return the joints of a winding for a voltage, as one reads them off: ``1-7``, ``4-5-6``."""
    worked = work_out(
        JobInputs.model_validate(
            {
                "plate": {
                    "text": "40 HP, 230/460 V, 96/48 A, 1770 RPM, 60 HZ, 3 PH, SF 1.15, "
                    f"CODE G, DES B, {leads} LEADS"
                },
                "supply": {"text": _SUPPLIES[volts]},
                "leads": {"winding": winding, "run_shape": "wye"},
            }
        )
    )
    box = worked.box
    derived = None if box is None else box.derived
    if derived is None:
        return ()
    found = [
        "-".join(sorted((lead.removeprefix("T") for lead in joint.leads), key=int))
        for joint in derived.joints
    ]
    return tuple(sorted(found))


def _said(joints: Sequence[str]) -> str:
    ties = [one for one in joints if "-" in one]
    return "  ".join(ties) or _NO_TIES


def joints_drill(seed: int, setting: str) -> Drill:
    """Return a question of which leads are joined for a supply.

    Parameters
    ----------
    seed : int
        The same seed makes the same question.
    setting : str
        Kept with it; it decides nothing here.
    """
    rng = random.Random(f"joints {seed}")  # noqa: S311 - a drill is no secret
    winding, leads = rng.choice(_WINDINGS)
    volts = rng.choice(tuple(_SUPPLIES))
    right = _said(_joints(winding, leads, volts))
    others = {
        _said(_joints(other, count, supply)): "other_voltage"
        if other == winding
        else "other_winding"
        for other, count in _WINDINGS
        for supply in _SUPPLIES
    }
    others.pop(right, None)
    chosen = rng.sample(sorted(others), min(3, len(others)))
    choices = [right, *chosen]
    rng.shuffle(choices)
    horsepower = rng.choice(("15", "25", "40", "60"))
    return Drill(
        kind="joints",
        seed=seed,
        setting=setting,
        facts=(
            Fact("power", f"{horsepower} hp"),
            Fact("volts", "230/460 V, three phase"),
            Fact("winding", winding),
            Fact("supply", _SUPPLIES[volts]),
        ),
        choices=tuple(choices),
        right=right,
        path=("derived from the winding: coil volts as rated on every coil",),
        working=tuple(_joints(winding, leads, volts)),
        slips=tuple(Slip(others[one], one) for one in chosen),
        surplus=frozenset({"power"}),
    )


#: circuits, and what is done while they run; what follows is played
_TRIED = ("2A", "2B", "3A", "3D", "6A", "6B", "6C", "11A")
_DONE = ("power_back", "overload_reset", "other_button", "weld_and_other")
_HAZARDS = ("springs_to_life", "plugged", "short", "both_ways", "does_not_stop")


@cache
def _happens(name: str, done: str) -> frozenset[str] | None:
    """Return the hazards of one thing done to a running circuit; None where it cannot be done."""
    circuit = draw(name).circuit
    stage = Stage(circuit)
    starts = starts_of(stage)
    if not starts:
        return None
    begun = [*opening_of(circuit), *starts[0]]
    relays = [item.id for item in circuit.netlist.devices if item.type == "olr"]
    if done == "power_back":
        acts = [act_at(9, "dip", "", "4")]
    elif done == "overload_reset" and relays:
        acts = [act_at(9, "trip", relays[0]), act_at(14, "reset", relays[0])]
    elif done in {"other_button", "weld_and_other"} and len(starts) > 1 and starts[1]:
        other = starts[1][-1]
        words = stage.play(begun, until_us=8_500_000).words_at(8_500_000)
        closed = [
            item.id
            for item in circuit.netlist.devices
            if item.type == "contactor" and words.get(item.id) == "1"
        ]
        weld = [act_at(9, "weld", one) for one in closed[:1]] if done == "weld_and_other" else []
        acts = [*weld, act_at(10, other.do, other.on, other.word)]
    else:
        return None
    trace = stage.play([*begun, *acts], until_us=22_000_000)
    return frozenset(one.code for one in trace.hazards)


def hazard_drill(seed: int, setting: str) -> Drill:
    """Return a question of what hazard follows from something done to a running circuit.

    Parameters
    ----------
    seed : int
        The same seed makes the same question.
    setting : str
        Kept with it; it decides nothing here.
    """
    rng = random.Random(f"hazard {seed}")  # noqa: S311 - a drill is no secret
    while True:
        name, done = rng.choice(_TRIED), rng.choice(_DONE)
        found = _happens(name, done)
        if found is not None and found <= set(_HAZARDS):
            break
    none = say(Message("practice.no_hazard"))
    right = rng.choice(sorted(found)) if found else ""
    wrong = [one for one in _HAZARDS if one not in found]
    chosen = rng.sample(wrong, 3)
    words = {one: say(Message(f"hazard.{one}")) for one in _HAZARDS}
    told = words[right] if right else none
    choices = [told, *(words[one] for one in chosen)]
    if right:
        choices[-1] = none
        chosen = chosen[:-1]
    rng.shuffle(choices)
    return Drill(
        kind="hazard",
        seed=seed,
        setting=setting,
        facts=(
            Fact("circuit", f"{name}, {entry_of(name).title}"),
            Fact("done", done),
        ),
        choices=tuple(choices),
        right=told,
        path=(f"{name}: played",),
        working=tuple(words[one] for one in sorted(found)) or (none,),
        slips=tuple(Slip("not_shown", one) for one in choices if one != told),
    )
