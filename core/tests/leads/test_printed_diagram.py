"""A maker's diagram typed as printed, before the winding is known."""

import pytest

from evencoil.base.errors import RefusedError
from evencoil.job import JobInputs, work_out
from evencoil.leads import LeadsInputs
from evencoil.leads.maker_diagram import read_diagram
from evencoil.plate import PlateInputs, SupplyInputs


@pytest.mark.parametrize(
    "text",
    [
        "1-7 L1, 2-8 L2, 3-9 L3, 4-5-6",
        "T1-T7 L1; T2-T8 L2; T3-T9 L3; T4-T5-T6 TOGETHER",
        "L1: 1 7\nL2: 2 8\nL3: 3 9\n4 5 6",
        "l1 t1-t7, l2 t2-t8, l3 t3-t9, t4-t5-t6.",
    ],
)
def test_one_diagram_printed_in_many_ways(text):
    """Low voltage of a nine-lead wye, line before or behind, with and without T."""
    assert [(joint.line, joint.leads) for joint in read_diagram(text)] == [
        ("L1", ("T1", "T7")),
        ("L2", ("T2", "T8")),
        ("L3", ("T3", "T9")),
        (None, ("T4", "T5", "T6")),
    ]


@pytest.mark.parametrize("text", ["L1 L2", "1-7 L4", "A-B", "1-7 L1 L2", "black to red"])
def test_what_is_no_joint_is_refused_with_its_place(text):
    """The part is named; nothing is taken over."""
    with pytest.raises(RefusedError) as caught:
        read_diagram(f"1-7 L1, {text}")

    assert caught.value.message.params["n"] == "2"


@pytest.mark.parametrize(
    ("diagram", "kinds"),
    [
        ("1-7 L1, 2-8 L2, 3-9 L3, 4-5-6", {"9-wye"}),
        ("1-6-7 L1, 2-4-8 L2, 3-5-9 L3", {"9-delta"}),
        # high voltage is alike in both
        ("1 L1, 2 L2, 3 L3, 4-7, 5-8, 6-9", {"9-wye", "9-delta"}),
        ("1-2 L1, 3 L2, 4 L3", set()),
    ],
)
def test_a_diagram_tells_the_windings_it_fits(diagram, kinds):
    """Nine leads, nothing measured: the low-voltage diagram settles wye or delta."""
    job = JobInputs(
        plate=PlateInputs(text="15 HP 230/460 V 38.6/19.3 A 60 HZ 3 PH 9 LEADS"),
        supply=SupplyInputs(text="240 delta"),
        leads=LeadsInputs(maker=({"id": "m1", "text": diagram},)),
    )
    (checked,) = work_out(job).box.diagrams

    assert set(checked.kinds) == kinds
