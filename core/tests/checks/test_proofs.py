"""Proofs over settled states: exhausted, with counts, and a shortest sequence that breaks."""

import pytest
from circuit_play import circuit_of, edited
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.words import say
from evencoil.checks.proofs import prove


@pytest.mark.many
@pytest.mark.parametrize("name", ["3A", "6A", "6C", "7A", "8A", "5B"])
@pytest.mark.parametrize("kind", ["hands", "weld"])
def test_sound_circuits_are_proven_to_the_last_state(name, kind):
    """Nothing met, nothing left; every contactor of an exclusive pair welded in turn."""
    circuit = circuit_of(name)
    found = prove(circuit, kind)
    assert found.holds
    assert found.is_exhausted
    assert found.transitions > found.states > 1
    paired = {device for pair in circuit.never_together for device in pair}
    assert set(found.faults) >= (paired if kind == "weld" else set())


@pytest.mark.parametrize(
    ("name", "edit", "kind", "code", "length"),
    [
        # selector, then the float: the power goes and comes back, or the overload is reset
        ("2A", "", "hands", "springs_to_life", 4),
        # forward, let go, welded, reverse
        ("6B", "", "weld", "both_ways", 4),
        # forward held, then reverse
        ("6A", "remove KF.22 KR.A1; add KF.21 KR.A1", "hands", "both_ways", 2),
        ("3A", "move KM1.13 S2.13 -> S1.11", "hands", "does_not_stop", 2),
    ],
)
def test_what_breaks_it_is_the_shortest(name, edit, kind, code, length):
    """The sequence that a person would find with the fewest actions, counted by hand."""
    circuit = circuit_of(name)
    found = prove(edited(circuit, edit) if edit else circuit, kind)
    broken = {one.code: one for one in found.broken}
    assert len(broken[code].acts) == length
    assert all(say(act) for act in broken[code].acts)
    assert broken[code].hazard.sentence
    assert not found.holds


@settings(max_examples=8, deadline=None)
@given(st.integers(min_value=1, max_value=150))
def test_a_limit_is_told_and_never_passed(most):
    """A search that was cut off never counts as proven, and says how far it went."""
    told = []
    found = prove(circuit_of("16A"), most=most, tell=lambda done, left: told.append((done, left)))
    assert not found.is_exhausted
    assert not found.holds
    assert found.transitions <= most


def test_progress_is_told():
    """Every few hundred transitions the caller hears how far it is."""
    told = []
    prove(circuit_of("6A"), tell=lambda done, left: told.append(done))
    assert told
    assert told == sorted(told)
