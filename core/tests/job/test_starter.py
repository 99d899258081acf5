"""The starter of one job: what it takes from plate, box and sizes, and what it refuses."""

from __future__ import annotations

import pytest

from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.job_starter import JobStarter
from evencoil.job.starter import work_out_starter
from evencoil.job.starter_states import starter_states
from evencoil.job.work_out import work_out
from evencoil.job.worked import Worked
from evencoil.leads.inputs import JointInput, LeadsInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.sizing.inputs import SizeInputs
from evencoil.starters.inputs import EditInput, StarterInputs

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 40 C AMB, {}"


def job(leads: str = "9 LEADS", winding: str | None = "9-wye", kind: str | None = None) -> Worked:
    return work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE.format(leads)),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs.model_validate({"protection_kind": kind}),
            leads=LeadsInputs.model_validate({"winding": winding}),
        )
    )


def codes(room: JobStarter) -> set[str]:
    return {found.code for found in room.findings}


def test_no_recipe_is_open_and_an_unknown_one_says_why() -> None:
    """Nothing is drawn before a choice; a wrong id is refused, not guessed."""
    nothing = work_out_starter(job(), StarterInputs())
    assert nothing.circuit is None
    assert nothing.rows() == ()
    assert nothing.material() == ()
    assert nothing.ladder().picture.shapes == ()
    assert nothing.power().shapes == ()
    assert [state.state for state in starter_states(nothing)] == ["open"] * 4
    wrong = work_out_starter(job(), StarterInputs(standard_circuit="99Z"))
    assert wrong.refusal is not None
    assert starter_states(wrong)[0].state == "blocked"


def test_the_motor_in_the_drawing_has_the_joints_of_the_box() -> None:
    """Without joints the derived ones are drawn and said; with joints, those."""
    derived = work_out_starter(job(), StarterInputs(standard_circuit="3A"))
    assert "derived" in codes(derived)
    assert derived.circuit is not None
    joints = {item.id for item in derived.circuit.netlist.devices if item.type == "joint"}
    assert len(joints) == 6
    own = (JointInput(id="a", leads=("T1",), line="L1"), JointInput(id="b", leads=("T4", "T7")))
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=PLATE.format("9 LEADS")),
            supply=SupplyInputs(text="480Y/277"),
            size=SizeInputs(),
            leads=LeadsInputs(winding="9-wye", joints=own),
        )
    )
    room = work_out_starter(worked, StarterInputs(standard_circuit="3A"))
    assert "derived" not in codes(room)
    assert room.circuit is not None
    assert {"a", "b"} <= {
        item.id.removeprefix("joint_")
        for item in room.circuit.netlist.devices
        if item.type == "joint"
    }


@pytest.mark.parametrize(
    ("circuit_id", "leads", "code"),
    [("7A", "3 LEADS", "leads"), ("15A", "9 LEADS", "phases"), ("3A", "9 LEADS", "derived")],
)
def test_what_does_not_fit_is_named(circuit_id: str, leads: str, code: str) -> None:
    """Wye-delta wants six leads; a single-phase starter is none for three phases."""
    winding = "9-wye" if leads.startswith("9") else "3-wye"
    room = work_out_starter(job(leads, winding), StarterInputs(standard_circuit=circuit_id))
    assert code in codes(room)
    refused = {found.code for found in room.findings if found.level == "refusal"}
    assert (starter_states(room)[0].state == "blocked") == bool(refused)


def test_an_edit_that_leaves_a_terminal_loose_is_a_doubt() -> None:
    """A wire taken off shows on Drawings; an edit of a wire that is gone stays and is reported."""
    base = work_out_starter(job(), StarterInputs(standard_circuit="3A"))
    wire = base.rows()[-1].id
    off = EditInput(id="e1", kind="remove_wire", wire=wire)
    again = EditInput(id="e2", kind="remove_wire", wire=wire)
    room = work_out_starter(job(), StarterInputs(standard_circuit="3A", edits=(off, again)))
    assert "H46" in {one.rule for one in room.drawn_problems}
    assert "stale_edit" in codes(room)
    assert len(room.rows()) == len(base.rows()) - 1
    assert starter_states(room)[1].state == "working"


def test_the_device_follows_the_sizes_until_chosen_here() -> None:
    """Fuses on the Size sheet draw a fused disconnect; a choice on Starter goes before."""
    fused = work_out_starter(job(kind="dual_element_fuse"), StarterInputs(standard_circuit="3A"))
    breaker = work_out_starter(
        job(kind="dual_element_fuse"),
        StarterInputs(standard_circuit="3A", options={"protection": "breaker"}),
    )
    assert fused.used["protection"] == "fused_disconnect"
    assert breaker.used["protection"] == "breaker"
    assert any("conductor" in source or "_a" in source for source in fused.sources.values())


@pytest.mark.parametrize(
    ("plate", "supply", "leads"),
    [
        ("15 HP 460 V Y 19.3 A 3 PH 3 LEADS", "480Y/277", {}),
        ("7.5 KW 230/400 V D/Y 26/15 A 3 PH 6 LEADS", "400 V 3PH", {}),
        ("7.5 KW 230/400 V D/Y 26/15 A 3 PH 6 LEADS", "230 V 3PH", {}),
        ("15 HP 230/460 V YY/Y 38.6/19.3 A 3 PH 9 LEADS", "240 delta", {}),
        ("15 HP 230/460 V DD/D 38.6/19.3 A 3 PH 9 LEADS", "480Y/277", {}),
        ("75 HP 230/460 V DD/D 176/88 A 3 PH 12 LEADS", "480Y/277", {}),
        ("75 HP 230/460 V YY/Y 176/88 A 3 PH 12 LEADS", "240 delta", {}),
        ("10/5 HP 460 V 1750/870 RPM 14/9 A 60 HZ 3 PH 6 LEADS CONST TORQUE", "480Y/277", {}),
        ("5 HP 230 V 13.2 A 3 PH 6 LEADS PART WINDING", "240 delta", {}),
    ],
)
def test_every_winding_as_derived_runs_on_a_three_wire_starter(
    plate: str, supply: str, leads: dict[str, object]
) -> None:
    """The box as derived, start pressed and let go: the motor runs on about its own volts."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs(),
            leads=LeadsInputs.model_validate(leads),
        )
    )
    room = work_out_starter(worked, StarterInputs(standard_circuit="3A"))
    assert room.circuit is not None
    trace = Stage(room.circuit).play(
        [
            ScenarioAct(at_us=0, do="close", on="breaker"),
            ScenarioAct(at_us=500_000, do="press", on="start"),
            ScenarioAct(at_us=800_000, do="release", on="start"),
        ],
        until_us=9_000_000,
    )
    motor = trace.frames[-1].motors["motor"]
    assert motor.word == "fwd"
    assert motor.volts_percent == pytest.approx(100, abs=12)


def test_the_dead_check_stands_by_what_was_read() -> None:
    """Nothing read is open, a reading as drawn is working, one that differs holds."""
    worked = job()
    pair = {"start": "stop.12", "end": "start.13"}
    for readings, state, said in (
        ((), "open", "headline.check.none"),
        (({**pair, "ohms": "0.2"},), "working", "headline.check"),
        (({**pair, "ohms": "0.2"}, pair), "blocked", "headline.check.wrong"),
        (
            ({**pair, "hands": [{"verb": "press", "device": "stop"}]},),
            "blocked",
            "headline.check.wrong",
        ),
    ):
        given = StarterInputs.model_validate({"standard_circuit": "3A", "readings": readings})
        room = work_out_starter(worked, given)
        found = next(one for one in starter_states(room) if one.step == "check")
        assert (found.state, found.headline.id) == (state, said)


@pytest.mark.parametrize(
    ("stamped", "circuit_id", "kind"),
    [
        ("THERMOSTATS P1-P2", "3A", "thermostat"),
        ("THERMOSTATS P1-P2", "14A", ""),
        ("SPACE HEATER 120 V", "3A", "space heater"),
        ("SPACE HEATER 120 V", "14E", ""),
    ],
)
def test_accessories_on_the_plate_that_nobody_wires_are_said(stamped, circuit_id, kind):
    """H38: what the nameplate has and the drawing has not."""
    plate = PlateInputs(text=f"15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 3 LEADS {stamped}")
    job = work_out(JobInputs(plate=plate, supply=SupplyInputs(text="480Y/277"), size=SizeInputs()))
    room = work_out_starter(job, StarterInputs(standard_circuit=circuit_id))
    said = [say(one.message) for one in room.findings if one.code == "accessory"]
    assert [kind in text for text in said] == ([True] if kind else [])


@pytest.mark.parametrize(
    ("plate", "circuit_id", "wanted"),
    [
        # 75 hp at 460 V: 96 A by the table; legs 0.58, star a third
        (
            "75 HP 460 V 85 A 1780 RPM 60 HZ 3 PH 6 LEADS CODE G DES B",
            "7A",
            {"main": "55.7", "delta": "55.7", "star": "32"},
        ),
        (
            "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 3 LEADS CODE G DES B",
            "6C",
            {"forward_contactor": "21", "reverse_contactor": "21"},
        ),
        (
            "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 9 LEADS CODE G DES B",
            "10A",
            {"first_half": "10.5", "second_half": "10.5"},
        ),
    ],
)
def test_contactors_carry_their_part_of_the_table_current(plate, circuit_id, wanted):
    """AC-3 duty of each contactor, with the step that it stands on."""
    job = work_out(
        JobInputs(
            plate=PlateInputs(text=plate), supply=SupplyInputs(text="480Y/277"), size=SizeInputs()
        )
    )
    room = work_out_starter(job, StarterInputs(standard_circuit=circuit_id))
    items = {item.id: item for item in room.circuit.netlist.devices}
    assert {name: items[name].parameters["ac3_a"] for name in wanted} == wanted
    assert all(room.sources[f"{name}.ac3_a"] == "table_flc_a" for name in wanted)


def test_transformer_and_its_fuses_are_rated_by_the_sizes():
    """50 VA from the coils entered; fuses of the sheet, each with its step."""
    size = SizeInputs.model_validate(
        {"control": {"coils": [{"label": "M", "inrush_va": "245", "sealed_va": "27"}]}}
    )
    plate = PlateInputs(text="15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 3 LEADS CODE G DES B")
    job = work_out(JobInputs(plate=plate, supply=SupplyInputs(text="480Y/277"), size=size))
    steps = {step.id: step for step in job.steps}
    room = work_out_starter(job, StarterInputs(standard_circuit="3A"))
    items = {item.id: item for item in room.circuit.netlist.devices}
    for name, parameter, step in (
        ("control_transformer", "va", "transformer_va"),
        ("control_fuse_1", "a", "primary_fuse_a"),
        ("control_fuse", "a", "secondary_fuse_a"),
    ):
        assert float(items[name].parameters[parameter]) == float(steps[step].value)
        assert room.sources[f"{name}.{parameter}"] == step


@pytest.mark.parametrize(("tap", "volts"), [("50", 50), ("57", 57), ("80", 80)])
def test_any_tap_of_the_plate_gives_its_volts(tap, volts):
    """Fifty, an odd one, eighty: that part of the line's volts at the motor while it starts."""
    from circuit_play import Player

    from evencoil.starters.standard_circuit import draw

    player = Player(draw("9A", {"tap": tap}).circuit)
    player.do("close QF1")
    player.do("push S2")
    assert abs(float(player.part("M1").tells(player.run)["v"]) - volts) <= 1
