"""Bad entries, each with its answer; and what a closing may do that an opening may not."""

from dataclasses import replace

import pytest
from acts_play import Play, cases

from evencoil.acts import Entry, receive, state_of, tells


def play(start="proven"):
    """Return a job with a history played."""
    told = cases()
    found = Play(told["setups"]["ic2"])
    for event in told["histories"].get(start, ()):
        found.event(event)
    return found


def entry(kind, about=None, body=None, **more):
    """Return an electrician's entry that has seen the proof."""
    told = {
        "id": "x",
        "kind": kind,
        "by": "mq",
        "role": "electrician",
        "device": "t1",
        "rev": 1,
        "about": about or {},
        "body": body or {},
        "based_on": ("A.after",),
        **more,
    }
    return Entry(**told)


ROW = {"row": "r2"}
W1 = {"wire": "w1", "ends": ["q3.T1", "m.L1"]}


@pytest.mark.parametrize(
    ("made", "answer"),
    [
        (entry("levitated"), "refused:kind"),
        (entry("dead_reading", ROW, {"value": "14", "unit": "V"}), "refused:unit"),
        (entry("dead_reading", ROW, {"value": "1,250", "unit": "ohm"}), "refused:which_number"),
        (entry("dead_reading", ROW, {"value": "14,1", "unit": "ohm"}), "kept"),
        (entry("dead_reading", ROW, {"value": "OL", "unit": "ohm"}), "kept"),
        (entry("dead_reading", ROW, {"value": "NaN", "unit": "ohm"}), "refused:out_of_range"),
        (entry("dead_reading", ROW, {"value": "1e10", "unit": "ohm"}), "refused:out_of_range"),
        (entry("dead_reading", ROW, {"value": "-1", "unit": "ohm"}), "refused:out_of_range"),
        (entry("dead_reading", ROW, {"unit": "ohm"}), "refused:out_of_range"),
        (
            entry("dead_reading", {"row": "r9"}, {"value": "1", "unit": "ohm"}),
            "refused:no_such_row",
        ),
        (entry("dead_point", {"round": "B"}, {"value": "0", "unit": "V"}), "refused:no_such_entry"),
        (
            entry("dead_point", {"round": "B", "point": "L1-G"}, {"value": "OL", "unit": "V"}),
            "refused:out_of_range",
        ),
        (entry("landed", W1, {"ok": True}, rev=2), "refused:revision"),
        (
            entry("landed", {**W1, "ends": ["q3.T1", "m.L2"]}, {"ok": True}),
            "refused:ends_not_of_revision",
        ),
        (entry("landed", W1, {"ok": True}, based_on=("nobody.knows",)), "history_missing"),
        # a closing counts with its history missing
        (entry("landed", W1, {"ok": False}, based_on=("nobody.knows",)), "kept"),
        (entry("trip", {"device": "ol1"}, based_on=("nobody.knows",)), "kept"),
        (entry("correction", {}, {"of": "A.after"}), "refused:reason_missing"),
        (entry("correction", {}, {"of": "gone", "reason": "typed wrong"}), "refused:no_such_entry"),
        (
            entry("correction", {}, {"of": "A.after", "reason": "no"}, by="da", role="electrician"),
            "refused:role",
        ),
        (entry("control_result", {"opened": "none"}, {"ok": True}), "refused:no_such_entry"),
        (entry("reset", {"device": "ol1"}), "refused:blocked:no_trip"),
        (entry("signed", {}, {"reauth": True}, by="ro", role="reviewer"), "refused:online_only"),
        (entry("covers_on", role="apprentice"), "refused:role"),
        (entry("landed", W1, {"ok": True}, role="other"), "refused:role"),
        (entry("stage_opened", {"stage": "bump"}, role="apprentice"), "kept:role"),
        (entry("stage_opened", {"stage": "lift-off"}), "refused:no_such_entry"),
    ],
)
def test_an_entry_is_answered_by_what_is_wrong_with_it(made, answer):
    """Each bad entry by its own reason, and nothing changes by it."""
    found = play()
    before = state_of(found.log)
    assert receive(found.log, made) == answer
    if answer.startswith(("refused", "history")):
        assert state_of(found.log) == before


def test_one_id_is_one_entry():
    """Sent ten times it is one; with other content it is refused."""
    found = play()
    made = entry("landed", W1, {"ok": True, "tugged": True})
    assert [receive(found.log, made) for _ in range(10)] == ["kept", *["duplicate"] * 9]
    assert receive(found.log, replace(made, body={"ok": False})) == "refused:id_reused"
    assert state_of(found.log).wires["w1"] == "done"


def test_a_second_trip_asks_for_volts_and_amps_before_a_reset():
    """The first may be reset; from the second on both readings come first."""
    found = play()
    log = found.log
    trip = entry("trip", {"device": "ol1"}, {"load": "full"})
    assert receive(log, trip) == "kept"
    first = entry("reset", {"device": "ol1"}, id="r1", based_on=("x",))
    assert receive(log, first) == "kept"
    assert receive(log, replace(trip, id="t2", based_on=("r1",))) == "kept"
    again = replace(first, id="r2", based_on=("t2",))
    assert receive(log, again) == "refused:blocked:volts"
    assert "trip:ol1" in state_of(log).open


def test_an_apprentice_role_is_that_of_receipt():
    """A live reading of anybody shuts the panel; a good meter check of an apprentice opens none."""
    found = play("locked")
    good = {
        "phase": "before",
        "meter": "m",
        "value": "479",
        "unit": "V",
        "min": "414",
        "max": "506",
    }
    made = entry("meter_live", {"round": "Z"}, good, role="apprentice", based_on=("Lc",))
    assert receive(found.log, made) == "refused:role"
    live = entry(
        "dead_point",
        {"round": "Z", "point": "L1-G"},
        {"value": "277", "unit": "V"},
        id="y",
        role="other",
        by="pt",
        based_on=(),
    )
    assert receive(found.log, live) == "kept"
    assert state_of(found.log).state == "still_live"
    assert ("mq", "acts.still_live") in tells(found.log)


def test_a_lock_is_removed_by_a_third_with_a_witness():
    """Online, by a reviewer, not one's own, the owner no witness, the area checked."""
    body = {"reason": "ill", "tried": ["phone"], "area_checked": True, "witness": "da"}
    removal = entry(
        "foreign_lock_removed",
        {"lock": "Lq3"},
        body,
        by="ro",
        role="reviewer",
        is_online=True,
    )
    for wrong, answer in (
        (replace(removal, about={"lock": "none"}), "refused:no_such_lock"),
        (replace(removal, body={**body, "witness": "mq"}), "refused:reason_missing"),
        (replace(removal, body={**body, "area_checked": False}), "refused:reason_missing"),
        (replace(removal, by="mq"), "refused:your_own_lock"),
        (replace(removal, is_online=False), "refused:online_only"),
    ):
        assert receive(play().log, wrong) == answer
    found = play()
    assert receive(found.log, removal) == "kept"
    assert state_of(found.log).locks["Lq3"] == "off"


def test_nothing_is_signed_that_is_open_unseen_or_ones_own():
    """Each condition by itself, then the signature."""
    signing = entry(
        "signed",
        {},
        {"reauth": True, "license": "L-1", "accepts": []},
        by="ro",
        role="reviewer",
        is_online=True,
        based_on=("close.loaded",),
    )
    for wrong, answer in (
        (replace(signing, body={**signing.body, "reauth": False}), "refused:sign_in_again"),
        (replace(signing, body={**signing.body, "license": " "}), "refused:license_missing"),
        (replace(signing, based_on=("amps",)), "refused:changed_after_opened"),
        (replace(signing, by="mq"), "refused:own_work"),
    ):
        assert receive(play("run").log, wrong) == answer, answer
    assert (
        receive(play("checked").log, replace(signing, based_on=("read.gnd",)))
        == "refused:open_items"
    )
    assert receive(play("run").log, signing) == "kept"
