"""A practice panel over the network, and faults that colleagues hide."""

import pytest

from drills.models import HiddenFault
from people.models import ActionLog
from tests_support import caller, post, signed_in

PRACTICE = "/api/w/here/practice"


def begun(client, circuit="3A", start="bare"):
    """Return a panel as it begins."""
    return client.get(f"{PRACTICE}/panel?circuit={circuit}&start={start}").json()


def wired(given):
    """Return what is given with every wire of the drawing back: nothing is taken off."""
    return {**given, "starter": {**given["starter"], "edits": []}}


def test_a_bare_panel_is_silent_until_asked(client):
    """Its wires are off; asked, each missing join is told; the drawn circuit is right."""
    panel = begun(client)
    assert panel["off"] == len(panel["given"]["starter"]["edits"]) > 20
    asked = post(client, f"{PRACTICE}/panel/ask", {"given": panel["given"]}).json()
    assert not asked["is_right"]
    assert len(asked["missing"]) > 10
    assert asked["extra"] == []
    whole = post(client, f"{PRACTICE}/panel/ask", {"given": wired(panel["given"])}).json()
    assert whole["is_right"]
    assert begun(client, start="power")["off"] < panel["off"]
    assert client.get(f"{PRACTICE}/panel?circuit=99Z").status_code == 404


def test_a_meter_on_the_panel(client):
    """Ohms of a coil dead, the sentence on a live one, and a terminal that is none."""
    given = wired(begun(client)["given"])
    drawn = post(client, "/api/w/here/circuit", given).json()
    coil = next(one["id"] for one in drawn["devices"] if one["type"] == "contactor")
    switch = next(one["id"] for one in drawn["devices"] if one["type"] in {"cb3", "fdisc"})
    button = next(one["id"] for one in drawn["devices"] if one["tag"] == "S2")
    dead = {"given": given, "kind": "ohms", "start": f"{coil}.A1", "end": f"{coil}.A2"}
    read = post(client, f"{PRACTICE}/panel/meter", {**dead, "at_us": 100_000}).json()
    assert read.get("is_live") is False, read
    assert read["shown"].endswith("Ω")
    live = {
        **dead,
        "at_us": 3_000_000,
        "actions": [
            {"t": 0, "do": "close", "on": switch},
            {"t": 1_000_000, "do": "press", "on": button},
        ],
    }
    told = post(client, f"{PRACTICE}/panel/meter", live).json()
    assert told.get("is_live"), told
    assert "ohms on live wires" in told["shown"]
    refused = post(client, f"{PRACTICE}/panel/meter", {**dead, "at_us": 0, "start": "none.1"})
    assert (refused.status_code, refused.json()["field"]) == (422, "start")


def test_a_colleague_hides_a_fault_and_another_finds_it(client, here):
    """The list tells circuit and person alone; accused, it is the one; the log has no fault."""
    faults = client.get(f"{PRACTICE}/hideable?circuit=3A").json()["faults"]
    fault = next(one[0] for one in faults if one[0].startswith("coil_open:"))
    made = post(client, f"{PRACTICE}/hide", {"circuit": "3A", "fault": fault}).json()
    other = signed_in(caller("here", "marta"))
    [seen] = other.get(PRACTICE).json()["hidden"]
    assert seen["id"] == made["id"]
    assert fault not in other.get(PRACTICE).content.decode()
    begun_hunt = post(other, f"{PRACTICE}/hidden", {"seed": 1, "hidden": made["id"]}).json()
    assert (begun_hunt["circuit"], begun_hunt["truth"]) == ("3A", "")
    end = post(
        other, f"{PRACTICE}/hidden", {"seed": 1, "hidden": made["id"], "accused": fault}
    ).json()
    assert end["is_found"]
    assert not ActionLog.objects.filter(target__contains="coil").exists()


@pytest.mark.parametrize(
    ("circuit", "fault", "field"), [("3A", "nothing", "fault"), ("99Z", "x", "circuit")]
)
def test_what_cannot_be_hidden_is_refused(client, circuit, fault, field):
    """By the field, and nothing is kept."""
    answer = post(client, f"{PRACTICE}/hide", {"circuit": circuit, "fault": fault})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert not HiddenFault.objects.exists()


def test_a_hidden_fault_of_another_works_is_not_there(client):
    """404, as one that never was."""
    answer = post(client, f"{PRACTICE}/hidden", {"seed": 1, "hidden": 9_999_999})
    assert answer.status_code == 404
