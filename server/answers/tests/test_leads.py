"""The bench, inside changes and time-current sheets: answered, never kept."""

from tests_support import post, put

BENCH = "/api/w/here/bench"


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
