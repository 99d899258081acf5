"""Who decided, who measured: what a job keeps with its author."""

from tests_support import caller, post, put, signed_in


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
