"""Side rooms of the terminal box, photos, conversions and works' rules over HTTP."""

import base64
import io

import pytest
from PIL import Image

from people.models import ActionLog
from plant.models import Conversion, Photo
from tests_support import caller, motor, signed_in

JOB = "/api/w/here/m/IC-2/j/1"
BENCH = "/api/w/here/bench"


@pytest.fixture
def client(db):
    """Ann, an electrician, with the motor IC-2."""
    who = caller("here", "ann")
    motor(who)
    return signed_in(who)


def post(client, path, body):
    """Post JSON and return the answer."""
    return client.post(path, body, content_type="application/json")


def put(client, path, body, based_on=0):
    """Keep a part."""
    return client.put(
        f"{JOB}/{path}", {"based_on": based_on, "body": body}, content_type="application/json"
    )


def test_the_practice_motor_is_numbered_through_the_server_alone(client):
    """Ask, let the motor answer, ask again: nine numbers at the end, tags and joints by lead letter."""
    body = {"leads": 9, "mystery": 7, "mystery_kind": "9-delta", "readings": []}
    for _ in range(40):
        told = post(client, BENCH, body).json()
        ask = told["ask"]
        if ask is None:
            break
        shown = post(client, f"{BENCH}/read", {"bench": body, **ask}).json()
        if ask["what"] == "touch":
            reading = {
                "what": "touch",
                "pair": ask["pair"],
                "rings": shown["rings"],
                "ohms": shown["ohms"] or None,
            }
        else:
            reading = {
                "what": "volts",
                "feed": ask["feed"],
                "feed_v": "10",
                "joined": ask["joined"],
                "read": ask["pair"],
                "volts": shown["volts"],
            }
        body["readings"] = [*body["readings"], reading]

    assert told["stage"] == "done"
    assert sorted(told["numbers"].values()) == sorted(f"T{n}" for n in range(1, 10))
    assert {len(joint["leads"]) for joint in told["joinings"][0]["joints"]} == {1, 2}
    assert put(client, "bench", body).status_code == 200


def test_a_reading_that_cannot_be_is_refused_and_nothing_is_lost(client):
    """A lead letter that is not there: named by its number, the other readings stay."""
    said = post(
        client,
        BENCH,
        {"leads": 6, "readings": [{"what": "touch", "pair": ["a", "z"], "rings": True}]},
    ).json()
    assert said["refusal"]["field"] == "bench.readings.0"
    assert "there is no lead z" in said["refusal"]["detail"]
    assert post(client, BENCH, {"leads": 0}).status_code == 422


def test_who_decides_between_maker_and_derivation_is_stamped(client):
    """A differing diagram holds the step; following it carries who, whatever the request claims."""
    low = [
        {"id": "1", "line": "L1", "leads": ["T1", "T7"]},
        {"id": "2", "line": "L2", "leads": ["T2", "T8"]},
        {"id": "3", "line": "L3", "leads": ["T3", "T9"]},
        {"id": "4", "leads": ["T4", "T5", "T6"]},
    ]
    leads = {"winding": "9-wye", "maker": [{"id": "m", "source": "cover", "joints": low}]}
    given = {
        "plate": {"text": "15 HP 230/460 V 3 PH 9 LEADS"},
        "supply": {"text": "480Y/277"},
        "leads": leads,
    }
    box = post(client, "/api/w/here/work-out", given).json()["box"]
    assert box["is_disputed"]
    assert len(box["diagrams"][0]["differences"]) == 10

    chosen = {"side": "maker", "reason": "rewound for 480", "by": "Nobody", "at": "1999"}
    kept = put(client, "leads", {**leads, "followed": chosen}).json()["body"]["followed"]
    assert kept["by"] == "ann"
    assert kept["at"] != "1999"
    followed = {**leads, "followed": kept}
    box = post(client, "/api/w/here/work-out", {**given, "leads": followed}).json()["box"]
    assert not box["is_disputed"]
    assert {joint["line"] for joint in box["derived"]} == {"L1", "L2", "L3", None}
    ben = signed_in(caller("here", "ben"))
    again = put(ben, "leads", {**followed, "direction": "reverse"}, 1).json()["body"]["followed"]
    assert again["by"] == "ann"


def test_torque_is_recorded_with_who_and_when(client):
    """A new torque gets the caller's name; the same torque keeps its first one."""
    work = [{"joint": "joint.line_1", "torque_in_lb": "20", "by": "Nobody"}]
    first = put(client, "joints", {"work": work}).json()["body"]["work"][0]
    assert first["by"] == "ann"
    ben = signed_in(caller("here", "ben"))
    more = [first, {"joint": "joint.line_2", "tug_held": True}]
    kept = put(ben, "joints", {"work": more}, 1).json()["body"]["work"]
    assert [item["by"] for item in kept] == ["ann", "ben"]


def picture(**how):
    """Return a JPEG with a location in it, base64."""
    exif = Image.Exif()
    exif.get_ifd(0x8825)[1] = "N"
    exif[0x010F] = "maker of the camera"
    out = io.BytesIO()
    Image.new("RGB", how.get("size", (2400, 900)), "grey").save(out, "JPEG", exif=exif)
    return base64.b64encode(out.getvalue()).decode()


def test_a_photo_is_shrunk_and_loses_its_location(client):
    """1600 pixels at most, no metadata, served to the plant and to no one else."""
    said = post(client, f"{JOB}/photos", {"subject": "plate", "data": picture()}).json()
    assert (said["width"], said["height"]) == (1600, 600)
    answer = client.get(f"{JOB}/photos/{said['sha256']}")
    assert answer["Content-Type"] == "image/jpeg"
    with Image.open(io.BytesIO(answer.content)) as kept:
        assert not kept.getexif()
    assert Photo.objects.count() == 1
    stranger = signed_in(caller("there", "eve"))
    assert stranger.get(f"{JOB}/photos/{said['sha256']}").status_code == 404


@pytest.mark.parametrize("data", ["", "no base64!", base64.b64encode(b"GIF89a nonsense").decode()])
def test_what_is_no_picture_is_refused_and_nothing_is_kept(client, data):
    """One problem shape, no row, no log line."""
    before = ActionLog.objects.count()
    answer = post(client, f"{JOB}/photos", {"subject": "plate", "data": data})
    assert answer.status_code == 422
    assert answer.json()["code"] == "file_format"
    assert Photo.objects.count() == 0
    assert ActionLog.objects.count() == before


def test_a_machine_goes_to_another_voltage(client):
    """IC-2 needs wye or delta said first; then it can, with its moves and its amps."""
    path = "/api/w/here/convert/Line%201"
    body = {
        "supply": {"text": "480Y/277"},
        "now": {"text": "240 delta"},
        "transformers": [
            {
                "tag": "T1",
                "secondary_v": "120",
                "taps": [
                    {"volts_v": "240", "links": "H1-H3"},
                    {"volts_v": "480", "links": "H2-H3"},
                ],
            },
        ],
    }
    assert post(client, path, body).json()["motors"][0]["answer"] == "open"
    put(client, "leads", {"winding": "9-wye"})
    plan = post(client, path, body).json()
    row = plan["motors"][0]
    assert (row["answer"], row["amps_before"], row["amps_after"]) == ("can", "38.6", "19.3")
    assert "Make T4-T7" in row["moves"]
    assert plan["transformers"][0]["action"] == "retap"
    assert "secondary 120 V" in plan["transformers"][0]["text"]

    kept = client.put(path, {"based_on": 0, "body": body}, content_type="application/json")
    assert kept.json()["version"]["n"] == 1
    ben = signed_in(caller("here", "ben"))
    other = {"based_on": 0, "body": {**body, "supply": {"text": "600Y/347"}}}
    clash = ben.put(path, other, content_type="application/json")
    assert clash.status_code == 409
    assert clash.json()["theirs"]["by"] == "ann"
    assert Conversion.objects.count() == 1
    assert client.get("/api/w/here/convert/Nowhere").status_code == 404


def test_rules_are_set_by_a_reviewer_and_hold_for_every_job(client):
    """An electrician may not; a reviewer may; the other direction then swaps the plant's pair."""
    rules = {
        "edition": 2020,
        "rating_rule": "main_rule",
        "swap_lines": "L1-L2",
        "twist_on": "never",
        "twist_on_largest": "12",
    }
    path = "/api/w/here/rules"
    assert client.put(path, rules, content_type="application/json").status_code == 403
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    assert ruth.put(path, rules, content_type="application/json").json()["edition"] == 2020
    bad = {**rules, "twist_on_largest": "99"}
    assert ruth.put(path, bad, content_type="application/json").status_code == 422
    given = {
        "plate": {"text": "15 HP 460 V 3 PH 3 LEADS"},
        "supply": {"text": "480Y/277"},
        "leads": {"direction": "reverse"},
    }
    box = post(client, "/api/w/here/work-out", given).json()["box"]
    assert [(joint["line"], joint["leads"]) for joint in box["derived"]] == [
        ("L2", ["T1"]),
        ("L1", ["T2"]),
        ("L3", ["T3"]),
    ]


def test_a_replacement_is_compared_line_by_line(client):
    """Twenty for fifteen horsepower: sizes and starter go down; rotation is not proven yet."""
    body = {
        "replace": {
            "old_plate": "15 HP 460 V 3 PH 9 LEADS",
            "rotation": "clockwise",
            "seen_from": "shaft",
            "conductors": [{"conductor": "L1", "terminal": "T1"}],
        },
        "plate": {"text": "20 HP 460 V 3 PH 9 LEADS"},
    }
    said = post(client, "/api/w/here/replaced", body).json()
    assert said["takes_down"] == ["size", "starter"]
    assert said["rotation"] == "unproven"
    body["replace"] |= {"rotation_after": "counter-clockwise", "seen_from_after": "fan"}
    assert post(client, "/api/w/here/replaced", body).json()["rotation"] == "equal"


def test_other_joinings_tell_what_suits(client):
    """A nine-lead wye on 240 V: parallel wye at the box, delta only with the casing open."""
    given = {
        "plate": {"text": "15 HP 230/460 V 3 PH 60 HZ 1765 RPM 38.6/19.3 A 9 LEADS"},
        "supply": {"text": "240 delta"},
        "leads": {"winding": "9-wye"},
    }
    rows = post(client, "/api/w/here/inside", given).json()["rows"]
    assert [row["line_volts_v"] for row in rows] == [133, 230, 266, 460]
    assert [row["suits"] for row in rows] == [False, True, True, False]
    assert rows[0]["needs_polarity"]
    assert rows[0]["poles"] == 4


def test_a_feeder_of_one_motor_and_then_of_two(client):
    """15 hp alone: 26.25 A; with a second one: 21 × 1.25 + 21; the largest is marked once."""
    path = "/api/w/here/feeder/Line%201"
    alone = post(client, path, {"termination_c": 75}).json()
    assert alone["headline"] == "FEEDER 10 AWG · 40 A"
    motor(caller("here", "ann"), "IC-3")
    both = post(client, path, {"termination_c": 75, "continuous_a": "10"}).json()
    steps = {step["id"]: step for step in both["steps"]}
    assert steps["feeder_ampacity_a"]["value"] == "59.75"  # 26.25 + 21 + 12.5
    assert [row["is_largest"] for row in both["motors"]] == [True, False]
    assert steps["feeder_device_a"]["marks"]
    bad = post(client, path, {"continuous_a": "-3"}).json()
    assert bad["refusal"]["field"] == "feeder.continuous_a"
    other = post(client, path, {"supply": "240 delta"}).json()
    assert other["motors"] == []
    assert other["refusal"]["code"] == "missing"
    assert post(client, "/api/w/here/feeder/Nowhere", {}).status_code == 404


CHART = "Relay,Size,Elements,Air,Heater,From,To\nLK-2,1,3,same,H21,17,18.4\nLK-2,1,3,same,H22,18.5,20.1\nLK-2,1,4,same,H23,1,2\n"


def test_a_heater_chart_is_looked_at_imported_replaced_and_dropped(client):
    """Headings are guessed, good rows kept, bad lines told; another works sees nothing."""
    seen = client.post(
        "/api/w/here/heaters/look", {"text": CHART}, content_type="application/json"
    ).json()
    columns = {field["field"]: field["guess"] for field in seen["fields"]}
    assert columns == {
        "relay_type": "Relay",
        "starter_size": "Size",
        "elements": "Elements",
        "basis": "Air",
        "code": "Heater",
        "low_a": "From",
        "high_a": "To",
    }
    body = {"text": CHART, "columns": columns, "name": "Door 4", "factor": "0.9"}
    made = client.post("/api/w/here/heaters", body, content_type="application/json").json()
    assert [row["code"] for row in made["chart"]["rows"]] == ["H21", "H22"]
    assert [(line["line"], "2 or 3" in line["reason"]) for line in made["bad"]] == [(4, True)]
    body["source"] = "door of MCC 2"
    client.post("/api/w/here/heaters", body, content_type="application/json")
    kept = client.get("/api/w/here/heaters").json()
    assert [(chart["name"], chart["source"]) for chart in kept] == [("Door 4", "door of MCC 2")]
    wrong = client.post(
        "/api/w/here/heaters", {**body, "columns": {}}, content_type="application/json"
    )
    assert wrong.status_code == 422
    assert wrong.json()["field"] == "heaters.columns.relay_type"
    assert client.delete("/api/w/here/heaters/Door 4").status_code == 204
    assert client.delete("/api/w/here/heaters/Door 4").status_code == 404


def test_the_time_current_sheet_of_what_is_given(client):
    """Six lines and what can be read off; without a nameplate it says what it waits for."""
    given = {
        "plate": {"text": "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G DES B"},
        "supply": {"text": "480Y/277"},
        "size": {"run_length_ft": "200"},
    }
    made = client.post("/api/w/here/curves", given, content_type="application/json").json()
    assert len(made["curves"]) == 6
    assert made["rides_through"] is True
    assert made["run"][0]["running_v"] == "480"
    empty = client.post("/api/w/here/curves", {}, content_type="application/json").json()
    assert empty["refusal"]["field"] == "plate_amps_a"


def test_local_amendments_hold_for_every_job_and_looser_ones_are_refused(here):
    """A reviewer sets 10 AWG as the smallest; 16 AWG is refused and changes nothing."""
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    rules = {
        "edition": 2023,
        "rating_rule": "next_size_up",
        "swap_lines": "L1-L3",
        "twist_on": "building",
        "twist_on_largest": "10",
        "rating_rule_reason": "fewer cold trips",
        "amendments": [
            {
                "subject": "smallest_conductor",
                "value": "10",
                "author": "town",
                "reason": "ordinance",
            }
        ],
    }
    said = ruth.put("/api/w/here/rules", rules, content_type="application/json").json()
    assert said["amendments"][0]["label"] == "Smallest conductor"
    given = {"plate": {"text": "5 HP 460 V 6.8 A 3 PH SF 1.15"}, "supply": {"text": "480Y/277"}}
    worked = ruth.post("/api/w/here/work-out", given, content_type="application/json").json()
    wire = next(step for step in worked["steps"] if step["id"] == "conductor_size")
    assert wire["value"] == "10"
    assert "fewer cold trips" in next(
        row["reason"] for row in worked["rating_rules"] if row["is_chosen"]
    )
    rules["amendments"][0]["value"] = "16"
    refused = ruth.put("/api/w/here/rules", rules, content_type="application/json")
    assert refused.json()["field"] == "amendments.value"
    again = ruth.get("/api/session").json()["works"][0]
    assert again["amendments"][0]["value"] == "10"


def test_taps_and_a_group_behind_one_device(client):
    """A 20 ft guarded tap has a third of the feeder; a 90 A device is too large for a group of one."""
    body = {
        "taps": [{"tag": "IC-2", "length_ft": "20"}],
        "is_group": True,
        "group_device_a": "90",
        "termination_c": 75,
    }
    made = client.post("/api/w/here/feeder/Line 1", body, content_type="application/json").json()
    tap = made["taps"][0]
    assert [step["id"] for step in tap["steps"]] == [
        "tap_length_ft",
        "tap_least_a",
        "tap_conductor_size",
    ]
    verdict = next(step for step in made["steps"] if step["id"] == "group_device")
    assert verdict["verdict"] == "fails"
