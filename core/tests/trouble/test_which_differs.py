"""An option beside its standard circuit: in words, and by what differs in wires and devices."""

import pytest

from evencoil.base import say
from evencoil.trouble import differs, said_option
from evencoil.trouble.which import candidates


def test_nothing_differs_without_an_option():
    """The standard circuit is its own."""
    assert differs("3A", "") == ()
    assert said_option("") == ""


def test_a_second_station_brings_its_buttons_and_wires():
    """3A: STOP in series and START in parallel; the wire from STOP to START goes, four come."""
    said = [say(one) for one in differs("3A", "stations=2")]
    assert sum("push-button" in text and "added" in text for text in said) == 2
    assert "S1.12 – S2.13 is removed." in said
    added = [text for text in said if text.endswith("is added.") and "–" in text]
    assert len(added) == 4
    assert said_option("stations=2").endswith(": 2")


def test_every_option_of_the_table_is_said_and_shown():
    """No key reaches a person, and each option has something that differs."""
    options = {(one.circuit, one.option) for one in candidates() if one.option}
    assert options
    for circuit, option in options:
        assert "=" not in said_option(option)
        assert "option." not in said_option(option)
        assert differs(circuit, option), (circuit, option)


@pytest.mark.parametrize("circuit", ["3A", "6C"])
def test_no_message_names_a_device_by_its_id(circuit):
    """What is told names tags and terminals."""
    for one in differs(circuit, "reset=auto"):
        assert say(one)
