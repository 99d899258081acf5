"""Probes find what the catalogue calls a hazard, and nothing where it calls none."""

import pytest
from circuit_play import circuit_of, edited

from evencoil.base.words import say
from evencoil.rehearsal.probes import FAMILIES, probes, starts_of
from evencoil.rehearsal.stage import Stage


@pytest.mark.parametrize("name", ["3A", "3C", "6A", "6C", "7A"])
def test_sound_circuits_hold_and_say_how_much_was_searched(name):
    """Momentary starts with their interlocks: nothing starts, holds or crosses by itself."""
    circuit = circuit_of(name)
    found = {one.family: one for one in probes(circuit)}
    assert tuple(found) == FAMILIES
    assert all(one.holds and one.hazard is None and one.acts == () for one in found.values())
    assert found["power_back"].searched >= 1
    assert found["stop_wire"].searched >= 2
    assert (found["interlock"].searched > 0) == bool(circuit.never_together)


@pytest.mark.parametrize(
    ("name", "edit", "family", "code"),
    [
        ("2A", "", "power_back", "springs_to_life"),
        ("2A", "", "overload_reset", "springs_to_life"),
        ("6B", "", "interlock", "both_ways"),
        ("3A", "move KM1.13 S2.13 -> S1.11", "stop", "does_not_stop"),
        ("3A", "add S2.13 S2.14", "power_back", "springs_to_life"),
        ("3A", "swap S2.13 S2.21; swap S2.14 S2.22", "power_back", "springs_to_life"),
        ("3A", "remove SUP.PE T1.X2; add SUP.PE FU3.2", "ground", "does_not_stop"),
    ],
)
def test_a_hazard_is_found_with_its_shortest_sequence(name, edit, family, code):
    """Two-wire control, push-button interlock only, and wrong wires of the catalogue."""
    circuit = circuit_of(name)
    (found,) = probes(edited(circuit, edit) if edit else circuit, [family])
    assert not found.holds
    assert found.hazard.code == code
    assert found.hazard.sentence
    assert all(say(act) for act in found.acts)


def test_what_starts_it_is_found_by_trying():
    """One push, a selector and a pilot, a reset and then a push: whatever it takes."""
    for name, wanted in (("3A", ["S2"]), ("2A", ["SS1", "PS1"]), ("3C", ["S0", "S2"])):
        circuit = circuit_of(name)
        starts = starts_of(Stage(circuit))
        assert [circuit.tags[act.on] for act in starts[0]] == wanted


@pytest.mark.parametrize(
    ("name", "holds"),
    # 13B keeps a fault after one second: reset before that, its command still stands
    [("13B", False), ("3A", True)],
)
def test_an_overload_is_reset_at_once_and_after_a_while(name, holds):
    """A program that latches a fault late starts again on a quick reset alone."""
    (found,) = probes(circuit_of(name), ["overload_reset"])
    assert found.holds is holds
    assert found.searched == (2 * len(starts_of(Stage(circuit_of(name)))) if holds else 2)
