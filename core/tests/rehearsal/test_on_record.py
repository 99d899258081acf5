"""What a rehearsal must have shown before it is put on record."""

import pytest

from evencoil.rehearsal import ScenarioAct, Stage, missing_of, opening_of
from evencoil.starters import draw

SECOND = 1_000_000


def missing(standard, *acts):
    """Play acts on a standard circuit, and return what is missing."""
    circuit = draw(standard).circuit
    stage = Stage(circuit)
    played = [
        ScenarioAct(at_us=round(at * SECOND), do=do, on=on, word=word) for at, do, on, word in acts
    ]
    last = max((act.at_us for act in played), default=0)
    trace = stage.play([*opening_of(circuit), *played], until_us=last + 12 * SECOND)
    return [one.id for one in missing_of(circuit, trace)]


def test_started_and_stopped_is_whole():
    """Nothing is missing once the motor has run and stands still again."""
    assert missing("3A", (1, "push", "start", ""), (5, "push", "stop", "")) == []


@pytest.mark.parametrize(
    ("acts", "lacks"),
    [
        ((), "rehearsal.record.not_run"),
        (((1, "push", "start", ""),), "rehearsal.record.not_stopped"),
    ],
)
def test_never_run_or_never_stopped_is_said(acts, lacks):
    """It names what has to be played."""
    assert lacks in missing("3A", *acts)


def test_both_directions_have_to_be_played():
    """A reversing starter whose reverse contactor never pulled in is not rehearsed."""
    forward = ((1, "push", "forward", ""), (5, "push", "stop", ""))
    assert missing("6A", *forward) == ["rehearsal.record.not_pulled"]
    both = (*forward, (20, "push", "reverse", ""), (25, "push", "stop", ""))
    assert missing("6A", *both) == []


def test_a_hazard_is_no_rehearsal():
    """Weld the contactor and press stop: it does not stop, and that is not put on record."""
    acts = ((1, "push", "start", ""), (3, "weld", "main", ""), (5, "push", "stop", ""))
    assert "rehearsal.record.hazard" in missing("3A", *acts)
