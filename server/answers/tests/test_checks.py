"""Checks of a drawn circuit over the API."""

import pytest

URL = "/api/w/here/checks"


def checked(client, starter):
    """Return what the checks say of a starter."""
    answer = client.post(URL, {"starter": starter}, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.mark.django_db
def test_a_wrong_wire_is_named_with_its_change_and_lights_its_nets(client):
    """The coil's common side taken past the overload contact."""
    edit = {
        "id": "e1",
        "kind": "move_end",
        "wire": "main.A2~overload.95",
        "start": "overload.95",
        "end": "overload.96",
    }
    body = checked(client, {"standard_circuit": "3A", "edits": [edit]})
    worst = body["found"][0]
    assert (worst["rule"], worst["level"]) == ("H07", "error")
    assert "OL1" in worst["text"]
    assert worst["devices"] == ["overload", "main"]
    assert worst["edits"][0]["kind"] == "move_end"
    assert any(one["rule"] == "H46" and one["nets"] is not None for one in body["found"])


@pytest.mark.django_db
def test_each_isolator_tells_what_stays_live(client):
    """A control supply of its own stays live behind the main breaker."""
    found = checked(client, {"standard_circuit": "3A", "options": {"control_source": "separate"}})
    (main,) = found["isolations"]
    assert not main["clean"]
    assert any("can still pull in: KM1" in line for line in main["lines"])
    clean = checked(client, {"standard_circuit": "3A"})["isolations"][0]
    assert clean["clean"]
    assert checked(client, {}) == {"found": [], "isolations": []}
