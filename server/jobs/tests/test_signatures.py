"""No request and no file signs in another's name; each role does what it may, and no more."""

import json
import uuid

import pytest

from tests_support import JOB, caller, motor, post, put, signed_in

EDIT = {"id": "e-1", "kind": "remove_wire", "wire": "start.14~main.A1", "why": "worn"}
HAZARD = {"hazard": "power_back", "why": "pump must come back"}
FORGED = {"by": "Nobody", "at": "1999-01-01T00:00:00Z"}


def saved(answer):
    """Return the body that was stored."""
    assert answer.status_code == 200, answer.content
    return answer.json()["body"]


@pytest.fixture
def people(client):
    """The plant with one person of each role, and the motor IC-2."""
    return {
        role: signed_in(caller("here", name, role))
        for role, name in (
            ("apprentice", "pim"),
            ("electrician", "marta"),
            ("reviewer", "ruth"),
            ("admin", "abel"),
        )
    }


def test_an_edit_changed_by_another_tells_both(people):
    """Who added it stays; who changed it is told; a claim of either is ignored."""
    first = saved(
        put(
            people["electrician"],
            "starter",
            {"standard_circuit": "3A", "edits": [{**EDIT, **FORGED, "changed_by": "Nobody"}]},
        )
    )["edits"][0]
    assert (first["by"], first["changed_by"]) == ("marta", "")
    assert not first["at"].startswith("1999")
    # the same edit with another reason, sent by another with the first one's name
    other = {**first, "why": "moved on purpose", "changed_by": "marta"}
    second = saved(
        put(people["apprentice"], "starter", {"standard_circuit": "3A", "edits": [other]}, 1)
    )["edits"][0]
    assert (second["by"], second["changed_by"]) == ("marta", "pim")
    # sent again unchanged, also by a third: nothing new is claimed
    again = {
        "standard_circuit": "3A",
        "edits": [{**second, "changed_by": "Nobody"}],
        "load": "empty",
    }
    third = saved(put(people["reviewer"], "starter", again, 2))["edits"][0]
    assert third == second


#: role to whether it may accept a hazard
MAY_SIGN = {"apprentice": False, "electrician": True, "reviewer": True, "admin": False}


@pytest.mark.parametrize("role", MAY_SIGN)
def test_who_accepts_a_hazard(people, role):
    """By name and reason, in one's own name; what is accepted already stays for everybody."""
    body = {"standard_circuit": "2A", "accepted": [{**HAZARD, **FORGED}]}
    answer = put(people[role], "starter", body)
    if not MAY_SIGN[role]:
        assert (answer.status_code, answer.json()["code"]) == (403, "not_allowed")
        assert answer.json()["field"] == "starter.accepted"
        put(people["electrician"], "starter", body)
        kept = put(people[role], "starter", {**body, "load": "empty"}, 1)
        assert saved(kept)["accepted"][0]["by"] == "marta"
        return
    assert saved(answer)["accepted"][0]["by"] != "Nobody"


@pytest.mark.parametrize("role", MAY_SIGN)
def test_who_issues_for_wiring(people, role):
    put(people["electrician"], "starter", {"standard_circuit": "3A"})
    answer = people[role].post(
        f"{JOB}/issues", {"is_for_wiring": True}, content_type="application/json"
    )
    if not MAY_SIGN[role]:
        assert (answer.status_code, answer.json()["code"]) == (403, "not_allowed")
    else:
        assert answer.json().get("code") != "not_allowed"


def test_nobody_accepts_a_restart_on_emergency_stop_reset(people):
    for client in people.values():
        body = {"standard_circuit": "2A", "accepted": [{**HAZARD, "hazard": "estop_release"}]}
        assert put(client, "starter", body).status_code == 422


def test_frozen_numbers_come_from_an_issue_only(people):
    """A request that freezes, changes or drops numbers changes nothing of them."""
    body = {"standard_circuit": "3A", "frozen": {"start.14": "77"}}
    assert saved(put(people["electrician"], "starter", body))["frozen"] == {}


def test_readings_and_records_carry_who_took_them(people):
    """A dead reading, a torque, a motor that would not start."""
    read = {"start": "start.13", "end": "start.14", "ohms": "0.2", **FORGED}
    stored = saved(
        put(people["apprentice"], "starter", {"standard_circuit": "3A", "readings": [read]})
    )
    assert stored["readings"][0]["by"] == "pim"
    more = {"standard_circuit": "3A", "readings": [*stored["readings"], {**read, "ohms": "5"}]}
    both = saved(put(people["reviewer"], "starter", more, 1))["readings"]
    assert [one["by"] for one in both] == ["pim", "ruth"]
    size = {"conductor_material": "cu", "no_start": {"reason": "trips at once", **FORGED}}
    assert saved(put(people["electrician"], "size", size, 1))["no_start"]["by"] == "marta"


def exported(client, **steps):
    """Return the job file of IC-2 as another motor's, with what it claims."""
    file = json.loads(client.get(f"{JOB}/file").content)
    file["motor"] |= {"id": str(uuid.uuid4()), "motor_tag": "BM-7"}
    file["job_id"] = str(uuid.uuid4())
    for step, body in steps.items():
        file[step] |= body
    return file


def test_a_file_signs_nothing_here(people):
    """Accepted, decided, torqued, measured, frozen: none of it counts; edits name the importer."""
    client = people["electrician"]
    put(client, "starter", {"standard_circuit": "2A"})
    file = exported(
        client,
        starter={
            "accepted": [{**HAZARD, **FORGED}],
            "edits": [{**EDIT, **FORGED}],
            "readings": [{"start": "start.13", "end": "start.14", "ohms": "0.2", **FORGED}],
            "frozen": {"main.A1": "99"},
        },
        joints={"work": [{"joint": "joint.line_1", "torque_in_lb": "20", **FORGED}]},
        leads={"followed": {"side": "maker", "reason": "says so", **FORGED}},
        size={"no_start": {"reason": "says so", **FORGED}},
    )
    answer = post(client, "/api/w/here/jobs/import", {"file": json.dumps(file)})
    assert answer.status_code == 201, answer.content
    job = client.get("/api/w/here/m/BM-7/j/1").json()
    assert job["starter"]["accepted"] == []
    assert job["starter"]["readings"] == []
    assert job["starter"]["frozen"] == {}
    assert job["leads"]["followed"] is None
    assert job["size"]["no_start"] is None
    assert job["joints"]["work"][0]["torque_in_lb"] is None
    edit = job["starter"]["edits"][0]
    assert edit["by"] == "marta"
    assert "the file says Nobody" in edit["why"]
    for step in ("plate", "starter", "supply"):
        assert job["versions"][step]["by"] == "marta"
        assert job["versions"][step]["source"] == "job file of BM-7"


def test_a_file_of_the_same_job_takes_nothing_back(people):
    """What was accepted and torqued here stays so when its own export comes back."""
    client = people["electrician"]
    motor(caller("here", "ann"), "X-1")
    put(client, "starter", {"standard_circuit": "2A", "accepted": [HAZARD]})
    put(client, "joints", {"work": [{"joint": "joint.line_1", "torque_in_lb": "20"}]})
    file = client.get(f"{JOB}/file").content.decode()
    before = client.get(JOB).json()
    assert post(people["reviewer"], "/api/w/here/jobs/import", {"file": file}).status_code == 201
    after = client.get(JOB).json()
    assert after["starter"] == before["starter"]
    assert after["joints"] == before["joints"]
    assert after["versions"] == before["versions"]
