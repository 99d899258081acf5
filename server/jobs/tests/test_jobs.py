"""Jobs at the API: keeping, conflicts, export and import, print, roles."""

import json
import uuid

import pytest

from jobs.models import InputVersion, Job
from people.models import ActionLog, Works
from plant.models import Motor, PlateRevision
from tests_support import PLATE, caller, motor, signed_in

JOB = "/api/w/here/m/IC-2/j/1"


def put(client, part, based_on, body):
    """Give a part of the job."""
    return client.put(
        f"{JOB}/{part}", {"based_on": based_on, "body": body}, content_type="application/json"
    )


def shown(job):
    """Return what a job's figures show."""
    return {step["id"]: step["shown"] for step in job["worked"]["steps"]}


def test_a_job_comes_with_its_figures(client):
    """15 hp at 460 V: 21 A, 10 AWG, and who gave what."""
    job = client.get(JOB).json()

    assert shown(job)["table_flc_a"] == "21"
    assert shown(job)["conductor_size"] == "10 AWG"
    plate = job["versions"]["plate"]
    assert (plate["n"], plate["by"], plate["source"]) == (1, "ann", "")
    assert plate["at"]


def test_working_out_keeps_nothing(client):
    """The live reading of a half-typed plate leaves no trace."""
    before = PlateRevision.objects.count()
    answer = client.post(
        "/api/w/here/work-out",
        {"plate": {"text": "20 HP 460 V 3 PH"}, "supply": {"text": "480Y/277"}},
        content_type="application/json",
    )

    assert {step["id"]: step["shown"] for step in answer.json()["steps"]}["table_flc_a"] == "27"
    assert PlateRevision.objects.count() == before


def test_every_change_is_a_version_and_the_same_again_is_none(client):
    """Append only: two different texts give two versions, the same text gives none."""
    assert put(client, "supply", 1, {"text": "240 delta"}).json()["n"] == 2
    assert put(client, "supply", 2, {"text": "240 delta"}).json()["n"] == 2
    assert list(
        InputVersion.objects.filter(step="supply")
        .order_by("n")
        .values_list("body__text", flat=True)
    ) == ["480Y/277", "240 delta"]


@pytest.mark.parametrize(
    ("part", "mine", "theirs"),
    [
        ("plate", {"text": "20 HP 460 V"}, {"text": "25 HP 460 V", "assumed": []}),
        ("supply", {"text": "208Y/120"}, {"text": "240 delta"}),
        ("size", {"conductor_material": "al"}, None),
        ("leads", {"winding": "9-delta"}, {"winding": "9-wye", "joints": []}),
    ],
)
def test_a_stale_write_is_told_what_differs(client, part, mine, theirs):
    """The second of two people gets 409 with the first one's version; nothing is lost."""
    other = signed_in(caller("here", "ben"))
    begun = 0 if part == "leads" else 1
    if part == "leads":
        put(client, part, 0, {})
        begun = 1
    first = put(other, part, begun, theirs or {"conductor_material": "al", "ambient_c": "40"})
    assert first.status_code == 200
    second = put(client, part, 1, mine)

    assert second.status_code == 409
    said = second.json()
    assert said["code"] == "conflict"
    assert said["theirs"]["by"] == "ben"
    assert theirs is None or {name: said["body"][name] for name in theirs} == theirs
    assert put(client, part, said["theirs"]["n"], mine).status_code == 200


@pytest.mark.parametrize(
    ("part", "body", "field"),
    [
        ("plate", {"text": "15 HP\u0000"}, "body.body.text"),
        ("plate", {"text": "x" * 4001}, "body.body.text"),
        ("plate", {"text": "", "assumed": [{"field": "color", "value": "red"}]}, "plate.assumed"),
        ("size", {"ambient_c": "warm"}, "body.body.ambient_c"),
        ("size", {"ambient_c": 30.5}, "body.body.ambient_c"),
        ("size", {"current_carrying": -3}, "body.body.current_carrying"),
        ("size", {"edition": 2011}, "body.body.edition"),
        ("size", {"surprise": 1}, "body.body.surprise"),
    ],
)
def test_bad_input_is_refused_at_its_field_and_nothing_is_kept(client, part, body, field):
    """Each refusal names the field and a next step; the versions stay as they were."""
    before = (PlateRevision.objects.count(), InputVersion.objects.count())
    answer = put(client, part, 1, body)

    assert answer.status_code == 422
    assert answer.json()["field"] == field.removeprefix("body.")
    assert answer.json()["hint"]
    assert before == (PlateRevision.objects.count(), InputVersion.objects.count())


@pytest.mark.parametrize(
    ("body", "status"),
    [
        (b"{", 400),
        (b'{"plate": NaN}', 400),
        (b'{"plate": {"text": "\\ud800"}}', 400),
        (b"[" * 100_000, 400),
        (b" " * 2_000_000, 413),
        (b"\xff\xfe\x00", 400),
    ],
)
def test_bodies_that_are_no_json(client, body, status):
    """Broken, deep, huge or ill-encoded bodies get the one shape."""
    answer = client.post("/api/w/here/work-out", body, content_type="application/json")

    assert answer.status_code == status
    assert set(answer.json()) == {"code", "detail", "field", "hint"}


def test_export_then_import_elsewhere_gives_the_same_figures(client):
    """Another works, with another edition, takes the file over and sizes the same."""
    data = client.get(f"{JOB}/file").content.decode()
    there = caller("there", "bob")
    Works.objects.filter(slug="there").update(edition=2017)
    answer = signed_in(there).post(
        "/api/w/there/jobs/import", {"file": data}, content_type="application/json"
    )

    assert answer.status_code == 201
    place = answer.json()
    again = signed_in(there).get(f"/api/w/there/m/{place['tag']}/j/{place['job']}").json()
    first = client.get(JOB).json()
    assert shown(again) == shown(first)
    assert [step["rule"] for step in again["worked"]["steps"]] == [
        step["rule"] for step in first["worked"]["steps"]
    ]


def test_import_into_the_same_works_is_the_identity(client):
    """The same file again changes nothing; export gives the same bytes."""
    data = client.get(f"{JOB}/file").content
    counts = (Motor.objects.count(), Job.objects.count(), PlateRevision.objects.count())
    answer = client.post(
        "/api/w/here/jobs/import", {"file": data.decode()}, content_type="application/json"
    )

    assert answer.status_code == 201
    assert client.get(f"{JOB}/file").content == data
    assert counts == (Motor.objects.count(), Job.objects.count(), PlateRevision.objects.count())


def test_a_tag_that_is_taken_is_told_and_can_be_changed(client):
    """Another motor with this tag: 409, then taken over under a new tag."""
    body = json.loads(client.get(f"{JOB}/file").content)
    body["motor"]["id"], body["job_id"] = str(uuid.uuid4()), str(uuid.uuid4())
    send = {"file": json.dumps(body)}
    url = "/api/w/here/jobs/import"

    taken = client.post(url, send, content_type="application/json")
    assert (taken.status_code, taken.json()["code"]) == (409, "tag_taken")
    answer = client.post(url, {**send, "as_tag": "IC-9"}, content_type="application/json")
    assert (answer.status_code, answer.json()["tag"]) == (201, "IC-9")


def test_a_bad_file_changes_nothing(client):
    """The problem names the field inside the file."""
    body = json.loads(client.get(f"{JOB}/file").content)
    body["size"]["ambient_c"] = "warm"
    before = ActionLog.objects.count()
    answer = client.post(
        "/api/w/here/jobs/import", {"file": json.dumps(body)}, content_type="application/json"
    )

    assert (answer.status_code, answer.json()["field"]) == (422, "size.ambient_c")
    assert ActionLog.objects.count() == before


def test_a_job_goes_stale_when_the_plate_is_read_again_elsewhere(client, here):
    """A second job of the motor reads a new plate; the first says so until told to use it."""
    body = json.loads(client.get(f"{JOB}/file").content)
    body["job_id"] = str(uuid.uuid4())
    body["plate"]["text"] = "20 HP 460 V 3 PH"
    client.post(
        "/api/w/here/jobs/import", {"file": json.dumps(body)}, content_type="application/json"
    )

    first = client.get(JOB).json()
    assert first["is_stale"]
    assert first["plate"]["text"] == PLATE
    fresh = client.post(f"{JOB}/plate/newest").json()
    assert not fresh["is_stale"]
    assert shown(fresh)["table_flc_a"] == "27"


def test_an_apprentice_reads_plates_but_adds_no_motor(db):
    """Paper is open to all; adding a motor needs an electrician."""
    motor(caller("here", "ann"))
    pim = signed_in(caller("here", "pim", "apprentice"))

    assert put(pim, "supply", 1, {"text": "240 delta"}).status_code == 200
    refused = pim.post("/api/w/here/motors", {"tag": "Z-1"}, content_type="application/json")
    assert (refused.status_code, refused.json()["code"]) == (403, "not_allowed")
    yard = pim.get("/api/w/here/yard").json()
    assert (yard["may_add"], yard["why_not_add"]) == (
        False,
        "Only an electrician or above can add a motor.",
    )


def test_a_machine_whose_name_is_too_long_is_refused_before_anything_is_stored(client):
    """120 characters are taken, 121 are refused by field, and no motor appears."""
    url = "/api/w/here/motors"

    def add(tag, machine):
        return client.post(url, {"tag": tag, "machine": machine}, content_type="application/json")

    assert add("Z-1", "m" * 120).status_code == 201
    refused = add("Z-2", "m" * 121)
    assert refused.status_code == 422
    assert refused.json()["field"].endswith("machine")
    tags = [item["tag"] for item in client.get("/api/w/here/yard").json()["motors"]]
    assert "Z-1" in tags
    assert "Z-2" not in tags


def test_a_new_motor_is_in_the_yard_and_wants_its_plate(client):
    """Tag taken: 409. New tag: there, with the next thing to do."""
    url = "/api/w/here/motors"
    assert client.post(url, {"tag": "IC-2"}, content_type="application/json").status_code == 409
    assert client.post(url, {"tag": "a/b"}, content_type="application/json").status_code == 422
    answer = client.post(url, {"tag": "SF-5", "name": "feeder"}, content_type="application/json")

    assert answer.status_code == 201
    line = client.get("/api/w/here/yard").json()["motors"][-1]
    assert (line["tag"], line["wants"], line["next_step"]) == (
        "SF-5",
        "Nameplate not entered yet.",
        "plate",
    )


def test_every_change_leaves_a_line_in_the_log(client):
    """Who did what to which motor, in the same transaction."""
    put(client, "supply", 1, {"text": "240 delta"})
    last = ActionLog.objects.order_by("-pk").first()

    assert (last.by.username, last.action, last.target) == ("ann", "give supply", "IC-2 job 1")


def test_history_tells_who_changed_what_and_an_old_version_can_come_back(client):
    """Three versions of the supply, newest first, each with what it changed."""
    put(client, "supply", 1, {"text": "240 delta"})
    other = signed_in(caller("here", "ben"))
    put(other, "supply", 2, {"text": "208Y/120"})
    rows = client.get(f"{JOB}/history/supply").json()

    assert [(row["n"], row["by"], row["body"]["text"]) for row in rows] == [
        (3, "ben", "208Y/120"),
        (2, "ann", "240 delta"),
        (1, "ann", "480Y/277"),
    ]
    assert all(row["changed"] == ["text"] for row in rows)
    assert put(client, "supply", 3, rows[-1]["body"]).json()["n"] == 4
    assert client.get(JOB).json()["supply"]["text"] == "480Y/277"


def test_a_wrong_join_is_kept_and_told_for_what_it_does(client):
    """The box may be wrong: it is stored as found, and the coils say so."""
    joints = [
        {"id": str(uuid.uuid4()), "leads": leads, "line": line}
        for leads, line in (
            (["T1", "T7"], "L1"),
            (["T2", "T8"], "L2"),
            (["T3", "T9"], "L3"),
            (["T4", "T5", "T6"], None),
        )
    ]
    answer = put(client, "leads", 0, {"winding": "9-wye", "joints": joints})
    box = client.get(JOB).json()["worked"]["box"]

    assert answer.status_code == 200
    assert box["verdict"] == "wrong"
    # 480 / 1.732 = 277 V where 132.8 V is right, at standstill and at speed alike
    assert {round(coil["volts_v"] / coil["rated_v"], 1) for coil in box["coils"]} == {2.1}
    assert {coil["state"] for coil in box["coils"]} == {"over"}
    assert [joint["leads"] for joint in box["derived"] if joint["line"] is None] == [
        ["T4", "T7"],
        ["T5", "T8"],
        ["T6", "T9"],
    ]
