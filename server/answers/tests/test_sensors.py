"""Sensors over the API: what a pair of leads is, an element's temperature, the shaft-current loop."""

import pytest

from tests_support import caller, motor, signed_in


@pytest.fixture
def client(db):
    """Ann, signed in."""
    who = caller("here", "ann")
    motor(who)
    return signed_in(who)


def sent(client, path, body):
    """Post JSON."""
    return client.post(f"/api/sensors/{path}", body, content_type="application/json")


def test_typed_ohms_are_several_kinds_until_told_apart(client):
    """109.7 ohm at 25 C, with a heater of 120 V and 130 W (110.8 ohm)."""
    body = {"ohms": "109,7", "ambient_c": 25, "heater_v": 120, "heater_w": 130}
    told = sent(client, "what", body).json()
    kinds = {one["kind"] for one in told["fits"]}
    assert kinds == {"Pt100", "PTC x1", "PTC x3", "heater"}
    assert any("volts squared" in text for text in told["next"])
    assert {one["kind"] for one in sent(client, "what", {"ohms": "OL"}).json()["fits"]} == {
        "thermostat open"
    }
    assert sent(client, "what", {"ohms": "much"}).status_code == 422


def test_three_wires_of_a_pt100(client):
    """(112.39 + 112.39) / 2 - 4.60 = 107.79 ohm: 20 C."""
    body = {"element": "Pt100", "wires": 3, "ac": 112.39, "bc": 112.39, "ab": 4.6}
    told = sent(client, "element", body).json()
    assert told["celsius"] == pytest.approx(20.0, abs=0.05)
    assert told["arithmetic"] == "(112.39 + 112.39) / 2 - 4.6"
    assert sent(client, "element", {**body, "wires": 4}).status_code == 422


def test_a_plain_probe_closes_the_loop(client):
    """An insulated one does not."""
    ends = {"drive_end": {"bearing": "plain"}, "other_end": {"bearing": "outer ring"}}
    assert sent(client, "loop", ends).json() == {"flows": False}
    ends["other_end"]["probe"] = "plain"
    assert sent(client, "loop", ends).json() == {"flows": True}
