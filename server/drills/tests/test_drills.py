"""Practice over the network: judged, boxed, private, set by a reviewer, refused."""

import pytest

from drills.models import DrillAnswer, DrillBox
from evencoil.practice import drill
from tests_support import caller, post, signed_in

PRACTICE = "/api/w/here/practice"


def given(one, value):
    """Return the body of an answer."""
    return {"kind": one.kind, "seed": one.seed, "setting": one.setting, "given": value}


def test_a_wrong_route_is_named_and_the_box_goes_back(client):
    """Right moves up, wrong to the first; the way to the answer comes with both."""
    one = drill("ampacity", 5, "field")
    right = post(client, f"{PRACTICE}/answers", given(one, one.right)).json()
    assert (right["is_right"], right["box"]) == (True, 1)
    assert right["is_section_right"] is None
    slip = next(slip for slip in one.slips if slip.id == "no_125")
    named = {**given(one, slip.value), "section": "430.52"}
    wrong = post(client, f"{PRACTICE}/answers", named).json()
    assert wrong["is_section_right"] is False
    assert (wrong["is_right"], wrong["box"]) == (False, 0)
    assert "430.22" in wrong["said"]
    assert any("430.250" in line for line in wrong["path"])
    cell = wrong["steps"][0]["cell"]
    assert cell["rows"][cell["hit_row"]][cell["hit_column"]] == wrong["steps"][0]["value"]
    own = client.get(PRACTICE).json()
    assert [(box["kind"], box["right"], box["wrong"]) for box in own["boxes"]] == [
        ("ampacity", 1, 1)
    ]


def test_a_question_comes_without_its_answer(client):
    """Of a kind, of what is due, ten of an exam; none tells what is right."""
    for path in ("next?kind=overload", "next", "exam?count=10"):
        answer = client.get(f"{PRACTICE}/{path}")
        assert answer.status_code == 200
        assert "right" not in answer.content.decode()
    kinds = [one["kind"] for one in client.get(f"{PRACTICE}/exam?count=10").json()]
    assert len(kinds) == 10
    assert len(set(kinds)) > 5


def test_a_whole_branch_is_judged_part_by_part(client):
    """Seven answers in one text; what is wrong is named by its part."""
    one = drill("branch", 5, "field")
    asked = client.get(f"{PRACTICE}/drill?kind=branch&seed=5&setting=field").json()
    assert [part["unit"] for part in asked["parts"]] == ["A", "A", "", "A", "A", "", "A"]
    rights = [part.right for part in one.parts]
    right = post(client, f"{PRACTICE}/answers", given(one, "; ".join(rights))).json()
    assert right["is_right"]
    slip = next(slip for slip in one.parts[1].slips if slip.id == "no_125")
    said = post(client, f"{PRACTICE}/answers", given(one, f"{rights[0]}; {slip.value}")).json()
    assert not said["is_right"]
    assert [part["is_right"] for part in said["parts"]] == [True] + [False] * 6
    assert "430.22" in said["parts"][1]["said"]
    assert (said["parts"][2]["given"], said["parts"][2]["said"]) == ("", "")


def test_a_box_moves_up_once_when_it_is_due(client):
    """Right twice on one day is one step; wrong goes back at any time."""
    for seed, box in ((5, 1), (6, 1)):
        one = drill("overload", seed, "field")
        assert post(client, f"{PRACTICE}/answers", given(one, one.right)).json()["box"] == box
    assert post(client, f"{PRACTICE}/answers", given(one, "1")).json()["box"] == 0


def test_what_a_person_practiced_is_seen_by_no_one_else_unless_shared(client, here):
    """A reviewer sees nothing of it, then what is shared, then nothing again."""
    one = drill("overload", 5, "field")
    post(client, f"{PRACTICE}/answers", given(one, "1"))
    reviewer = signed_in(caller("here", "ruth", "reviewer"))
    admin = signed_in(caller("here", "abel", "admin"))
    for other in (reviewer, admin):
        assert other.get(PRACTICE).json()["past"] == []
    post(client, f"{PRACTICE}/share", {"is_shared": True})
    assert [row["person"] for row in reviewer.get(PRACTICE).json()["past"]] == [str(here.user)]
    electrician = signed_in(caller("here", "marta"))
    assert electrician.get(PRACTICE).json()["past"] == []
    post(client, f"{PRACTICE}/share", {"is_shared": False})
    assert reviewer.get(PRACTICE).json()["past"] == []


def test_a_reviewer_sets_a_drill_and_an_electrician_does_not(client):
    """It is one question for everyone."""
    body = {"kind": "protection", "setting": "exam", "note": "before the test"}
    assert post(client, f"{PRACTICE}/set", body).status_code == 403
    reviewer = signed_in(caller("here", "ruth", "reviewer"))
    made = post(reviewer, f"{PRACTICE}/set", body).json()
    [seen] = client.get(PRACTICE).json()["set"]
    assert seen["seed"] == made["seed"]
    path = f"drill?kind=protection&seed={made['seed']}&setting=exam"
    assert client.get(f"{PRACTICE}/{path}").json()["seed"] == made["seed"]


@pytest.mark.parametrize(
    "body",
    [
        {"kind": "dance", "seed": 1, "given": "1"},
        {"kind": "overload", "seed": -1, "given": "1"},
        {"kind": "overload", "seed": 1, "setting": "home", "given": "1"},
    ],
)
def test_what_is_no_drill_is_refused(client, body):
    """422, and nothing is kept."""
    assert post(client, f"{PRACTICE}/answers", body).status_code == 422
    assert not DrillAnswer.objects.exists()
    assert not DrillBox.objects.exists()


def test_a_hidden_fault_is_told_only_when_someone_is_accused(client):
    """Readings answer, minutes count, the truth comes last; a reading that is none is refused."""
    first = post(client, f"{PRACTICE}/hidden", {"seed": 4}).json()
    assert (first["truth"], first["is_found"], first["minutes"]) == ("", None, 0)
    reading = first["readings"][0]["id"]
    after = post(client, f"{PRACTICE}/hidden", {"seed": 4, "taken": [reading]}).json()
    assert after["taken"][0][0] == reading
    assert after["minutes"] > 0
    accused = after["suspects"][0][0]
    end = post(client, f"{PRACTICE}/hidden", {"seed": 4, "accused": accused}).json()
    assert end["truth"]
    assert end["is_found"] is not None
    refused = post(client, f"{PRACTICE}/hidden", {"seed": 4, "taken": ["ohm||a~b"]})
    assert (refused.status_code, refused.json()["field"]) == (422, "reading")
