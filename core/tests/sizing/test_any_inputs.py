"""Whatever is entered on the Size step: every figure is a step with its evidence, or a refusal."""

from decimal import Decimal

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from evencoil.base import CoreError
from evencoil.base.words import say
from evencoil.job import JobInputs, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs, curve_sheet

PLATES = (
    "15 HP 230/460 V 38.6/19.3 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G 9 LEADS",
    "1/2 HP 115/230 V 8.8/4.4 A 1 PH 60 HZ 1725 RPM",
    "7.5 KW 400 V D 690 V Y 14.3/8.3 A 1450 RPM 50 HZ 3 PH 6 LEADS",
    "40/20 HP 460 V 50/30 A 1765/870 RPM 60 HZ 3 PH 6 LEADS",
    "125 HP 460 V 143 A 3 PH 60 HZ",
    "COMPRESSOR 460 V 3 PH RLA 26 LRA 140",
    "10 HP 240 VDC 38 A",
    "460 V 13 A 3 PH",
    "",
)
SUPPLIES = (
    "480Y/277 60 Hz",
    "240 delta",
    "240/120 high leg delta",
    "480 V corner grounded",
    "120/240 1PH",
    "400Y/230 50 Hz",
    "drive 460 V 60 Hz 3 PH",
    "240 VDC",
    "120 V 3 phase delta",
    "",
)
amounts = st.decimals("0.01", "9000", places=2)
maybe = st.none() | amounts
OWN = st.lists(
    st.fixed_dictionaries(
        {
            "figure": st.sampled_from(
                ["conductor_size", "protection_device_a", "overload_setting_a", "table_flc_a"]
            ),
            "value": st.sampled_from(["2.5 mm²", "10 AWG", "20 A", "7 mm2", "4/0", "0", "-3 A"])
            | st.text("0123456789/.,- AWGkcmil²µé漢", min_size=1, max_size=12).filter(str.strip),
            "source": st.just("site list"),
        }
    ),
    max_size=3,
)
SIZES = st.fixed_dictionaries(
    {},
    optional={
        "machine": st.sampled_from(
            ["wound_rotor", "synchronous", "torque", "listed_appliance", "marked_fan"]
        ),
        "protection_kind": st.sampled_from(
            ["dual_element_fuse", "inverse_time_breaker", "instantaneous_breaker"]
        ),
        "run_length_ft": st.decimals("0", "9000", places=1),
        "run_length_m": st.decimals("0.1", "5000", places=1),
        "feeder_drop_percent": st.decimals("0", "20", places=1),
        "site": st.fixed_dictionaries(
            {},
            optional={
                "altitude_ft": st.decimals("-1000", "20000", places=0),
                "load_percent": st.decimals("1", "100", places=0),
            },
        ),
        "measured_start": st.fixed_dictionaries(
            {"amps_a": amounts, "volts_v": st.decimals("1", "700", places=0)}
        ),
        "drive": st.fixed_dictionaries(
            {"input_a": amounts}, optional={"output_v": st.decimals("1", "700", places=0)}
        ),
        "control": st.fixed_dictionaries(
            {"protection": st.sampled_from(["both", "primary_only", "inherent"])},
            optional={
                "transformer_va": amounts,
                "volts_v": st.decimals("1", "600", places=0),
                "coils": st.just(
                    [{"label": "K1", "count": 1, "inrush_va": "250", "sealed_va": "30"}]
                ),
                "conductor": st.sampled_from(["18", "14", "10", "4/0", "9", ""]),
            },
        ),
        "place": st.fixed_dictionaries(
            {},
            optional={
                "kind": st.sampled_from(
                    ["unfused_switch", "isolating_switch", "snap_switch", "plug", "breaker"]
                ),
                "amps_a": amounts,
                "rated_hp": amounts,
                "has_no_fuse": st.booleans(),
            },
        ),
        "fault": st.fixed_dictionaries(
            {}, optional={"device_ka": st.decimals("1", "200", places=1)}
        ),
        "maker_limit": st.fixed_dictionaries({"amps_a": amounts, "source": st.just("leaflet")}),
        "own": OWN,
    },
)


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(
    st.sampled_from(PLATES),
    st.sampled_from(SUPPLIES),
    st.sampled_from(["nec", "other"]),
    st.sampled_from(["full_voltage", "wye_delta", "part_winding"]),
    SIZES,
)
def test_every_figure_is_a_step_or_a_refusal(plate, supply, territory, start, size):
    """No input takes the sheet down; every sentence reads; a drive has no fuse behind it."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply, territory=territory, fault_current_a=Decimal(9000)),
            size=SizeInputs(**size),
            leads=LeadsInputs(start_method=start),
        )
    )

    steps = {step.id: step for step in worked.trail}
    assert len(steps) == len(list(worked.trail))
    for figure in worked.figures:
        assert (figure.step in steps) != (figure.refusal is not None), figure.id
        if figure.refusal is not None:
            assert figure.refusal.detail
            assert "{" not in figure.refusal.detail + figure.refusal.hint
    for step in steps.values():
        said = [step.working, *(mark.message for mark in step.marks)]
        said += [tip.message for tip in step.tips]
        assert all("{" not in say(message) for message in said), step.id
        assert all(name in steps for name in step.uses), step.id
        if territory == "other":
            assert "NEC 430" not in f"{step.rule}", step.id
    try:
        curve_sheet(worked.trail, SizeInputs(**size))
    except CoreError as refused:
        assert say(refused.message)
