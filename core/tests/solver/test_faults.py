"""Devices that fail, warm up, saturate or are fed two ways: each figure worked out by hand."""

from math import exp, log

import pytest
from circuit_play import circuit_of, edited

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
