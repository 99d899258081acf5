"""Read a ladder: of a given fault, what people will say is chosen.

The right answer and the wrong ones are played on the circuit, none is written down.
"""

from __future__ import annotations

import random
from functools import cache

from evencoil.circuit import Circuit
from evencoil.practice.model import Drill, Fact, Slip
from evencoil.starters import draw, entry_of
from evencoil.trouble import (
    Fault,
    Script,
    Seen,
    faults_of,
    play,
    said_fault,
    script_of,
    symptoms,
    symptoms_of,
)

__all__ = ["ladder_drill"]

_CIRCUITS = ("2A", "3A", "3B", "6A", "6B", "6C", "8A")
_ROWS = {
    "wire_open.control",
    "wire_open.field",
    "no_make.button",
    "no_make.auxiliary",
    "no_break",
    "jumper",
    "coil_open.contactor",
    "weld.contactor",
    "pole_open.contactor",
    "lines_exchanged",
    "overload_tripped",
    "timer_set",
    "no_make.timer",
}
#: they differ by the lamps of a circuit alone: never two of them in one question
_ALIKE = ({"dead_no_lamps", "dead_lamps_on"}, {"runs_hot", "runs_rough", "trips_later"})
_CHOICES = 4


@cache
def _circuit(name: str) -> tuple[Circuit, Script, Seen, tuple[Fault, ...]]:
    circuit = draw(name).circuit
    script = script_of(circuit)
    faults = tuple(
        one for one in faults_of(circuit) if one.is_played and one.also is None and one.row in _ROWS
    )
    return circuit, script, play(circuit, script), faults


def ladder_drill(seed: int, setting: str) -> Drill:
    """Return a question of what happens with a fault.

    Parameters
    ----------
    seed : int
        The same seed makes the same question.
    setting : str
        Kept with it; it decides nothing here.
    """
    rng = random.Random(f"ladder {seed}")  # noqa: S311 - a drill is no secret
    while True:
        name = rng.choice(_CIRCUITS)
        circuit, script, sound, faults = _circuit(name)
        fault = rng.choice(faults)
        shows = symptoms_of(circuit, play(circuit, script, fault, None, sound), sound)
        if shows:
            break
    right = rng.choice(sorted(shows))
    near = set(shows)
    for alike in _ALIKE:
        if alike & shows or right in alike:
            near |= alike
    others = [one for one in _COMMON if one not in near]
    chosen = rng.sample(others, _CHOICES - 1)
    words = symptoms()
    choices = [words[one].name for one in (right, *chosen)]
    rng.shuffle(choices)
    return Drill(
        kind="ladder",
        seed=seed,
        setting=setting,
        facts=(
            Fact("circuit", f"{name}, {entry_of(name).title}"),
            Fact("fault", said_fault(fault)),
        ),
        choices=tuple(choices),
        right=words[right].name,
        path=(f"{name}: played with this fault and without",),
        working=tuple(f"{words[one].name}: {words[one].wording}" for one in sorted(shows)),
        slips=tuple(Slip("not_shown", words[one].name) for one in chosen),
    )


_COMMON = (
    "dead_lamps_on",
    "runs_only_while_held",
    "will_not_stop",
    "starts_by_itself",
    "wrong_way",
    "hums",
    "one_direction_dead",
    "one_direction_hums",
    "drops_out_at_change_over",
    "never_changes_over",
    "trips_at_once",
    "blows_fuse",
)
