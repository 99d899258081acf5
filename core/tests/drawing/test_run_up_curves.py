"""A run-up on paper: everything inside the page, figures where they belong, twins in words."""

import pytest

from evencoil.drawing import draw_run_up_torque, draw_run_up_traces, to_svg
from evencoil.job import JobInputs, run_up_of, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.run_up import LoadInputs, load_curve

PLATE = "75 HP, 460 V, 86 A, 1780 RPM, 60 HZ, 3 PH, CODE G, DES B, EFF 95.4, INS F, 6 LEADS"


@pytest.fixture(scope="module", params=["fan", "conveyor", "downhill"])
def ready(request):
    """Return a star-delta motor on some load."""
    inputs = JobInputs(
        plate=PlateInputs(text=PLATE),
        supply=SupplyInputs(text="480Y/277"),
        leads=LeadsInputs(winding="6", start_method="wye_delta"),
        load=LoadInputs(kind=request.param, torque_percent="40"),
    )
    return run_up_of(inputs, work_out(inputs))


def test_both_pictures_stay_inside_their_size(ready):
    """No curve, mark or word leaves the sheet, whichever way the load pulls."""
    way = ready.own_sheet()
    for picture in (
        draw_run_up_torque(way, load_curve(ready.facts)),
        draw_run_up_traces(way, ready.facts.ambient_c),
    ):
        for shape in picture.shapes:
            for x, y in shape.points:
                assert 0 <= x <= picture.width
                assert 0 <= y <= picture.height
        assert "nan" not in to_svg(picture)


def test_the_twin_says_the_torque_at_rest(ready):
    """Star at rest: a third of 154 % of 221 lb ft, and 480 of 460 V squared: 124 lb ft."""
    twin = draw_run_up_torque(ready.own_sheet(), load_curve(ready.facts)).twin
    start = next(line for line in twin if line.startswith("start"))
    at_rest = float(start.split("0 rpm ")[1].split(",")[0])
    assert at_rest == pytest.approx(221.3 * 1.54 / 3 * (480 / 460) ** 2, rel=0.03)
    assert [line.split(",")[0] for line in twin] == ["start", "run", "load"]
