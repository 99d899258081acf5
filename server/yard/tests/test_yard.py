"""Many motors: photos, conversion, feeder, heater charts."""

import base64
import io

import pytest
from PIL import Image

from people.models import ActionLog
from plant.models import Conversion, Photo
from tests_support import JOB, caller, motor, post, put, signed_in


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


def test_one_disconnect_for_two_motors(client):
    """15 hp twice: 42 A together is 40 hp (52 A, 30 hp has 40); 42 x 1.15 = 48.3 A."""
    motor(caller("here", "ann"), "IC-3")
    path = "/api/w/here/feeder/Line%201"
    unsaid = post(client, path, {"disconnect": {}}).json()
    assert unsaid["several_refusal"]["field"] == "feeder.disconnect.reason"
    assert unsaid["refusal"] is None
    said = post(client, path, {"disconnect": {"reason": "room", "amps_a": "30"}}).json()
    steps = {step["id"]: step for step in said["several"]}
    assert steps["shared_disconnect_hp"]["value"] == "40"
    assert steps["shared_disconnect_a"]["shown"] == "48.3"
    assert steps["shared_disconnect"]["verdict"] == "fails"
    bad = post(client, path, {"disconnect": {"reason": "roof"}})
    assert bad.status_code == 422


def test_a_starter_without_a_tag_is_named_by_its_amps(client):
    """One motor of 19.3 A at 480 V: 12 A runs on it, 40 A is none of this machine's."""
    body = {
        "supply": {"text": "208Y/120"},
        "now": {"text": "480Y/277"},
        "unnamed": [
            {"label": "A", "running_a": "12"},
            {"label": "A", "running_a": "40"},
            {"label": "B"},
        ],
    }
    plan = post(client, "/api/w/here/convert/Line%201", body).json()
    assert [row["tag"] for row in plan["named"]] == ["IC-2", "", ""]
    assert "Fits none" in plan["named"][1]["text"]


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
