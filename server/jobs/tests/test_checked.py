"""What cannot be calculated is refused on write, with field and next step, and changes nothing."""

import pytest

from tests_support import JOB, put


def edited(*edits):
    """Return a starter with edits."""
    return {
        "standard_circuit": "3A",
        "edits": [{"id": f"e-{place}", **edit} for place, edit in enumerate(edits)],
    }


#: known breakers, with a word of the refusal
BREAKERS = [
    ({"kind": "add_device", "type": "tb", "parameters": {"n": "1.5"}, "tag": "X9"}, "1.5"),
    ({"kind": "set", "device": "main", "parameters": {"coil": "0"}}, "coil"),
    ({"kind": "set", "device": "supply", "parameters": {"fault_ka": "0"}}, "fault_ka"),
    ({"kind": "add_device", "type": "lamp", "parameters": {"v": "0"}, "tag": "H9"}, "v"),
    ({"kind": "add_device", "type": "thermostat", "parameters": {"c": "13"}, "tag": "T9"}, "c"),
    ({"kind": "add_device", "type": "no such type", "tag": "Z9"}, "no such type"),
    ({"kind": "set", "device": "main", "parameters": {"no such": "1"}}, "no such"),
]


@pytest.mark.parametrize(("edit", "word"), BREAKERS)
def test_a_setting_that_cannot_be_is_refused_on_write(client, edit, word):
    """422 with the edit; the saved starter, its job and the list stay as they were."""
    assert put(client, "starter", edited()).status_code == 200
    refused = put(client, "starter", edited(edit), 1)
    assert refused.status_code == 422
    said = refused.json()
    assert said["field"] == "starter.edits.0"
    assert word in said["detail"]
    assert said["hint"]
    job = client.get(JOB).json()
    assert job["versions"]["starter"]["n"] == 1
    assert job["starter"]["edits"] == []
    assert client.get("/api/w/here/yard").status_code == 200


def test_an_edit_that_another_circuit_made_stale_is_still_kept(client):
    """A wire that this circuit does not have is no mistake of the form: it is told, and kept."""
    gone = edited({"kind": "remove_wire", "wire": "nowhere~at.all"})
    assert put(client, "starter", gone).status_code == 200
    body = {"starter": gone, "plate": {}, "supply": {}}
    said = client.post("/api/w/here/circuit", body, content_type="application/json").json()
    assert len(said["stale"]) == 1


@pytest.mark.parametrize(
    "size",
    [
        {"control": {"volts_v": "120"}},
        {"control": {"lamps_va": "7.5"}},
        {"control": {"volts_v": "0.01", "transformer_va": "9999"}},
    ],
)
def test_control_power_without_coils_breaks_neither_job_nor_list(client, size):
    """The breaker of the review: control volts or lamps with a starter chosen."""
    put(client, "starter", edited())
    assert put(client, "size", size, 1).status_code == 200
    assert client.get(JOB).status_code == 200
    assert client.get("/api/w/here/yard").status_code == 200


@pytest.mark.parametrize("groups", [[["a", "?"]], [["zz"]], [["a", "a"]], [[]], [["a"] * 30]])
def test_bench_groups_of_unknown_letters_are_refused_or_read(client, groups):
    """No answer of the job breaks on them."""
    answer = put(client, "bench", {"groups": groups})
    assert answer.status_code in {200, 422}
    assert client.get(JOB).status_code == 200
    assert client.get("/api/w/here/yard").status_code == 200


def test_a_text_whose_normal_form_is_longer_is_refused(client):
    """U+FB2C becomes three characters in normal form: 100 of them are 300, and 200 is the most."""
    answer = put(client, "plate", {"text": "15 HP 460 V", "photo": "\ufb2c" * 100}, 1)
    assert answer.status_code == 422
    made = client.post(
        "/api/w/here/motors",
        {"tag": "Q-1", "name": "\ufb2c" * 100, "machine": "Line 1"},
        content_type="application/json",
    )
    assert made.status_code in {403, 422}


def test_a_fault_of_our_own_is_refused_and_not_kept(client, monkeypatch):
    """Whatever goes wrong in the calculation, nothing that breaks reading is stored."""

    def broken(*_):
        raise ZeroDivisionError

    monkeypatch.setattr("jobs.checked.work_out", broken)
    refused = put(client, "size", {"conductor_material": "al"}, 1)
    assert (refused.status_code, refused.json()["code"]) == (422, "not_calculated")
    monkeypatch.undo()
    assert client.get(JOB).json()["versions"]["size"]["n"] == 1
