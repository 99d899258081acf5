"""Plant rules: who may set them, and what they change in every job."""

from tests_support import caller, post, signed_in


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
    assert client.patch(path, rules, content_type="application/json").status_code == 403
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    assert ruth.patch(path, rules, content_type="application/json").json()["edition"] == 2020
    bad = {**rules, "twist_on_largest": "99"}
    assert ruth.patch(path, bad, content_type="application/json").status_code == 422
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
    said = ruth.patch("/api/w/here/rules", rules, content_type="application/json").json()
    assert said["amendments"][0]["label"] == "Smallest conductor"
    given = {"plate": {"text": "5 HP 460 V 6.8 A 3 PH SF 1.15"}, "supply": {"text": "480Y/277"}}
    worked = ruth.post("/api/w/here/work-out", given, content_type="application/json").json()
    wire = next(step for step in worked["steps"] if step["id"] == "conductor_size")
    assert wire["value"] == "10"
    assert "fewer cold trips" in next(
        row["reason"] for row in worked["rating_rules"] if row["is_chosen"]
    )
    rules["amendments"][0]["value"] = "16"
    refused = ruth.patch("/api/w/here/rules", rules, content_type="application/json")
    assert refused.json()["field"] == "amendments.value"
    again = ruth.get("/api/session").json()["works"][0]
    assert again["amendments"][0]["value"] == "10"


def test_two_people_who_change_different_rules_lose_nothing(here):
    """Each sends what it changed only: the other's change stays."""
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    abel = signed_in(caller("here", "abel", "admin"))
    ruth.patch("/api/w/here/rules", {"line_names": "R-Y-B"}, content_type="application/json")
    said = abel.patch(
        "/api/w/here/rules", {"device_names": "iec_k"}, content_type="application/json"
    ).json()
    assert (said["line_names"], said["device_names"]) == ("R-Y-B", "iec_k")


def test_answers_are_said_in_the_plants_own_names(here):
    """One plant says star and R; another, asked right after, says wye and L1."""
    given = {
        "plate": {"text": "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 3 LEADS"},
        "supply": {"text": "480Y/277"},
        "starter": {"standard_circuit": "3A"},
    }
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    there = signed_in(caller("there", "olga", "reviewer"))
    ruth.patch(
        "/api/w/here/rules",
        {"line_names": "R-Y-B", "device_names": "iec_k", "trade_terms": "iec"},
        content_type="application/json",
    )

    def ends(client, works):
        answer = client.post(
            f"/api/w/{works}/circuit", given, content_type="application/json"
        ).json()
        return {wire["start"] for wire in answer["wires"]} | {
            wire["end"] for wire in answer["wires"]
        }

    assert {"SUP.R", "K1.1L1"} <= ends(ruth, "here")
    assert {"SUP.L1", "KM1.1L1"} <= ends(there, "there")
    assert {"SUP.R", "K1.1L1"} <= ends(ruth, "here")


def test_an_amendment_says_who_entered_it_whatever_the_request_says(here):
    """A forged name and time are dropped; another reviewer's later entry leaves the first alone."""
    path = "/api/w/here/rules"
    town = {"subject": "smallest_conductor", "value": "10", "author": "town", "reason": "ordinance"}
    forged = {**town, "by": "somebody else", "at": "1999-01-01T00:00:00Z"}
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    (said,) = ruth.patch(path, {"amendments": [forged]}, content_type="application/json").json()[
        "amendments"
    ]
    assert said["by"] == "ruth"
    assert said["at"] > "2026"
    insurer = {
        "subject": "conductor_percent",
        "value": "150",
        "author": "insurer",
        "reason": "heat in the trays",
    }
    abel = signed_in(caller("here", "abel", "admin"))
    first, second = abel.patch(
        path, {"amendments": [town, insurer]}, content_type="application/json"
    ).json()["amendments"]
    assert first == said
    assert second["by"] == "abel"
    # a changed one is entered anew
    (changed,) = abel.patch(
        path, {"amendments": [{**town, "value": "8"}]}, content_type="application/json"
    ).json()["amendments"]
    assert changed["by"] == "abel"
