"""What a closed hunt proves: one change, and a failure that was seen before it."""

import pytest

from evencoil.trouble import HuntStep, closed_verdict


def steps(*told):
    """Return steps from words such as ``changed:weld.contactor``."""
    return [HuntStep(what=one.partition(":")[0], row=one.partition(":")[2]) for one in told]


@pytest.mark.parametrize(
    ("told", "reason", "row", "counts"),
    [
        (["failed", "changed:coil_open.contactor", "passed"], "proven", "coil_open.contactor", 1.0),
        # a wrong guess first: it still failed after it, so only the second is the change
        (
            ["failed", "changed:overload_set", "failed", "changed:start_capacitor", "passed"],
            "proven",
            "start_capacitor",
            1.0,
        ),
        (
            ["failed", "changed:overload_set", "changed:start_capacitor", "passed"],
            "two_changes",
            "",
            0.0,
        ),
        (["changed:start_capacitor", "passed"], "no_failure_seen", "start_capacitor", 0.25),
        (["failed", "passed"], "left_by_itself", "", 0.0),
        (["failed", "changed:feed_lines_exchanged", "passed"], "lines_exchanged", "", 0.0),
        (["failed", "changed:start_capacitor"], "not_tried", "start_capacitor", 0.25),
        (["failed", "changed:start_capacitor", "failed"], "not_tried", "start_capacitor", 0.25),
        ([], "not_tried", "", 0.0),
        (
            ["failed", "changed:start_capacitor", "passed", "failed", "passed"],
            "left_by_itself",
            "start_capacitor",
            0.25,
        ),
    ],
)
def test_one_change_that_cured_a_seen_failure_is_proof_and_nothing_else(told, reason, row, counts):
    """Each rule of it, and its neighbors."""
    verdict = closed_verdict(steps(*told))
    assert (verdict.reason, verdict.row, verdict.counts) == (reason, row, counts)
    assert verdict.is_proven == (reason == "proven")
