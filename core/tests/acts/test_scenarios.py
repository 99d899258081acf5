"""The worked scenarios of what people do at a panel: answers, states, messages."""

import pytest
from acts_play import cases, played

from evencoil.acts import state_of, tells

SCENARIOS = {one["id"]: one for one in cases()["scenarios"]}
STATES = ("locks", "wires", "rows", "stages")


def named(found):
    """Return a state by the names that the scenarios use."""
    return {
        "state": found.state,
        "hands": list(found.hands),
        "fit": found.is_fit,
        "open": list(found.open),
        "may_open": found.may_open,
        "signature": found.signature,
        **{name: dict(getattr(found, name)) for name in STATES},
    }


@pytest.mark.parametrize("name", SCENARIOS)
def test_a_worked_scenario_ends_as_it_should(name):
    """What arrives, and what it comes to; only the keys that are given are compared."""
    scenario = SCENARIOS[name]
    play, expected = played(scenario), dict(scenario["expect"])
    for entry, answer in expected.pop("answers", {}).items():
        told = play.answers[entry]
        assert (told if isinstance(answer, list) else told[-1]) == answer, entry
    for entry, told in play.answers.items():
        if entry not in scenario["expect"].get("answers", {}):
            refused = [one for one in told if not one.startswith("kept")]
            allowed = name == "AC-026" and refused
            assert allowed or not refused, (entry, told)
    state, said = state_of(play.log), tells(play.log)
    found = named(state)
    for person, message in expected.pop("tell", ()):
        assert (person, message) in said, (person, message, sorted(said))
    for person, message in expected.pop("tell_not", ()):
        assert (person, message) not in said
    assert set(expected.pop("open_has", ())) <= set(state.open), state.open
    assert not set(expected.pop("open_not", ())) & set(state.open)
    assert set(expected.pop("blocked_has", ())) <= set(state.blocked), state.blocked
    for key, value in expected.items():
        if key in STATES:
            assert {one: found[key].get(one) for one in value} == value
        else:
            assert found[key] == value, key
