"""Results of a stage: each at its place, held against its stage's own bounds, in balance."""

from dataclasses import replace
from decimal import Decimal

import pytest
from acts_play import Play, cases

from evencoil.acts import (
    Entry,
    Log,
    Stage,
    expected_of_entry,
    receive,
    state_of,
)
from evencoil.base import unbalance_of_three


@pytest.mark.parametrize(
    ("values", "percent"),
    # NEMA MG 1's own example of unbalance: 220, 215, 210 V is 2.3 percent
    [
        (("220", "215", "210"), "2.33"),
        (("480", "480", "480"), "0.00"),
        (("19.1", "19.6", "18.4"), "3.33"),
    ],
)
def test_unbalance_by_hand(values, percent):
    """The worst deviation from the mean, of the mean."""
    found = unbalance_of_three([Decimal(one) for one in values])
    assert f"{found:.2f}" == percent


def test_two_readings_or_none_have_no_unbalance():
    """Nor have three dead ones."""
    assert unbalance_of_three([Decimal(480), Decimal(470)]) is None
    assert unbalance_of_three([Decimal(0)] * 3) is None


def stage_after(*results, closed="ok"):
    """Open the loaded stage of the conveyor with nothing in its way, read, and close it."""
    play = Play(cases()["setups"]["ic2"])
    work = play.log.work
    bare = replace(
        work,
        sources={"main": work.sources["main"]},
        wires={},
        rows={},
        items=(),
        expect={
            "loaded.volts": {"unit": "V", "min": "414", "max": "506"},
            "volts": {"unit": "V", "min": "0", "max": "1"},
        },
        stages={
            "loaded": Stage(live=("q3",), scope=("power",), needs=("volts@a", "volts@b", "volts@c"))
        },
    )
    log = Log([bare])
    answers = []

    def do(kind, about=None, body=None):
        name = f"e{len(answers)}"
        entry = Entry(
            id=name,
            kind=kind,
            by="mq",
            role="electrician",
            device="t",
            rev=1,
            about=about or {},
            body=body or {},
            based_on=tuple(log.heads()),
        )
        answers.append(receive(log, entry))
        return name

    do("covers_on")
    do("people_clear", body={"locks_left": "0"})
    opened = do("stage_opened", {"stage": "loaded"})
    for at, value in results:
        do("volts", {"opened": opened, "at": at}, {"value": value, "unit": "V"})
    if closed:
        do("stage_closed", {"opened": opened}, {"result": closed})
    assert set(answers) == {"kept"}
    return log, opened


def test_each_pair_is_needed_at_its_own_place():
    """Three readings of one pair are not the readings of three."""
    log, _ = stage_after(("a", "478"), ("b", "481"), ("c", "476"))
    assert state_of(log).stages["loaded"] == "ok"
    log, _ = stage_after(("a", "478"), ("a", "481"), ("a", "476"))
    assert state_of(log).stages["loaded"] == "not_done"


def test_a_stage_has_bounds_of_its_own():
    """They go before those of the kind; out of them is wrong."""
    log, _ = stage_after(("a", "478"))
    entry = log.now().of("volts")[0]
    assert expected_of_entry(log, log.work, entry)["max"] == "506"
    log, _ = stage_after(("a", "478"), ("b", "481"), ("c", "380"))
    assert state_of(log).stages["loaded"] == "wrong"


def test_volts_too_far_apart_are_wrong_though_each_is_in_bounds():
    """500, 500 and 420 V: 11.3 percent off their mean, a motor must not run on them."""
    log, _ = stage_after(("a", "500"), ("b", "500"), ("c", "420"))
    assert state_of(log).stages["loaded"] == "wrong"
    # 2.9 percent only derates it
    log, _ = stage_after(("a", "480"), ("b", "480"), ("c", "460"))
    assert state_of(log).stages["loaded"] == "ok"
