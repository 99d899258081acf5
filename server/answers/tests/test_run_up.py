"""The run-up as it is answered: refused whole or whole, the timer, what is bounded."""

import pytest

GIVEN = {
    "plate": {
        "text": "75 HP, 460 V, 86 A, 1780 RPM, 60 HZ, 3 PH, CODE G, DES B, EFF 95.4, INS F, 6 LEADS"
    },
    "supply": {"text": "480Y/277", "fault_current_a": "20000"},
    "leads": {"winding": "6"},
    "load": {"kind": "fan", "inertia_lb_ft2": "71.2"},
}


def post(client, path, body):
    """Ask as a signed-in electrician."""
    return client.post(f"/api/w/here/{path}", body, content_type="application/json")


def test_a_sheet_has_curves_traces_and_marks(client):
    """Every list of a trace is as long as its times, and no longer than is sent."""
    sheet = post(client, "run-up", GIVEN).json()
    assert sheet["refusal"] is None
    assert {way["method"] for way in sheet["ways"]} >= {"full_voltage", "wye_delta"}
    assert sheet["own"] == "full_voltage"
    for way in sheet["ways"]:
        lengths = {len(values) for values in way["trace"].values()}
        assert len(lengths) == 1
        assert lengths.pop() <= 222
        assert way["trace"]["time_s"] == sorted(way["trace"]["time_s"])
    # 75 hp at 1780 rpm: 5252 hp / rpm = 221 lb ft
    assert sheet["rated_lb_ft"] == pytest.approx(221.3, abs=0.3)
    assert [one["kind"] for one in sheet["facts"] if one["id"] == "locked_rotor_a"] == ["assumed"]
    assert [one["method"] for one in sheet["others"]] == ["part_winding"]


def test_without_a_fault_current_no_sag_is_sent(client):
    """Not zero: nothing."""
    body = {**GIVEN, "supply": {"text": "480Y/277"}}
    way = post(client, "run-up", body).json()["ways"][0]
    assert way["sag_percent"] is None
    assert way["trace"]["supply_percent"] == []


def test_what_is_missing_is_told_in_place_of_the_sheet(client):
    """A job without a load: one refusal, no figures."""
    sheet = post(client, "run-up", {**GIVEN, "load": {}}).json()
    assert sheet["refusal"]["field"] == "load.kind"
    assert (sheet["ways"], sheet["facts"], sheet["faults"]) == ([], [], [])


def test_a_timer_is_told_only_where_there_is_one(client):
    """Star-delta has one, full voltage none; nine leads have no star-delta; others are 422."""
    told = post(client, "run-up/wye_delta", GIVEN).json()
    assert told["has_timer"]
    assert [one["setting_s"] / told["setting_s"] for one in told["changes"]] == [0.5, 1, 1.5, 2]
    assert not post(client, "run-up/full_voltage", GIVEN).json()["has_timer"]
    assert post(client, "run-up/rocket", GIVEN).status_code == 422
    refused = post(client, "run-up/wye_delta", {**GIVEN, "load": {}})
    assert refused.status_code == 422
    assert refused.json()["field"] == "load.kind"


def test_a_load_is_saved_and_kept_with_the_job(client):
    """A step like every other: versioned, and refused where it cannot be."""
    address = "/api/w/here/m/IC-2/j/1/load"
    body = {"based_on": 0, "body": {"kind": "fan", "torque_percent": "80"}}
    assert client.put(address, body, content_type="application/json").status_code == 200
    wrong = {"based_on": 1, "body": {"kind": "fan", "torque_percent": "-1"}}
    assert client.put(address, wrong, content_type="application/json").status_code == 422
    job = client.get("/api/w/here/m/IC-2/j/1").json()
    assert job["load"]["torque_percent"] == "80"
