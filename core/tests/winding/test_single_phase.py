"""The start circuit of single-phase motors: kinds by their parts, tests, contradictions."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.words import say
from evencoil.drawing.start_branch import draw_start_branch
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import LeadsInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.inputs import SizeInputs
from evencoil.winding.accessories import tell_accessory
from evencoil.winding.coils import winding_of
from evencoil.winding.single_phase import start_branch

REVERSIBLE = winding_of("1-phase-reversible")


@pytest.mark.parametrize(
    ("capacitors", "switch", "kind"),
    [
        ("none", "centrifugal", "split_phase"),
        ("start", "centrifugal", "capacitor_start"),
        ("start", "potential_relay", "capacitor_start"),
        ("run", "none", "permanent_split"),
        ("both", "potential_relay", "capacitor_start_run"),
        ("none", "none", "none"),
        ("start", "none", "none"),
        ("both", "", "unknown"),
    ],
)
def test_the_parts_say_which_motor_it_is(capacitors: str, switch: str, kind: str) -> None:
    """Textbook single-phase motors: what shifts the start current, what takes it out."""
    branch = start_branch(REVERSIBLE, capacitors=capacitors, switch=switch)  # type: ignore[arg-type]
    assert branch is not None
    assert branch.kind == kind


def test_a_start_capacitor_nothing_takes_out_is_named() -> None:
    """It bursts within seconds: found before it is energized."""
    branch = start_branch(REVERSIBLE, capacitors="start", switch="none")
    assert branch is not None
    assert [found.code for found in branch.findings] == ["single.unswitched"]


def test_bands_of_stamped_capacitors() -> None:
    """88 uF start reads 88 to 105.6; 10 uF run reads 9.4 to 10.6 (-0/+20 %, +-6 %)."""
    branch = start_branch(
        REVERSIBLE,
        capacitors="both",
        switch="centrifugal",
        start_uf=Decimal(88),
        run_uf=Decimal(10),
    )
    assert branch is not None
    said = {test.part: say(test.reads) for test in branch.tests}
    assert "88.0 to 105.6" in said["start_capacitor"]
    assert "9.4 to 10.6" in said["run_capacitor"]


def test_figures_that_do_not_suit_their_place() -> None:
    """A 400 uF run capacitor and a 5 uF start capacitor have been exchanged."""
    branch = start_branch(
        REVERSIBLE,
        capacitors="both",
        switch="centrifugal",
        start_uf=Decimal(5),
        run_uf=Decimal(400),
    )
    assert branch is not None
    assert {found.code for found in branch.findings} == {"single.run_large", "single.start_small"}


def test_three_phases_have_no_start_circuit() -> None:
    """Nothing is shown where it does not belong."""
    assert start_branch(winding_of("9-wye")) is None


def test_a_start_winding_without_leads_cannot_be_reversed_in_the_box() -> None:
    """Two or four leads: the start winding is inside."""
    for kind, inside in (("1-phase", True), ("1-phase-dual-fixed", True), ("1-phase-dual", False)):
        branch = start_branch(winding_of(kind))
        assert branch is not None
        assert branch.is_inside is inside


def test_start_parts_are_told_apart_only_in_a_single_phase_box() -> None:
    """Near zero ohms may be a start switch there; a relay coil has kilohms."""
    assert "start_switch" in tell_accessory(2, Decimal("0.4"), is_single=True).kinds
    assert "start_switch" not in tell_accessory(2, Decimal("0.4")).kinds
    assert tell_accessory(3, Decimal(5200), is_single=True).kinds == ("relay",)
    assert "capacitor" in tell_accessory(2, None, is_single=True).kinds


def test_the_step_passes_on_what_was_stamped() -> None:
    """From the nameplate to the band: 88 uF as stored text."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(
                text="1.5 HP, 115/230 V, 19/9.5 A, 1725 RPM, 60 HZ, 1 PH, SF 1.15, CODE K, 6 LEADS"
            ),
            supply=SupplyInputs(text="120/240 1ph"),
            size=SizeInputs(),
            leads=LeadsInputs.model_validate(
                {"single": {"capacitors": "start", "switch": "centrifugal", "start_uf": "88"}}
            ),
        )
    )
    assert worked.box.start is not None
    assert "88.0 to 105.6" in say(worked.box.start.tests[-1].reads)


@given(
    capacitors=st.sampled_from(["", "none", "start", "run", "both"]),
    switch=st.sampled_from(
        ["", "none", "centrifugal", "potential_relay", "current_relay", "electronic"]
    ),
    leads=st.sampled_from([0, 2, 3]),
)
def test_every_part_found_is_drawn_and_tested(capacitors: str, switch: str, leads: int) -> None:
    """No part that was said is missing from the picture's words or the table."""
    branch = start_branch(
        REVERSIBLE,
        capacitors=capacitors,  # type: ignore[arg-type]
        switch=switch,  # type: ignore[arg-type]
        protector_leads=leads,
    )
    assert branch is not None
    picture = draw_start_branch(branch)
    words = {shape.text for shape in picture.shapes if shape.kind == "text"}
    for test in branch.tests:
        assert say(test.name) in words
    assert all(
        0 <= x <= picture.width and 0 <= y <= picture.height
        for shape in picture.shapes
        for x, y in shape.points
    )
