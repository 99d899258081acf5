"""Labels, the card a code opens, and readings that come in as a table."""

import csv
import io

from django.test import Client
from panel_day import Day, Tablet, panel_of

from tests_support import JOB, post

CARD = "/api/w/here/m/IC-2/card"


def rules(people, **more):
    """Set plant rules as the reviewer."""
    answer = people["reviewer"].patch("/api/w/here/rules", more, content_type="application/json")
    assert answer.status_code == 200, answer.content


def test_every_label_is_a_pdf_of_its_own_size(people):
    """Lock, leads, door and wires; an unknown label is refused."""
    for which in ("lock", "leads", "door", "wires"):
        answer = people["electrician"].get(f"{JOB}/panel/tags.pdf?which={which}")
        assert answer.status_code == 200, which
        assert answer.content.startswith(b"%PDF"), which
    assert people["electrician"].get(f"{JOB}/panel/tags.pdf?which=mug").status_code == 422


def test_ferrules_are_two_a_wire(people):
    """One line for each end of each wire that is landed; a maker's link has none."""
    text = people["electrician"].get(f"{JOB}/panel/ferrules.csv").content.decode("utf-8-sig")
    rows = list(csv.DictReader(io.StringIO(text)))
    panel = panel_of(people["electrician"])
    assert len(rows) == 2 * (len(panel["wires"]) + len(panel["line_side"]))
    assert all(row["ferrule"] for row in rows)


def test_a_code_opens_the_card_for_those_who_may(people):
    """A person of the plant sees all; a guest nothing, and with the plant's leave very little."""
    day = Day(Tablet(people["electrician"], "t1"))
    day.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
    card = people["apprentice"].get(CARD).json()
    assert card["locks"] == ["marta 14"]
    assert card["is_locked"]
    assert "230/460 V" in card["plate"]
    stranger = Client(HTTP_HOST="localhost")
    assert stranger.get(CARD).status_code == 404
    rules(people, guest_card=True)
    guest = stranger.get(CARD).json()
    assert (guest["is_guest"], guest["is_locked"]) == (True, True)
    assert guest["wired"].endswith("(3A)")
    # nothing of people, plate or record
    assert (guest["locks"], guest["plate"], guest["as_left"], guest["lines"]) == ([], "", "", [])
    assert stranger.get("/api/w/here/m/NO-9/card").status_code == 404
    assert stranger.get("/api/w/nowhere/m/IC-2/card").status_code == 404


def table(*rows):
    """Return a table of readings as text."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["reading", "id", "value", "unit"])
    writer.writerows(rows)
    return {"text": out.getvalue(), "name": "meter.csv"}


def test_readings_come_in_as_a_table(people):
    """Good lines in, bad lines named by line and field; without cleared hands none counts."""
    day = Day(Tablet(people["electrician"], "t1"))
    rows = [one["id"] for one in day.panel["rows"][:2]]
    early = post(
        day.tablet.client, f"{JOB}/panel/readings", table(("dead_reading", rows[0], "0", "ohm"))
    )
    assert early.json()["kept"] == 0
    assert "hands were not cleared" in early.json()["bad"][0]["reason"]
    day.tablet.seen = early.json()["panel"]["heads"]
    day.lock()
    told = table(
        ("dead_reading", rows[0], "0.2", "ohm"),
        ("dead_reading", "row.unknown", "0.2", "ohm"),
        ("dead_reading", rows[1], "0.2", "V"),
        ("dead_reading", rows[1], "", "ohm"),
        ("lock_on", "breaker", "1", ""),
    )
    answer = post(day.tablet.client, f"{JOB}/panel/readings", told).json()
    assert answer["kept"] == 1
    assert [(one["line"], one["field"]) for one in answer["bad"]] == [
        (3, "id"),
        (4, "unit"),
        (5, "value"),
        (6, "reading"),
    ]
    read = [one for one in answer["panel"]["entries"] if one["kind"] == "dead_reading"]
    assert read[-1]["body"]["from_file"] == "meter.csv"
    # what went out comes in: the same columns
    out = day.tablet.client.get(f"{JOB}/panel/readings.csv").content.decode("utf-8-sig")
    assert {"reading", "id", "value", "unit"} <= set(csv.DictReader(io.StringIO(out)).fieldnames)
    broken = post(day.tablet.client, f"{JOB}/panel/readings", {"text": "a,b\n1,2", "name": ""})
    assert broken.json()["bad"][0]["field"] == "reading"
