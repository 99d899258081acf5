"""Two tablets and a desk at random: nothing lost, doubled or credited wrongly; doors stay shut.

The invariants are asked of the entries themselves, not of the functions that make the state.
"""

import pytest
from acts_tablets import Site, shuffled

from evencoil.acts import HANDS_ACTS, RANK, state_of
from evencoil.acts.hands import proving, unprovers
from evencoil.acts.stages import is_counted


def check(seed):
    """Play a day and hold every invariant against it."""
    site = Site(seed)
    state = site.day()
    log, view = site.log, site.log.now()
    everything = [one for kind in kinds(view) for one in view.of(kind)]
    # 1, 2: every entry has an answer, and one id counts once
    assert {one.id for one in site.made} == set(site.answers)
    ids = [one.id for one in everything]
    assert len(ids) == len(set(ids))
    for answers in site.answers.values():
        assert all(one in {"duplicate", answers[0]} for one in answers[1:])
    # 3: any causal order of arrival and any clocks give the same state
    again = state_of(shuffled(site, seed + 1))
    assert sorted(again.open) == sorted(state.open)
    for name in ("state", "hands", "wires", "rows", "items", "stages", "is_fit", "signature"):
        assert getattr(again, name) == getattr(state, name), (seed, name)
    assert dict(again.locks) == dict(state.locks)
    hands_are_safe(state, view)
    wires_are_true(state, view, log)
    stages_are_true(state, view, log)
    return state


def kinds(view):
    """Return the kinds that occur."""
    view.of("lock_on")
    return list(view._by_kind)


def hands_are_safe(state, view):
    """6, 7: own lock, every isolator locked, no stage open, everything grave seen by the round."""
    if not state.hands:
        return
    on = {name for name, how in state.locks.items() if how == "on"}
    locks = [one for one in view.of("lock_on") if one.id in on]
    for isolator in ("q3", "c120"):
        for person in state.hands:
            assert any(one.by == person and one.about["isolator"] == isolator for one in locks)
    closed = {one.about["opened"] for one in view.of("stage_closed")}
    assert all(one.id in closed for one in view.of("stage_opened"))
    rounds = proving(view)
    assert rounds
    for by in rounds:
        for grave in (*unprovers(view), *view.of("trip", "left_panel", "stage_closed")):
            assert view.log.saw(by.before, grave)


def wires_are_true(state, view, log):
    """8: a done wire was landed on these very ends at every revision since, and no one says no."""
    for wire, how in state.wires.items():
        if how != "done":
            continue
        yes = [one for one in view.of("landed") if one.about["wire"] == wire and one.body["ok"]]
        assert any(
            all(
                wire in work.wires and set(work.wires[wire].ends) == set(one.about["ends"])
                for work in log.works[one.rev - 1 :]
            )
            for one in yes
        )
        for no in view.of("landed", "different_here"):
            if no.about["wire"] == wire and not no.body.get("ok"):
                assert any(log.saw(one, no) for one in yes)


def stages_are_true(state, view, log):
    """9, 10, 13, 14: roles, stages unseen by each other, fit only with no lock and no hands."""
    openings = view.of("stage_opened")
    for one in openings:
        beside = [other for other in openings if log.are_beside(one, other)]
        if beside:
            stage = one.about["stage"]
            others = [
                other
                for other in openings
                if other.about["stage"] == stage and other not in beside and other.id != one.id
            ]
            assert others or state.stages[stage] != "ok"
        if is_counted(view, one):
            assert RANK[one.role] >= RANK["electrician"]
    if state.is_fit:
        assert not state.hands
        assert set(state.stages.values()) == {"ok"}
        assert set(state.locks.values()) <= {"off"}
    assert all(one.kind in HANDS_ACTS or one.kind != "landed" for one in view.of("landed"))


@pytest.mark.parametrize("seed", range(60))
def test_a_random_day_of_two_tablets_and_a_desk(seed):
    """Sixty days that every check plays."""
    check(seed)


@pytest.mark.many
def test_a_thousand_random_days():
    """A thousand more; among them hands were open, wires done, stages contested."""
    seen = set()
    for seed in range(1000, 2000):
        state = check(seed)
        seen |= {state.state.partition(":")[0], *state.wires.values(), *state.stages.values()}
    assert {"done", "disputed", "stale", "contested", "not_done", "still_live"} <= seen
