"""What is this circuit: reversing circuits told apart by what was seen of them."""

import pytest

from evencoil.starters import catalogue, draw
from evencoil.trouble import OPERATIONS, behavior_of, rank
from evencoil.trouble.which import candidates


def best(**seen):
    """Return the circuits, as drawn, that agree with all that was seen."""
    found = rank(seen)
    return {
        one.circuit
        for one, agrees in found.best
        if agrees == len(seen) and not one.option and one.fault is None
    }


def test_a_button_interlock_reverses_and_a_contactor_interlock_does_not():
    """6B and 6C reverse with the other button; 6A and 6D have to be stopped first."""
    assert {"6B", "6C"} <= best(other_running="reverses", ways="two")
    assert not {"6A", "6D"} & best(other_running="reverses", ways="two")
    assert {"6A", "6D"} <= best(other_running="nothing", ways="two")


def test_what_could_plug_or_short_is_never_proposed():
    """Whatever was seen, the other button and both buttons are only taken, never asked for."""
    for seen in ({}, {"let_go": "keeps_running"}, {"ways": "two"}, {"other_running": "reverses"}):
        found = rank(seen)
        assert found.propose not in {"other_running", "both", "power_back", "overload_test"}


def test_a_star_delta_changes_over():
    """By what is heard: it goes over by itself."""
    assert "8A" in best(change_over="yes", ways="two")
    assert "3A" not in best(change_over="yes")


def test_every_circuit_is_in_the_table_and_its_words_are_known():
    """One row for each as drawn; answers are those of the operation."""
    table = {one.circuit for one in candidates() if not one.option and one.fault is None}
    assert table == set(catalogue())
    for one in candidates():
        for key, word in one.behavior.seen.items():
            assert word in OPERATIONS[key], (one.circuit, key, word)


@pytest.mark.many
@pytest.mark.parametrize("name", ["2A", "3A", "6A", "6B", "6C", "6D", "8A", "11A", "13B", "17A"])
def test_the_table_is_what_the_circuit_does(name):
    """Played anew: `tools/behaviors.py` was run after the last change."""
    kept = next(
        one for one in candidates() if one.circuit == name and not one.option and one.fault is None
    )
    behavior, risks = behavior_of(draw(name).circuit)
    assert dict(kept.behavior.seen) == dict(behavior.seen)
    assert kept.risks == risks
