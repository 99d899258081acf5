"""Devices that fail, warm up, saturate or are fed two ways: each figure worked out by hand."""

from math import exp, log

import pytest
from circuit_play import circuit_of, edited

from evencoil.base import OutOfRangeError
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.parts.motors import motors_of
from evencoil.solver.run import Run

SECOND = 1_000_000


class Bench:
    """A run by tags and seconds."""

    def __init__(self, name, edit=""):
        self.circuit = edited(circuit_of(name), edit) if edit else circuit_of(name)
        self.run = Run(compile_plant(self.circuit.netlist))
        self.do(0, "close", "QF1")

    def do(self, second, verb, tag="", word=""):
        """Do one thing, and wait until armatures rest."""
        device = self.circuit.id_of(tag) if tag else ""
        self.run.act(Action(round(second * SECOND), verb, device, word))
        self.run.advance(self.run.time + 200_000)

    def to(self, second):
        """Go on to a second."""
        self.run.advance(round(second * SECOND))
        self.run.look(round(second * SECOND))

    def word(self, tag):
        """Return the state of a device."""
        return self.run.plant.part_of[self.circuit.id_of(tag)].word(self.run)

    def motor(self):
        """Return what the motor does."""
        return motors_of(self.run)[0].word(self.run)

    def told(self, tag, aspect):
        """Return what was told of one aspect of a device."""
        name = self.circuit.id_of(tag)
        return [one.value for one in self.run.events if (one.device, one.aspect) == (name, aspect)]


def started(name, edit=""):
    bench = Bench(name, edit)
    bench.do(1, "press", "S2")
    bench.do(2, "release", "S2")
    return bench


def test_a_pole_that_does_not_make_leaves_one_phase():
    """From standstill it hums; while running it runs on at one phase."""
    bench = Bench("3A")
    bench.do(0.5, "fail", "KM1", "1L1-2T1 open")
    bench.do(1, "press", "S2")
    assert bench.motor() == "hum"
    running = started("3A")
    running.to(8)
    running.do(8, "fail", "KM1", "1L1-2T1 open")
    assert running.motor() == "sp"
    running.do(9, "fail", "KM1", "1L1-2T1 ok")
    assert running.motor() == "fwd"


def test_a_seal_that_does_not_make_runs_only_while_it_is_held():
    bench = Bench("3A")
    bench.do(0.5, "fail", "KM1", "13-14 open")
    bench.do(1, "press", "S2")
    assert bench.motor() == "fwd"
    bench.do(2, "release", "S2")
    assert bench.word("KM1") == "0"


def test_a_stop_whose_contact_stays_closed_does_not_stop():
    bench = started("3A")
    bench.do(3, "fail", "S1", "11-12 closed")
    bench.do(4, "press", "S1")
    assert bench.word("KM1") == "1"


def test_a_worn_contact_drops_the_coil_while_it_pulls_in():
    """20 ohms ahead of 240 ohms of inrush (120 V at 60 VA) leave 92 %: it still pulls in.

    The impedances add as phasors, so that the coil keeps at least 240/260.
    """
    bench = Bench("3A")
    bench.do(0.5, "fail", "S1", "11-12 worn")
    bench.do(1, "press", "S2")
    assert bench.word("KM1") == "1"


def test_what_failed_is_kept_in_a_snapshot():
    """A rehearsal cut after the fault goes on with it."""
    stage = Stage(circuit_of("3A"))
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=SECOND // 2, do="fail", on="main", word="13-14 open"),
    ]
    first = stage.play(acts, until_us=SECOND)
    later = [
        ScenarioAct(at_us=2 * SECOND, do="push", on="start"),
    ]
    on = stage.play(later, until_us=4 * SECOND, snapshot=first.snapshots[-1])
    assert {one.value for one in on.events if one.device == "main" and one.aspect == "coil"} == {
        "fed",
        "dead",
    }


def test_an_open_winding():
    """One of three coils open: no rotating field from standstill, one phase while it runs."""
    bench = Bench("3A")
    coil = motors_of(bench.run)[0].coils[0][0].name
    bench.do(0.5, "cut", "M1", coil)
    bench.do(1, "press", "S2")
    assert bench.motor() == "hum"
    bench.do(2, "mend", "M1", coil)
    bench.to(4)
    assert bench.motor() == "fwd"


def test_a_motor_whose_leads_are_off_does_nothing():
    bench = Bench("3A")
    bench.do(0.5, "lift", "M1")
    bench.do(1, "press", "S2")
    assert (bench.word("KM1"), bench.motor()) == ("1", "off")


@pytest.mark.parametrize(
    ("celsius", "healthy"),
    # trip at 3,600 ohms of the loop, 1,200 of each: between 1,330 at +5 K and 400 at -5 K
    [(20, True), (140, True), (153, True), (156, False), (170, False)],
)
def test_a_thermistor_relay_measures_its_loop(celsius, healthy):
    """Rated 150 degrees: it trips a few kelvins about it, by resistance."""
    bench = Bench("14B")
    bench.do(1, "temp", "M1", str(celsius))
    bench.to(3)
    assert (bench.word("PR1") == "1") is healthy


@pytest.mark.parametrize("word", ["open", "short"])
def test_a_cut_or_shorted_loop_trips(word):
    bench = Bench("14B")
    bench.to(1)
    assert bench.word("PR1") == "1"
    tag = next(
        bench.circuit.tags[item.id] for item in bench.circuit.netlist.devices if item.type == "ptc"
    )
    bench.do(2, "sensor", tag, word)
    assert bench.word("PR1") == "0"


def test_a_jumper_across_the_loop_is_a_short():
    """Less than 20 ohms between T1 and T2, whatever joins them."""
    bench = Bench("14B", "add PR1.T1 PR1.T2")
    bench.to(2)
    assert bench.word("PR1") == "0"


def test_two_thermostats_apart():
    """Each can be held by hand: the alarm warns while the trip still holds, and the other way."""
    bench = started("14A")
    bench.do(3, "hot", "TH2")
    assert (bench.word("H3"), bench.word("KM1")) == ("on", "1")
    bench.do(4, "follow", "TH2")
    bench.do(5, "hot", "TH1")
    assert (bench.word("H3"), bench.word("KM1")) == ("off", "0")


def test_the_magnetizing_current_of_an_autotransformer_is_in_one_unit():
    """A leg of 900 ohms at 277 V draws 0.31 A at no load; the usual one of 10,000, 0.03 A.

    With the motor's leads off nothing else loads it: what the line delivers is the fuse's own
    current, pole ohms left out.
    """
    for edit, amps in (("", 277.1 / 10_000), ("set TA1 mag=900", 277.1 / 900)):
        bench = Bench("9A", edit)
        bench.do(0.5, "lift", "M1")
        bench.do(1, "press", "S2")
        bench.do(1.5, "release", "S2")
        part = bench.run.plant.part_of[bench.circuit.id_of("KS")]
        found = part.amps_through(bench.run, part.branches["1L1-2T1"])
        assert found == pytest.approx(amps, rel=0.03)


def test_a_transformer_on_twice_its_volts_saturates_and_its_fuse_goes():
    """240 V links on 480 V: the core saturates, a primary fuse opens, and that is no short."""
    links = "remove T1.H2 T1.H3; add T1.H1 T1.H3; add T1.H2 T1.H4"
    bench = Bench("3A", links)
    bench.to(1)
    assert bench.told("T1", "core") == ["saturated"]
    assert "blown" in {bench.word("FU1"), bench.word("FU2")}
    stage = Stage(edited(circuit_of("3A"), links))
    trace = stage.play([ScenarioAct(at_us=0, do="close", on="breaker")], until_us=SECOND)
    assert {one.code for one in trace.hazards} == {"opens_on_load"}
    right = Bench("3A")
    right.to(1)
    assert right.told("T1", "core") == []


def test_an_overload_says_how_long_to_wait():
    """Tripped by three times its setting: it may be reset below 1.0 of its heat.

    The heat at the trip is 1.15 squared; it falls by exp(-t/214 s): 214 ln 1.3225 = 59.8 s.
    """
    bench = started("3A")
    bench.do(4, "load", "M1", "3")
    bench.to(200)
    assert bench.word("OL1") == "tripped"
    tripped = next(
        one.time for one in bench.run.events if one.value == "tripped" and one.device == "overload"
    )
    at = bench.run.time / SECOND
    heat = 1.3225 * exp(-(at - tripped / SECOND) / 214)
    wait = 214 * log(heat) if heat > 1 else 0
    bench.do(at, "reset", "OL1")
    if wait > 0:
        assert bench.told("OL1", "overload")[-1] == f"hot {-(-wait // 1):.0f}"
        assert bench.word("OL1") == "tripped"
    bench.to(tripped / SECOND + 61)
    bench.do(tripped / SECOND + 61, "reset", "OL1")
    assert bench.word("OL1") == "ok"


def test_a_reset_while_hot_is_refused_and_said():
    """Ten seconds after the trip: heat 1.3225 exp(-10/214) = 1.262, 49.8 s to wait."""
    bench = started("3A")
    bench.do(4, "load", "M1", "3")
    while bench.word("OL1") != "tripped":
        bench.to(bench.run.time / SECOND + 0.5)
    tripped = next(
        one.time for one in bench.run.events if one.value == "tripped" and one.device == "overload"
    )
    bench.do(tripped / SECOND + 10, "reset", "OL1")
    assert bench.word("OL1") == "tripped"
    assert bench.told("OL1", "overload")[-1] == "hot 50"


def test_an_automatic_overload_comes_back_only_when_it_has_cooled():
    """From 1.3225 to 0.9 of its heat: 214 ln(1.3225/0.9) = 82.4 s."""
    bench = started("3A", "set OL1 reset=auto")
    bench.do(4, "trip", "OL1")
    assert bench.word("OL1") == "tripped"
    bench.to(4 + 80)
    assert bench.word("OL1") == "tripped"
    bench.to(4 + 84)
    assert bench.word("OL1") == "ok"


def test_a_motor_fed_for_two_speeds_at_once_says_so():
    """Two windings, both contactors in: neither speed, the torques work against each other."""
    edit = "add KL.21 KL.22; add KH.21 KH.22; set KL mech=; set KH mech="
    bench = Bench("11C", edit)
    bench.do(1, "push_in", "KL")
    bench.do(2, "push_in", "KH")
    assert bench.motor() == "both"


def test_a_rehearsal_is_never_cut_silently():
    """Ten minutes of it: the last frame is at its end, or the trace says where it ended."""
    stage = Stage(circuit_of("3A"))
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=SECOND, do="push", on="start"),
        ScenarioAct(at_us=590 * SECOND, do="push", on="stop"),
    ]
    trace = stage.play(acts, until_us=600 * SECOND)
    assert not trace.is_cut
    assert trace.frames[-1].time_us >= 599 * SECOND
    assert {one.time for one in trace.events if one.device == "stop"} >= {590 * SECOND}


def test_an_act_counts_by_what_it_did():
    """A start that pulls in counts; a stop at standstill does not."""
    stage = Stage(circuit_of("3A"))
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=SECOND, do="push", on="stop"),
        ScenarioAct(at_us=3 * SECOND, do="push", on="start"),
        ScenarioAct(at_us=6 * SECOND, do="push", on="stop"),
    ]
    trace = stage.play(acts, until_us=8 * SECOND)
    pressed = [
        (one.device, one.n in trace.effects)
        for one in trace.events
        if one.aspect == "hand" and one.value == "press"
    ]
    assert pressed == [("stop", False), ("start", True), ("stop", True)]


# joints, sensors by hand, RTDs


def played(name, *acts, until=None, snapshot=None):
    stage = Stage(circuit_of(name))
    said = [
        ScenarioAct(at_us=round(second * SECOND), do=do, on=on, word=word)
        for second, do, on, word in acts
    ]
    return stage.play(said, until_us=until, snapshot=snapshot), stage


def motor_at(trace, second):
    frame = next(one for one in reversed(trace.frames) if one.time_us <= second * SECOND)
    return next(iter(frame.motors.values())).word


RUNNING = ((0, "close", "QF1", ""), (1, "push", "S2", ""))


def test_a_joint_that_comes_off_is_a_lost_phase():
    """A lead off its screw at the motor: hum from standstill, one phase while it runs."""
    trace, _ = played(
        "3A", (0, "close", "QF1", ""), (0.5, "loosen", "M1.U1", "open"), (1, "push", "S2", "")
    )
    assert motor_at(trace, 2) == "hum"
    trace, _ = played("3A", *RUNNING, (8, "loosen", "M1.U1", ""), (9, "tighten", "M1.U1", ""))
    assert motor_at(trace, 8.5) == "sp"
    assert motor_at(trace, 9.5) == "fwd"


def test_a_joint_of_some_ohms_in_a_coil_circuit_takes_its_share_of_the_volts():
    """A coil that holds with 10 VA at 120 V and pulls in with 60 VA at a power factor of 0.6.

    Pulling in it is 144 + 192j ohm: with 50 ohm in series 240/273 = 88 % of the volts are left,
    enough; with 100 ohm 240/310 = 77 %, less than the 85 % it needs. Pulled in it is
    360 + 1394j ohm: with 100 ohm 98 % are left. So one joint lets a contactor hold that will not
    pull in again.
    """
    trace, _ = played("3A", *RUNNING, (4, "loosen", "KM1.A1", "100"))
    assert motor_at(trace, 5) == "fwd"
    for ohms, word in (("50", "fwd"), ("100", "off")):
        trace, _ = played(
            "3A", (0, "close", "QF1", ""), (0.5, "loosen", "KM1.A1", ohms), (1, "push", "S2", "")
        )
        assert motor_at(trace, 2) == word


def test_a_joint_can_come_loose_after_a_snapshot_that_knew_none():
    """Going on from a snapshot gives what the whole scenario gives."""
    acts = (*RUNNING, (8, "loosen", "M1.V1", "open"), (9, "loosen", "KM1.A2", "open"))
    whole, stage = played("3A", *acts, until=12 * SECOND)
    begun, _ = played("3A", *RUNNING, until=7 * SECOND)
    ahead = [
        ScenarioAct(at_us=round(second * SECOND), do=do, on=on, word=word)
        for second, do, on, word in acts[2:]
    ]
    middle = stage.play(ahead[:1], until_us=8_500_000, snapshot=begun.snapshots[-1])
    after = stage.play(ahead[1:], until_us=12 * SECOND, snapshot=middle.snapshots[-1])
    assert motor_at(middle, 8.4) == "sp"
    assert after.frames[-1].motors == whole.frames[-1].motors
    assert [one.n for one in after.events] == [
        one.n for one in whole.events if one.time > 8_500_000
    ]


@pytest.mark.parametrize("word", ["loose", "-3", "nan"])
def test_a_joint_takes_ohms_or_open(word):
    with pytest.raises(OutOfRangeError):
        played("3A", (0, "loosen", "KM1.A1", word))


def test_a_zero_speed_switch_that_sticks_plugs_the_motor_on():
    """12A: with 13-14 held closed the plugging contactor stays in, and the motor turns backward."""
    switch = next(item.id for item in circuit_of("12A").netlist.devices if item.type == "zss")
    tag = circuit_of("12A").tags[switch]
    bench = started("12A")
    bench.to(6)
    bench.do(6, "forward", tag)
    bench.do(7, "press", "S1")
    bench.do(8, "release", "S1")
    bench.to(20)
    assert bench.motor() == "rev"
    bench.do(20, "follow", tag)
    bench.to(40)
    assert bench.motor() in {"off", "coast"}


def test_a_phase_monitor_held_tripped_drops_the_motor_out():
    bench = started("14D")
    monitor = next(i.id for i in bench.circuit.netlist.devices if i.type == "phasemon")
    tag = bench.circuit.tags[monitor]
    assert bench.motor() == "fwd"
    bench.do(4, "trip", tag)
    assert bench.motor() == "coast"
    bench.do(5, "follow", tag)
    bench.to(6)
    assert bench.word(tag) == "1"


#: IEC 60751, platinum of 100 ohm: 20 C 107.79, 100 C 138.51, 155 C 158.99 (from its table)
@pytest.mark.parametrize(("celsius", "ohms"), [(20, 107.79), (100, 138.51), (155, 159.19)])
def test_an_rtd_has_the_ohms_of_its_temperature(celsius, ohms):
    bench = Bench("14C")
    bench.do(1, "temp", "M1", str(celsius))
    plant = bench.run.plant
    ends = (plant.node_of["rtd.R1"], plant.node_of["rtd.R2"])
    assert plant.ohms(bench.run.conductance, *ends) == pytest.approx(ohms, abs=0.03)
    like = (plant.node_of["rtd.R2"], plant.node_of["rtd.R3"])
    assert plant.ohms(bench.run.conductance, *like) < 0.1


@pytest.mark.parametrize(
    ("edit", "alarms"),
    [
        ("", False),
        # an open lead, a lead on the wrong screw, a sensor short: trips, never blind
        ("remove RM1.T1 RT1.R1", True),
        ("remove RM1.T2 RT1.R2", True),
        ("move RT1.R1 RM1.T1 -> RM1.T2", True),
    ],
)
def test_an_rtd_loop_that_is_not_whole_trips(edit, alarms):
    bench = Bench("14C", edit)
    bench.to(2)
    part = bench.run.plant.part_of["rtd_monitor"]
    assert (part.tells(bench.run)["trip"] == "1") is alarms


def test_three_like_leads_take_out_a_lead_of_some_ohms():
    """2 ohm in each lead would read 10 C high on two wires; on three it reads right."""
    trace, stage = played("14C", (0, "close", "QF1", ""), (1, "temp", "M1", "126"))
    del trace
    plant = compile_plant(stage.circuit.netlist, joints=("rtd.R1", "rtd.R2", "rtd.R3"))
    run = Run(plant)
    run.act(Action(0, "close", "breaker"))
    run.act(Action(SECOND, "temp", "motor", "126"))
    for lead in ("rtd.R1", "rtd.R3"):
        run.act(Action(SECOND, "loosen", lead, "2"))
    run.act(Action(SECOND, "loosen", "rtd.R2", "0"))
    run.advance(3 * SECOND)
    assert plant.part_of["rtd_monitor"].tells(run)["alarm"] == "0"
    run.act(Action(3 * SECOND, "loosen", "rtd.R1", "6"))
    run.advance(5 * SECOND)
    assert plant.part_of["rtd_monitor"].tells(run)["alarm"] == "1"
