"""Answer first: where all windings left share the joints they are shown before any ohms."""

import pytest

from evencoil.job import JobInputs, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs

NINE = "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH 9 LEADS"


def box(plate, supply):
    """Calculate the box of a job in which no winding was chosen."""
    return work_out(JobInputs(plate=PlateInputs(text=plate), supply=SupplyInputs(text=supply))).box


def test_nine_leads_on_high_voltage_are_joined_alike_in_wye_and_delta():
    """4-7, 5-8, 6-9 and the lines on 1, 2, 3, by hand from both windings."""
    found = box(NINE, "480Y/277")

    assert found.winding is None
    assert {(joint.line, joint.leads) for joint in found.shared} == {
        ("L1", ("T1",)),
        ("L2", ("T2",)),
        ("L3", ("T3",)),
        (None, ("T4", "T7")),
        (None, ("T5", "T8")),
        (None, ("T6", "T9")),
    }


@pytest.mark.parametrize(
    ("plate", "supply"),
    [
        # on low voltage wye and delta differ: 4-5-6 against the corners
        (NINE, "240 delta"),
        # no lead count, nothing to share
        ("15 HP 230/460 V 38.6/19.3 A 3 PH 60 HZ", "480Y/277"),
    ],
)
def test_where_the_windings_differ_nothing_is_shared(plate, supply):
    """Ohms are asked for before any joint is shown."""
    assert box(plate, supply).shared == ()


def test_leads_counted_in_the_box_stand_for_the_nameplates_count():
    """No count stamped: asked for; nine counted: wye or delta is asked, with the shared joints."""
    plate = "15 HP 230/460 V 38.6/19.3 A 3 PH 60 HZ"

    def box(count=None, text=plate):
        return work_out(
            JobInputs(
                plate=PlateInputs(text=text),
                supply=SupplyInputs(text="480Y/277"),
                leads=LeadsInputs(lead_count=count),
            )
        )

    unsaid, counted = box(), box(9)
    assert unsaid.box.derived_error.field == "leads"
    assert {3, 6, 9, 12} <= set(unsaid.box.counts)
    assert counted.box.derived_error.field == "leads.winding"
    assert [sorted(joint.leads) for joint in counted.box.shared if not joint.line] == [
        ["T4", "T7"],
        ["T5", "T8"],
        ["T6", "T9"],
    ]
    # counted is a reading: nothing is assumed by it
    assert not counted.reading.assumed
    assert not [gap for gap in counted.reading.missing if gap.field == "leads"]
    differs = box(6, f"{plate} 9 LEADS").box
    assert differs.derived_error.field == "leads.lead_count"
    assert "9 leads, 6 were counted" in str(differs.derived_error.message)
