"""A row that cannot be read any more is one job that needs repair, and nothing else breaks."""

import pytest

from jobs.actions import AddMotor
from jobs.lines import work_out_lines
from jobs.models import InputVersion
from plant.models import PlateRevision
from tests_support import JOB, caller, motor, put, signed_in

#: what older code or a hand in the database may leave
BROKEN = [
    {"standard_circuit": 5},
    {"edits": [{"kind": "no such kind"}]},
    {"unknown": "field"},
    ["not", "a", "step"],
    "text",
    {"accepted": [{"hazard": "power_back"}]},
]


def break_starter(body):
    """Put a body into the newest stored starter as a hand in the database would."""
    row = InputVersion.objects.filter(step="starter").latest("n")
    InputVersion.objects.filter(pk=row.pk).update(body=body)
    return row.n


@pytest.fixture
def here_with_starter(client):
    """The plant with one motor and a starter saved twice."""
    put(client, "starter", {"standard_circuit": "3A"})
    put(client, "starter", {"standard_circuit": "6A"}, 1)
    return client


@pytest.mark.parametrize("body", BROKEN)
def test_the_list_shows_one_job_that_needs_repair(here_with_starter, body):
    """Another motor of the plant is listed as ever; the broken one says which step."""
    client = here_with_starter
    motor(caller("here", "ann"), "BM-9")
    whole = client.get("/api/w/here/yard").json()
    assert [one["needs_repair"] for one in whole["motors"]] == [False, False]
    n = break_starter(body)

    said = client.get("/api/w/here/yard")
    assert said.status_code == 200
    broken, other = said.json()["motors"]
    assert broken["needs_repair"]
    assert f"version {n} of the starter step" in broken["wants"]
    assert broken["next_step"] == "starter"
    assert not other["needs_repair"]
    assert other["headline"] == whole["motors"][1]["headline"]


@pytest.mark.parametrize("body", BROKEN)
def test_the_job_says_what_is_stored_and_an_older_version_mends_it(here_with_starter, body):
    """409 with step, version, field and raw inputs; history can be read; putting back works."""
    client = here_with_starter
    n = break_starter(body)

    refused = client.get(JOB)
    assert refused.status_code == 409
    said = refused.json()
    assert (said["code"], said["step"], said["n"]) == ("needs_repair", "starter", n)
    assert said["field"].startswith("starter")
    assert said["body"] == body
    assert said["hint"]
    history = client.get(f"{JOB}/history/starter").json()
    assert [entry["n"] for entry in history] == [2, 1]

    mended = put(client, "starter", history[1]["body"], n)
    assert mended.status_code == 200, mended.content
    assert client.get(JOB).json()["starter"]["standard_circuit"] == "3A"
    assert not client.get("/api/w/here/yard").json()["motors"][0]["needs_repair"]


def test_a_broken_nameplate_takes_neither_feeder_nor_other_steps_with_it(client):
    """The feeder names the motor that cannot count and sizes nothing without it."""
    motor(caller("here", "ann"), "BM-9")
    broken = PlateRevision.objects.filter(motor__tag="IC-2").latest("n")
    PlateRevision.objects.filter(pk=broken.pk).update(body={"text": 7})

    said = client.post("/api/w/here/feeder/Line 1", {}, content_type="application/json")
    assert said.status_code == 200
    body = said.json()
    refused = {row["tag"]: row["refusal"] for row in body["motors"]}
    assert "cannot be read" in refused["IC-2"]["detail"]
    assert refused["BM-9"] is None
    assert body["steps"] == []
    assert "IC-2" in body["refusal"]["detail"]
    assert client.get("/api/w/here/m/BM-9/j/1").status_code == 200
    # the export of the broken one says so too, in the one shape
    assert client.get(f"{JOB}/file").json()["code"] == "needs_repair"
    assert client.get("/api/w/here/m/BM-9/j/1/file").status_code == 200


def test_a_step_is_saved_while_another_cannot_be_read(here_with_starter):
    """Sizes are entered although the starter is broken."""
    client = here_with_starter
    break_starter({"edits": 3})
    saved = put(client, "size", {"conductor_material": "al"}, 1)
    assert saved.status_code == 200
    # and the broken one can be entered anew, with the author of the caller
    anew = put(client, "starter", {"standard_circuit": "3A"}, 2)
    assert anew.status_code == 200
    assert client.get(JOB).json()["starter"]["standard_circuit"] == "3A"


def test_a_list_page_is_answered_again_only_if_it_changed(client):
    """304 while nothing changed; a new answer after a save, a rule, a hand in the database."""
    first = client.get("/api/w/here/yard")
    tag = first["ETag"]
    assert first["Cache-Control"] == "private, no-cache"
    assert client.get("/api/w/here/yard", HTTP_IF_NONE_MATCH=tag).status_code == 304
    put(client, "size", {"conductor_material": "al"}, 1)
    put(client, "supply", {"text": "240 delta"}, 1)
    again = client.get("/api/w/here/yard", HTTP_IF_NONE_MATCH=tag)
    assert again.status_code == 200
    assert again.json()["motors"][0]["supply"] == "240 delta"
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    ruth.patch("/api/w/here/rules", {"edition": 2017}, content_type="application/json")
    assert ruth.get(JOB).json()["worked"]["edition"] == 2017


def test_pages_hold_fifty_and_search_finds_over_all(
    client, django_assert_max_num_queries, monkeypatch
):
    """Sixty motors: two pages; what is searched is found wherever it stands."""
    who = caller("here", "ann", "admin")
    # no line within a request, however quick the machine: all are left to the worker
    monkeypatch.setattr("jobs.lines.BUDGET_S", 0.0)

    for place in range(59):
        AddMotor(who, tag=f"P-{place:02}", called="pump", machine="Line 2").run()
    first = client.get("/api/w/here/yard").json()
    assert (len(first["motors"]), first["page"], first["pages"], first["found"]) == (50, 1, 2, 60)
    second = client.get("/api/w/here/yard?page=2").json()
    assert len(second["motors"]) == 10
    tags = [one["tag"] for one in first["motors"] + second["motors"]]
    assert len(set(tags)) == 60
    found = client.get("/api/w/here/yard?q=p-58").json()
    assert [one["tag"] for one in found["motors"]] == ["P-58"]
    assert client.get("/api/w/here/yard?page=9").json()["page"] == 2
    # once calculated, a page costs the same few queries however many motors there are
    assert work_out_lines.func(who.works.pk) == 60
    assert work_out_lines.func(who.works.pk) == 0
    with django_assert_max_num_queries(20):
        warm = client.get("/api/w/here/yard").json()
    assert not any(one["is_old"] for one in warm["motors"])


def test_the_list_goes_machine_by_machine_and_is_narrowed_on_the_server(client):
    """By machine, by what needs attention, and both with words; pages are kept apart."""
    who = caller("here", "ann", "admin")
    for tag, machine in (("P-1", "Line 2"), ("P-2", "Hydrator"), ("P-3", "Line 2")):
        AddMotor(who, tag=tag, called="pump", machine=machine).run()

    def tags(**asked):
        said = client.get("/api/w/here/yard", asked).json()
        assert said["found"] == len(said["motors"])
        return [one["tag"] for one in said["motors"]]

    assert tags() == ["P-2", "IC-2", "P-1", "P-3"]
    assert tags(machine="Line 2") == ["P-1", "P-3"]
    assert tags(machine="Line 2", q="p-3") == ["P-3"]
    assert tags(machine="nowhere") == []
    every = client.get("/api/w/here/yard").json()["motors"]
    waiting = [one["tag"] for one in every if one["wants"]]
    assert waiting
    assert tags(needs="true") == waiting
    assert tags(needs="false") == tags()
