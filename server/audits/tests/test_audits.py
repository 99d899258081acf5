"""A plant audited over the network: parts, stops, lost workers, changes, what if, strangers."""

import csv
import io
from datetime import timedelta

import pytest
from django.utils import timezone

from audits import doing
from audits.actions import PART
from audits.doing import do_part
from audits.models import Audit, AuditedJob, AuditedLine, AuditPart
from evencoil.base import CoreError
from evencoil.plate import SupplyInputs
from evencoil.sizing import SizeInputs
from jobs.actions import AddMotor, GiveInputs
from jobs.models import InputVersion
from people.models import Role
from plant.models import Machine, Motor
from tests_support import caller, motor, post, signed_in

PLACE = "/api/w/here/audits"
#: 15 hp at 460 V: 21 A; the next size over 175 % is 40 A, heaters at most 125 % of 19.3 A
SIZE = {
    "conductor_material": "cu",
    "protection_kind": "dual_element_fuse",
    "existing": {"device_a": "40", "trip_a": "24"},
    "fault": {"device_ka": "10", "starter_ka": "10"},
}


def sized(link, who, based_on=1, **more):
    """Enter what is installed, with some of it otherwise."""
    body = {**SIZE, "existing": {**SIZE["existing"], **more}}
    GiveInputs(who, link, "size", SizeInputs.model_validate(body), based_on).run()


def worked(n):
    """Do every part of an audit as one worker after another would; return how many jobs."""
    audit = Audit.objects.get(n=n, works__slug="here")
    jobs = 0
    while done := do_part.call(audit.pk):
        jobs += done
    return jobs


def audited(client, **what_if):
    """Begin an audit, do its parts, and return how it stands."""
    answer = post(client, PLACE, what_if)
    assert answer.status_code == 200, answer.content
    worked(answer.json()["n"])
    return client.get(f"{PLACE}/{answer.json()['n']}").json()


def lines(client, n, **asked):
    """Return the lines of an audit."""
    answer = client.get(f"{PLACE}/{n}/lines", asked)
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.fixture
def plant(here):
    """Three more motors: two alike, one whose heaters trip at 30 A."""
    links = {"IC-2": Motor.objects.get(tag="IC-2").jobs.get()}
    for tag in ("A-1", "A-2", "A-3"):
        links[tag] = motor(here, tag)
    for tag, link in links.items():
        sized(link, here, trip_a="30" if tag == "A-3" else "24")
    return links


def test_an_audit_counts_what_its_list_shows(client, plant):
    """One motor fails: matrix, machines, headline, list and table say the same number."""
    found = audited(client)
    assert (found["state"], found["done"], found["total"]) == ("done", 4, 4)
    assert found["headline"].startswith("1 of 4 motors fail")
    overload = next(one for one in found["topics"] if one["topic"] == "overload")
    assert {one["state"]: one["jobs"] for one in overload["counts"]} == {"fails": 1, "holds": 3}
    told = lines(client, found["n"], state="fails")
    assert (told["found"], told["jobs"], told["pages"]) == (1, 1, 1)
    line = told["lines"][0]
    assert (line["tag"], line["topic"], line["step"], line["was_said"]) == (
        "A-3",
        "overload",
        "size",
        None,
    )
    assert "Maximum 24.12 A" in line["said"]
    assert [(one["name"], one["fails"], one["total"]) for one in found["machines"]] == [
        ("Line 1", 1, 4)
    ]
    everything = lines(client, found["n"])
    assert everything["lines"][0]["id"] == line["id"]
    table = client.get(f"{PLACE}/{found['n']}/audit.csv").content.decode("utf-8-sig")
    rows = list(csv.DictReader(io.StringIO(table, newline="")))
    assert len(rows) == everything["found"] == AuditedLine.objects.count()
    assert rows[0]["motor"] == "A-3"
    paper = client.get(f"{PLACE}/{found['n']}/audit.pdf")
    assert paper.content.startswith(b"%PDF")


def test_unknown_facts_lead_to_the_motors_that_wait(client, plant):
    """A fact's count of motors is the number of jobs that its filter finds."""
    found = audited(client)
    fact = next(one for one in found["needs"] if one["fact"] == "installed.wire")
    assert (fact["jobs"], fact["withheld"]) == (4, 4)
    told = lines(client, found["n"], fact="installed.wire", topic="wire")
    assert told["jobs"] == 4


def test_what_was_found_is_told_apart_from_what_was_not_recorded(client, plant):
    """Both together are everything; neither hides in the other."""
    n = audited(client)["n"]
    found, missing = lines(client, n, state="found"), lines(client, n, state="not_recorded")
    assert found["found"] + missing["found"] == lines(client, n)["found"]
    assert [one["tag"] for one in found["lines"]] == ["A-3"]
    assert missing["found"] > 0


def test_every_count_opens_as_many_motors_as_it_says(client, plant, here):
    """All topics, all states: one without supply, one on a wrong one, one without nameplate."""
    GiveInputs(here, plant["A-1"], "supply", SupplyInputs(text="208Y/120"), 1).run()
    GiveInputs(here, plant["A-2"], "supply", SupplyInputs(text=""), 1).run()
    AddMotor(here, tag="E-1", called="", machine="Line 2").run()
    found = audited(client)
    asked = 0
    for topic in found["topics"]:
        for count in topic["counts"]:
            if count["state"] not in {"guess", "holds"}:
                told = lines(client, found["n"], topic=topic["topic"], state=count["state"])
                assert told["jobs"] == count["jobs"], (topic["topic"], count["state"])
                asked += 1
    assert asked > 8


def test_no_wildcard_and_no_other_audit_is_reached_by_a_filter(client, plant):
    """A filter is a name, not a pattern; nonsense finds nothing."""
    n = audited(client)["n"]
    for asked in ({"machine": "%"}, {"topic": "x", "state": "unknown"}, {"fact": "x"}):
        assert lines(client, n, **asked)["found"] == 0
    for topic in ("overload' or 1=1", "wire__regex"):
        asked = {"topic": topic, "state": "unknown"}
        assert client.get(f"{PLACE}/{n}/lines", asked).status_code == 422
    assert lines(client, n, page=99999)["page"] == 1
    assert client.get(f"{PLACE}/{n}/lines", {"page": "0"}).status_code == 422
    assert client.get(f"{PLACE}/{n}/lines", {"change": "all"}).status_code == 422


def test_what_was_mended_is_told_against_the_audit_before(client, plant, here):
    """A heater exchanged, another one broken: one line went, one came, nothing else moved."""
    first = audited(client)
    assert (first["before"], first["new"], first["gone"], first["moved"]) == (None, 0, 0, 0)
    sized(plant["A-3"], here, 2, trip_a="24")
    sized(plant["A-1"], here, 2, device_a="80")
    second = audited(client)
    assert (second["before"], second["new"], second["gone"], second["moved"]) == (1, 1, 1, 0)
    (came,) = lines(client, 2, change="new")["lines"]
    assert (came["tag"], came["topic"], came["was_said"]) == ("A-1", "device", "")
    (went,) = lines(client, 2, change="gone")["lines"]
    assert (went["tag"], went["state_said"], went["was_said"]) == (
        "A-3",
        "no longer found",
        "fails",
    )
    # what is no longer found is in no count and no table of what is
    assert lines(client, 2, state="fails")["found"] == 1
    assert "no longer" not in client.get(f"{PLACE}/2/audit.csv").content.decode()
    third = audited(client)
    assert (third["before"], third["new"], third["gone"], third["moved"]) == (2, 0, 0, 0)


def test_a_motor_that_is_new_is_no_change_of_the_plant(client, plant, here):
    """Its lines are found, and were not found before because nobody looked."""
    audited(client)
    motor(here, "B-1")
    second = audited(client)
    assert (second["total"], second["new"]) == (5, 0)


def test_what_if_changes_nothing_and_tells_what_would(client, plant, here):
    """Twice 8 kA on one motor: two lines would come; three motors have no current to double."""
    GiveInputs(
        here, plant["A-1"], "supply", SupplyInputs(text="480Y/277", fault_current_a="8000"), 1
    ).run()
    versions = InputVersion.objects.count()
    found = audited(client, fault_times="2")
    assert InputVersion.objects.count() == versions
    assert found["supposed"] == ["with 2 times the fault current"]
    told = lines(client, found["n"])["lines"]
    assert {(one["tag"], one["topic"], one["was_said"], one["state"]) for one in told} == {
        ("A-1", "fault", "", "fails")
    }
    assert found["left"] == ["Of 3 jobs the fault current is not known: nothing was multiplied."]
    # the plant as it is is not compared with what was only supposed
    assert audited(client)["before"] is None


def test_what_cannot_be_supposed_is_refused(client, plant):
    """Field, reason and no audit."""
    for body in ({"ambient_c": "200"}, {"edition": 1999}, {"fault_times": "0"}, {"more": 1}):
        assert post(client, PLACE, body).status_code == 422
    assert Audit.objects.count() == 0


def test_one_at_a_time_and_it_can_be_stopped(client, plant, monkeypatch):
    """A second one is refused; a stopped one keeps what it found, and its workers go home."""
    monkeypatch.setattr("audits.actions.PART", 1)
    n = post(client, PLACE, {}).json()["n"]
    refused = post(client, PLACE, {})
    assert (refused.status_code, refused.json()["code"]) == (409, "audit_running")
    audit = Audit.objects.get()
    assert do_part.call(audit.pk) == 1
    stopped = post(client, f"{PLACE}/{n}/stop", {}).json()
    assert (stopped["state"], stopped["done"], stopped["total"]) == ("cancelled", 1, 4)
    assert do_part.call(audit.pk) == 0
    assert post(client, f"{PLACE}/{n}/stop", {}).status_code == 409
    # a half audit is nothing to compare with
    assert audited(client)["before"] is None


def test_a_part_of_a_lost_worker_is_taken_up_and_counted_once(client, plant, monkeypatch):
    """Its worker is gone for good, or comes back late: each job is there once."""
    monkeypatch.setattr("audits.actions.PART", 2)
    n = post(client, PLACE, {}).json()["n"]
    audit = Audit.objects.get(n=n)
    lost = doing._taken(audit.pk, "a" * 32)
    assert lost is not None
    # the other part is done; the lost one belongs to its worker for some minutes
    assert worked(n) == 2
    assert client.get(f"{PLACE}/{n}").json()["state"] == "running"
    AuditPart.objects.filter(pk=lost.pk).update(
        taken_at=timezone.now() - timedelta(seconds=doing.LOST_S + 1)
    )
    assert worked(n) == 2
    assert client.get(f"{PLACE}/{n}").json()["state"] == "done"
    # the lost one comes back with its answers: nobody wants them any more
    assert doing._done(lost, "a" * 32) == 0
    assert AuditedJob.objects.count() == 4
    assert Audit.objects.get(n=n).ended_at is not None


def test_parts_are_made_of_every_motor_once(here):
    """Whatever the number of motors: the parts hold each newest job once."""
    place = Machine.objects.get(name="Line 1")
    for k in range(PART + 3):
        motor(here, f"P-{k}")
    Motor.objects.create(works=here.works, machine=place, tag="no-job")
    post(signed_in(here), PLACE, {})
    links = [pk for part in AuditPart.objects.all() for pk in part.links]
    assert len(links) == len(set(links)) == PART + 4
    assert AuditPart.objects.count() == 2


def test_a_job_that_cannot_be_read_is_told_and_ends_nothing(client, plant):
    """A broken row: that motor says so, the others are audited, and it is no motor that holds."""
    row = InputVersion.objects.filter(motor__tag="A-2", step="size").order_by("-n").first()
    InputVersion.objects.filter(pk=row.pk).update(body={"ambient_c": ["x"]})
    found = audited(client)
    assert [one["tag"] for one in found["unread"]] == ["A-2"]
    assert found["unread"][0]["reason"]
    assert sum(one["jobs"] for one in found["counts"]) == 4
    assert found["headline"].startswith("1 of 4 motors fail")


def test_a_fault_of_ours_in_one_job_is_logged_and_told(client, plant, monkeypatch, caplog):
    """An error that nobody foresaw: the audit goes on, nothing is said to hold."""
    whole = doing.audited.__globals__["audit_job"]

    def broken(inputs, *args, **more):
        if inputs.size.existing.trip_a == 30:
            raise ZeroDivisionError
        return whole(inputs, *args, **more)

    monkeypatch.setattr("audits.found.audit_job", broken)
    found = audited(client)
    assert found["unread"] == [
        {
            "tag": "A-3",
            "job": 1,
            "reason": "This job could not be calculated. Tell an administrator.",
        }
    ]
    assert "ZeroDivisionError" in caplog.text
    assert not issubclass(ZeroDivisionError, CoreError)


def test_by_panel_and_by_machine(client, plant):
    """Filters find the motors of a panel; a panel that nobody named is told as none."""
    Motor.objects.filter(tag__in=("A-1", "A-3")).update(panel="MCC-2")
    found = audited(client)
    assert [(one["name"], one["total"], one["fails"]) for one in found["panels"]] == [
        ("MCC-2", 2, 1),
        ("", 2, 0),
    ]
    told = lines(client, found["n"], panel="MCC-2")
    assert {one["tag"] for one in told["lines"]} == {"A-1", "A-3"}


def test_who_may_begin_and_who_may_look(client, plant):
    """An apprentice looks; a stranger finds nothing there."""
    found = audited(client)
    learner = signed_in(caller("here", "lea", Role.APPRENTICE))
    assert learner.get(f"{PLACE}/{found['n']}").status_code == 200
    assert post(learner, PLACE, {}).status_code == 403
    stranger = signed_in(caller("there", "eve"))
    for path in ("", "/1", "/1/lines", "/1/audit.csv", "/1/audit.pdf", "/1/progress"):
        assert stranger.get(f"{PLACE}{path}").status_code == 404
    assert post(stranger, f"{PLACE}/1/stop", {}).status_code == 404


def test_an_empty_plant_has_nothing_to_audit(here):
    """No motor is no plant without faults."""
    who = caller("there", "eve")
    answer = post(signed_in(who), "/api/w/there/audits", {})
    assert (answer.status_code, answer.json()["code"]) == (422, "no_motors")


def test_old_audits_let_go_of_their_lines(client, plant, monkeypatch):
    """The newest are kept whole; of older ones that they were made."""
    monkeypatch.setattr("audits.actions._KEPT", 2)
    for _ in range(4):
        audited(client)
    listed = client.get(PLACE).json()
    assert [(one["n"], one["is_kept"]) for one in listed] == [
        (4, True),
        (3, True),
        (2, False),
        (1, False),
    ]
    assert client.get(f"{PLACE}/1/audit.csv").status_code == 409
    assert client.get(f"{PLACE}/1").json()["headline"] == "What this audit found is no longer kept"
    assert client.get(f"{PLACE}/4").json()["headline"].startswith("1 of 4 motors fail")
    assert AuditedJob.objects.count() == 8
