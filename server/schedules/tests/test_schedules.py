"""A table over the network: read, mapped, taken once, stopped, repaired; strangers and nonsense."""

import base64
import gzip
import io

import openpyxl
import pytest

from jobs.models import InputVersion
from people.models import ActionLog
from plant.models import Motor, PlateRevision
from schedules.models import ScheduleRun
from schedules.taking import take_lines
from tests_support import caller, motor, post, signed_in

PLACE = "/api/w/here/schedules"
HEAD = "Tag,Description,HP,Volts,FLA,RPM,Phase,System voltage,Starter"
LINES = (
    "A-1,pump,15,460,19,1765,3,480Y/277,3A",
    "A-2,fan,7 1/2,460,10.5,1750,3,480Y/277,",
    "A-3,crusher,forty,460,49,1770,3,480Y/277,",
)


def packed(text):
    """Return a table as the browser sends it."""
    return base64.b64encode(gzip.compress(text.encode(), mtime=0)).decode()


def table(*lines):
    """Return a table with its head."""
    return "\n".join((HEAD, *lines)) + "\n"


def sent(client, text, name="motors.csv"):
    """Read a table and return what is told of it."""
    answer = post(client, PLACE, {"name": name, "data": packed(text)})
    assert answer.status_code == 200, answer.content
    return answer.json()


def taken(client, n):
    """Take a table, do the worker's work, and return how it stands."""
    assert post(client, f"{PLACE}/{n}/take", {}).status_code == 200
    take_lines.call(ScheduleRun.objects.get(n=n).pk)
    return client.get(f"{PLACE}/{n}").json()


def test_a_table_is_read_taken_and_read_again_without_doubling(client, here):
    """Two motors of three lines; again the same; mended the third; nothing twice."""
    told = sent(client, table(*LINES))
    assert (told["state"], told["good"], told["bad_lines"]) == ("read", 2, 1)
    assert [(one["line"], one["field"]) for one in told["bad"]] == [(4, "power_hp")]
    assert Motor.objects.filter(tag__startswith="A-").count() == 0
    done = taken(client, told["n"])
    assert (done["state"], done["added"], done["done"], done["total"]) == ("done", 2, 2, 2)
    line = client.get("/api/w/here/m/A-1/j/1").json()
    assert line["plate"]["text"] == "15 HP, 460 V, 19 A, 1765 RPM, 3 PH"
    assert line["starter"]["standard_circuit"] == "3A"
    versions = InputVersion.objects.count(), PlateRevision.objects.count()
    again = taken(client, sent(client, table(*LINES))["n"])
    assert (again["added"], again["changed"], again["same"]) == (0, 0, 2)
    assert (InputVersion.objects.count(), PlateRevision.objects.count()) == versions
    repair = client.get(f"{PLACE}/{again['n']}/repair.csv").content.decode("utf-8-sig")
    assert "forty is no figure" in repair
    mended = sent(client, repair.replace("forty", "40"), "repaired.csv")
    assert taken(client, mended["n"])["added"] == 1
    assert Motor.objects.filter(tag="A-3").count() == 1


def test_a_schedule_changes_what_a_schedule_said_and_nothing_of_a_person(client):
    """New amps from the table are a new version; a nameplate that was read by hand stays."""
    taken(client, sent(client, table(*LINES[:2]))["n"])
    other = table(LINES[0].replace(",19,", ",18.5,"), LINES[1].replace(",10.5,", ",10,"))
    put_plate = {"based_on": 1, "body": {"text": "7.5 HP, 460 V, 9.9 A, 1750 RPM, 3 PH"}}
    answer = client.put("/api/w/here/m/A-2/j/1/plate", put_plate, content_type="application/json")
    assert answer.status_code == 200, answer.content
    done = taken(client, sent(client, other)["n"])
    assert (done["changed"], done["same"]) == (1, 0)
    assert done["kept"] == [{"line": 3, "tag": "A-2"}]
    plate = client.get("/api/w/here/m/A-2/j/1").json()["plate"]["text"]
    assert "9.9 A" in plate
    assert "18.5 A" in client.get("/api/w/here/m/A-1/j/1").json()["plate"]["text"]


def test_columns_that_a_person_maps_are_remembered_for_their_source(client):
    """A head nobody knows is mapped; the next table with the same heads needs no word."""
    text = "Nr,Leistung,Spannung\nB-1,15,460\n"
    told = sent(client, text)
    assert told["good"] == 0
    maps = {"tag": "Nr", "power_hp": "Leistung", "volts": "Spannung"}
    mapped = post(client, f"{PLACE}/{told['n']}/map", {"told": maps}).json()
    assert mapped["good"] == 1
    assert sent(client, text)["good"] == 1
    wrong = post(client, f"{PLACE}/{told['n']}/map", {"told": {"tag": "Nobody"}})
    assert (wrong.status_code, wrong.json()["field"]) == (422, "map")


def test_taking_is_stopped_and_what_was_taken_stays(client):
    """Stopped before the worker came: nothing; a table that is done is not stopped or mapped."""
    told = sent(client, table(*LINES))
    post(client, f"{PLACE}/{told['n']}/take", {})
    stopped = post(client, f"{PLACE}/{told['n']}/stop", {}).json()
    assert stopped["state"] == "cancelled"
    assert take_lines.call(ScheduleRun.objects.get(n=told["n"]).pk) == 0
    assert not Motor.objects.filter(tag="A-1").exists()
    for path in ("stop", "take"):
        assert post(client, f"{PLACE}/{told['n']}/{path}", {}).status_code == 409


def test_a_worker_that_comes_back_goes_on_where_it_stood(client):
    """One of two is told as done: the other one is taken, and none twice."""
    told = sent(client, table(*LINES[:2]))
    post(client, f"{PLACE}/{told['n']}/take", {})
    run = ScheduleRun.objects.get(n=told["n"])
    ScheduleRun.objects.filter(pk=run.pk).update(done=1, added=1)
    assert take_lines.call(run.pk) == 1
    end = client.get(f"{PLACE}/{told['n']}").json()
    assert (end["state"], end["added"], end["done"]) == ("done", 2, 2)
    assert not Motor.objects.filter(tag="A-1").exists()
    assert Motor.objects.filter(tag="A-2").exists()


@pytest.mark.parametrize(
    ("data", "field"),
    [
        ("no base64!", "data"),
        (base64.b64encode(b"no gzip").decode(), "data"),
        (packed("a,b\n"), "file"),
    ],
    ids=["letters", "packing", "table"],
)
def test_what_is_no_table_is_refused(client, data, field):
    """422 by the field, and nothing is kept."""
    answer = post(client, PLACE, {"name": "x.csv", "data": data})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert not ScheduleRun.objects.exists()


def test_a_bomb_is_read_no_further_than_a_table_may_be_long(client):
    """A hundred megabytes of nothing in a hundred kilobytes."""
    bomb = base64.b64encode(gzip.compress(b"0" * 100_000_000)).decode()
    answer = post(client, PLACE, {"name": "x.csv", "data": bomb})
    assert (answer.status_code, answer.json()["field"]) == (422, "file")


def test_an_apprentice_reads_no_schedule_in_and_another_works_sees_none(client):
    """403, and 404."""
    told = sent(client, table(*LINES))
    pim = signed_in(caller("here", "pim", "apprentice"))
    assert post(pim, PLACE, {"name": "x.csv", "data": packed(table(*LINES))}).status_code == 403
    assert post(pim, f"{PLACE}/{told['n']}/take", {}).status_code == 403
    stranger = signed_in(caller("there", "sam"))
    assert stranger.get(f"{PLACE}/{told['n']}").status_code == 404
    own = stranger.get(f"{PLACE.replace('here', 'there')}/{told['n']}")
    assert own.status_code == 404


def test_a_member_who_left_takes_nothing_more(client, here):
    """The worker finds no role: it failed, and no motor was touched."""
    told = sent(client, table(*LINES))
    post(client, f"{PLACE}/{told['n']}/take", {})
    here.works.memberships.filter(user=here.user).delete()
    take_lines.call(ScheduleRun.objects.get(n=told["n"]).pk)
    assert ScheduleRun.objects.get(n=told["n"]).state == "failed"
    assert not Motor.objects.filter(tag="A-1").exists()


def test_panel_and_fault_current_of_a_table_are_kept(client, here):
    """Both columns were mapped, so both are taken; a person's own figure stays."""
    head = "Tag,MCC,HP,Volts,FLA,RPM,Phase,System voltage,Fault current (kA)"
    told = sent(client, f"{head}\nA-1,MCC-4,15,460,19,1765,3,480Y/277,18\n")
    assert taken(client, told["n"])["added"] == 1
    motor = Motor.objects.get(tag="A-1")
    assert motor.panel == "MCC-4"
    line = client.get("/api/w/here/m/A-1/j/1").json()
    assert line["supply"]["fault_current_a"] == "18000"
    again = sent(client, f"{head}\nA-1,MCC-4,15,460,19,1765,3,480Y/277,18\n")
    assert taken(client, again["n"])["same"] == 1
    more = sent(client, f"{head}\nA-1,MCC-4,15,460,19,1765,3,480Y/277,22\n")
    assert taken(client, more["n"])["changed"] == 1
    job = "/api/w/here/m/A-1/j/1"
    own = {"text": "480Y/277", "fault_current_a": "9000"}
    n = client.get(job).json()["versions"]["supply"]["n"]
    client.put(f"{job}/supply", {"based_on": n, "body": own}, content_type="application/json")
    kept = taken(client, sent(client, f"{head}\nA-1,MCC-4,15,460,19,1765,3,480Y/277,30\n")["n"])
    assert [one["tag"] for one in kept["kept"]] == ["A-1"]
    assert client.get(job).json()["supply"]["fault_current_a"] == "9000"


def test_a_workbook_is_taken_like_a_table(client, here):
    """The sheet is named; its motors are taken; a bomb is refused with what to do."""
    book = openpyxl.Workbook()
    book.active.title = "Motors 2026"
    book.active.append(HEAD.split(","))
    book.active.append(["W-1", "pump", 15, 460, 19, 1765, 3, "480Y/277", "3A"])
    out = io.BytesIO()
    book.save(out)
    data = base64.b64encode(gzip.compress(out.getvalue(), mtime=0)).decode()
    told = post(client, PLACE, {"name": "motors.xlsx", "data": data}).json()
    assert (told["sheet"], told["encoding"], told["good"]) == ("Motors 2026", "", 1)
    assert taken(client, told["n"])["added"] == 1
    broken = base64.b64encode(gzip.compress(b"PK\x03\x04 no", mtime=0)).decode()
    answer = post(client, PLACE, {"name": "x.xlsx", "data": broken})
    assert answer.status_code == 422
    assert "XLSX" in answer.json()["hint"]


def test_many_new_ones_are_taken_at_once_each_with_its_log_line(client, here):
    """230 lines: one is there in other letters, one has a tag beyond ASCII, the rest are new."""
    text = table(
        *(f"N-{k},pump,15,460,19,1765,3,480Y/277,3A" for k in range(228)),
        "ic-2,pump,15,460,19,1765,3,480Y/277,3A",
        "\u00c4-1,pump,15,460,19,1765,3,480Y/277,",
    )
    before = ActionLog.objects.count()
    done = taken(client, sent(client, text)["n"])
    assert (done["added"], done["done"], len(done["kept"])) == (229, 230, 1)
    assert Motor.objects.filter(works=here.works).count() == 230
    assert ActionLog.objects.filter(action="take motor of schedule").count() == 230
    assert ActionLog.objects.count() > before + 230
    line = client.get("/api/w/here/m/N-227/j/1").json()
    assert line["starter"]["standard_circuit"] == "3A"
    assert line["versions"]["plate"]["source"].startswith("schedule ")
    # one by one and at once tell the same of the same line
    alone = client.get("/api/w/here/m/%C3%84-1/j/1").json()
    assert alone["plate"] == line["plate"]
    assert alone["supply"] == line["supply"]
    again = taken(client, sent(client, text)["n"])
    assert (again["added"], again["changed"], again["same"]) == (0, 0, 229)


def test_a_motor_that_somebody_adds_at_the_same_moment_is_not_doubled(client, here, monkeypatch):
    """The look says it is new, and it is not: the part is taken one by one."""
    motor(here, "N-1")
    monkeypatch.setattr("schedules.taking.new_among", lambda caller, part: list(part))
    text = table(*(f"N-{k},pump,15,460,19,1765,3,480Y/277,3A" for k in range(3)))
    done = taken(client, sent(client, text)["n"])
    assert (done["state"], done["added"], len(done["kept"])) == ("done", 2, 1)
    assert Motor.objects.filter(tag="N-1").count() == 1
