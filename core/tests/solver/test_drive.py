"""A drive: ramps, volts by frequency, bus, limit, overload, inputs, faults.

Expected values are by hand from the settings: 5 s to 60 Hz are 12 Hz a second; volts in
proportion to the frequency with 2 % added at rest; the overload is a thermal image of 214 s
that trips at 1.15 times its setting.
"""

from math import exp, log, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.circuit import read_circuit
from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run

POWER = """
SUP.L1 - QF1.1 ; SUP.L2 - QF1.3 ; SUP.L3 - QF1.5
QF1.2 - DR1.L1 ; QF1.4 - DR1.L2 ; QF1.6 - DR1.L3
DR1.U - M1.U1 ; DR1.V - M1.V1 ; DR1.W - M1.W1
"""
CONTROL = """
31: DR1.+ - SS1.13 ; SS1.13 - SS1.23 ; SS1.23 - SS2.13
32: SS1.14 - DR1.FWD
33: SS1.24 - DR1.REV
34: SS2.14 - DR1.ENA
"""


class Bench:
    """A drive behind a breaker, a selector for each way and one for its permission."""

    def __init__(self, settings="", power=POWER):
        self.circuit = read_circuit(
            f"""
            SUP supply supply v=480
            QF1 breaker cb3 mag=900
            DR1 drive drive iset=10 {settings}
            SS1 way sel pos=FWD,OFF,REV init=OFF c=13-14:FWD,23-24:REV
            SS2 permit sel pos=OFF,ON init=ON c=13-14:ON
            M1 motor motor3
            """,
            power,
            CONTROL,
        )
        self.run = Run(compile_plant(self.circuit.netlist))
        self.drive = self.run.plant.part_of["drive"]
        self.motor = self.run.plant.part_of["motor"]

    def do(self, at_s, verb, on="", word=""):
        """Do something at a time."""
        self.run.act(Action(round(at_s * 1e6), verb, on, word))
        return self

    def to(self, at_s):
        """Go to a time."""
        self.run.advance(round(at_s * 1e6))
        self.run.look(round(at_s * 1e6))
        return self

    def running(self, at_s=0.0):
        """Run forward at the speed that is set, from two seconds on."""
        self.do(at_s, "close", "breaker").do(at_s + 2, "turn", "way", "FWD")
        return self.to(at_s + 8)

    @property
    def faults(self):
        """Return every fault that was told."""
        return [one.value for one in self.run.events if one.aspect == "fault"]


def test_it_ramps_by_its_settings():
    """12 Hz a second up to 60 Hz; down again along the ramp, then off."""
    bench = Bench().do(0, "close", "breaker").do(2, "turn", "way", "FWD")
    bench.to(3.01)
    assert bench.drive.hz == pytest.approx(12, abs=0.5)
    bench.to(8)
    assert bench.drive.hz == 60
    bench.do(8, "turn", "way", "OFF").to(10.01)
    assert bench.drive.hz == pytest.approx(36, abs=0.5)
    assert bench.drive.word(bench.run) == "run"
    bench.to(14)
    assert (bench.drive.hz, bench.drive.word(bench.run)) == (0, "ready")


@pytest.mark.parametrize(
    ("settings", "hz", "volts"),
    [
        ("", 60, 480),
        # 30 of 60 Hz is half of it, and half of the 2 % that are added at rest
        ("", 30, 480 * 0.51),
        ("boost=0", 30, 240),
        ("base=50", 25, 480 * 0.51),
        # above the base frequency the volts stay and the flux goes down
        ("", 90, 480),
    ],
)
def test_volts_follow_the_frequency(settings, hz, volts):
    """V/f up to the base."""
    bench = Bench(settings).do(0, "close", "breaker").do(0.5, "dial", "drive", str(hz))
    bench.do(2, "turn", "way", "FWD").to(12)
    assert bench.drive.hz == hz
    assert bench.drive.volts_out() == pytest.approx(volts, rel=1e-3)
    assert bench.motor.now(bench.run.time) == pytest.approx(hz / bench.drive.base_hz, abs=0.01)


@given(st.floats(0.7, 1.3), st.integers(1, 120))
def test_it_never_gives_out_more_than_comes_in(sag, hz):
    """Whatever the lines are, and the speed."""
    bench = Bench().do(0, "close", "breaker").do(0.1, "sag", "supply", str(sag))
    bench.do(0.5, "dial", "drive", str(hz)).do(2, "turn", "way", "FWD").to(14)
    assert bench.drive.volts_out() <= min(480, 480 * sag) * 1.001


def test_lines_exchanged_ahead_change_nothing_and_leads_behind_do():
    """Direction is made by the drive: two lines exchanged at its input do not turn it."""
    bench = Bench().do(0, "swaplines", "supply").running()
    assert bench.motor.word(bench.run) == "fwd"
    crossed = POWER.replace("DR1.U - M1.U1 ; DR1.V - M1.V1", "DR1.U - M1.V1 ; DR1.V - M1.U1")
    assert Bench(power=crossed).running().motor.word(Bench().run) != "fwd"
    behind = Bench(power=crossed).running()
    assert behind.motor.word(behind.run) == "rev"


def test_from_one_way_to_the_other_it_goes_through_rest():
    """Five seconds down and five up; no torque against its motion on the way."""
    bench = Bench().running().do(8, "turn", "way", "REV")
    bench.to(11)
    assert bench.drive.hz == pytest.approx(24, abs=0.5)
    bench.to(19)
    assert bench.drive.hz == -60
    assert bench.motor.word(bench.run) == "rev"
    acts = [
        ScenarioAct(at_us=round(at * 1e6), do=do, on=on, word=word)
        for at, do, on, word in (
            (0, "close", "breaker", ""),
            (2, "turn", "way", "FWD"),
            (8, "turn", "way", "REV"),
            (20, "turn", "way", "OFF"),
        )
    ]
    assert Stage(bench.circuit).play(acts, until_us=30_000_000).hazards == ()


def test_its_overload_is_a_thermal_image():
    """From rated load long held to 1.5 times it: 214 s times ln(1.25 / 0.9275)."""
    bench = Bench("cooling=separate").running().to(4000)
    bench.do(4000, "load", "motor", "1.5")
    wanted = 214 * log((1.5**2 - 1) / (1.5**2 - 1.3225))
    bench.to(4000 + wanted * 0.985)
    assert bench.faults == []
    bench.to(4000 + wanted * 1.02)
    assert bench.faults == ["overload"]
    assert bench.drive.word(bench.run) == "fault"


def test_a_motor_with_its_own_fan_carries_less_at_low_speed():
    """At 10 of 60 Hz it is allowed two thirds; another fan, all of it."""
    slow = Bench("hz=10").running()
    # (1 / (2/3)) squared is 2.25
    assert slow.drive._load() == pytest.approx(2.25, rel=0.03)
    assert slow.to(400).faults == ["overload"]
    assert Bench("hz=10 cooling=separate").running().to(400).faults == []


def test_the_bus_runs_down_by_its_label():
    """480 V lines charge it to 679 V; by the five minutes of its label it is at 50 V."""
    bench = Bench().running().do(8, "open", "breaker")
    assert bench.drive.bus_now(8_000_000) == pytest.approx(480 * sqrt(2), rel=0.01)
    bench.to(9)
    lost = bench.drive.bus_since
    tau = 300 / log(480 * sqrt(2) / 50)
    assert bench.drive.bus_now(lost + 60_000_000) == pytest.approx(
        480 * sqrt(2) * exp(-60 / tau), rel=0.01
    )
    assert bench.drive.bus_now(lost + 300_000_000) == pytest.approx(50, rel=0.02)


@pytest.mark.parametrize(
    ("settings", "hz"),
    # set to wait it wants its input off and on again; set to restart it runs
    [("", 0), ("restart=1", 60)],
)
def test_power_back_with_its_input_on(settings, hz):
    """Until the machine is at rest without lines; then asked anew it runs either way."""
    bench = Bench(settings).running().do(8, "off", "supply").do(24, "on", "supply").to(34)
    assert bench.drive.hz == hz
    bench.do(34, "turn", "way", "OFF").do(42, "turn", "way", "FWD").to(50)
    assert bench.drive.hz == 60


def test_a_machine_that_still_turns_is_not_caught():
    """Set to restart and given its lines back after two seconds it trips on the current."""
    bench = Bench("restart=1").running().do(8, "off", "supply").do(10, "on", "supply").to(20)
    assert bench.faults == ["overcurrent"]


def test_permission_taken_away_coasts_and_does_not_come_back_by_itself():
    """ENA off: no volts at once; on again: nothing until the input was off."""
    bench = Bench().running().do(8, "turn", "permit", "OFF").to(8.1)
    assert bench.drive.hz == 0
    assert bench.motor.word(bench.run) == "coast"
    bench.do(9, "turn", "permit", "ON").to(15)
    assert bench.drive.hz == 0


def test_both_ways_asked_at_once_is_neither():
    """FWD and REV together."""
    circuit = CONTROL.replace("33: SS1.24 - DR1.REV", "33: SS1.14 - DR1.REV")
    bench = Bench()
    bench.circuit = read_circuit(
        "SUP supply supply v=480\nQF1 breaker cb3 mag=900\nDR1 drive drive\n"
        "SS1 way sel pos=FWD,OFF,REV init=OFF c=13-14:FWD,23-24:REV\n"
        "SS2 permit sel pos=OFF,ON init=ON c=13-14:ON\nM1 motor motor3",
        POWER,
        circuit,
    )
    bench.run = Run(compile_plant(bench.circuit.netlist))
    bench.drive = bench.run.plant.part_of["drive"]
    assert bench.running().drive.hz == 0


def test_a_jammed_machine_trips_it():
    """Six times the current is above what it lets through at all: twice its rated amps."""
    bench = Bench().running().do(8, "jam", "motor").to(9)
    assert bench.faults == ["overcurrent"]


def test_a_lost_line_trips_it_while_it_runs_only():
    """Ready it stays ready; running it trips."""
    assert Bench().do(0, "close", "breaker").do(2, "lose", "supply", "L2").to(3).faults == []
    assert Bench().running().do(8, "lose", "supply", "L2").to(9).faults == ["line_lost"]


def test_a_short_gap_is_ridden_through():
    """Ten milliseconds without lines; forty are too long."""
    short = Bench().running().do(8, "off", "supply").do(8.01, "on", "supply").to(9)
    assert short.drive.hz == 60
    long = Bench().running().do(8, "off", "supply").do(8.04, "on", "supply").to(9)
    assert long.drive.hz == 0


SWITCHED = """
SUP.L1 - QF1.1 ; SUP.L2 - QF1.3 ; SUP.L3 - QF1.5
QF1.2 - DR1.L1 ; QF1.4 - DR1.L2 ; QF1.6 - DR1.L3
DR1.U - QS1.1 ; DR1.V - QS1.3 ; DR1.W - QS1.5
QS1.2 - M1.U1 ; QS1.4 - M1.V1 ; QS1.6 - M1.W1
"""


def test_a_switch_behind_it_that_opens_or_closes_while_it_runs():
    """Opened it draws an arc: a hazard; closed again on a motor at rest the drive trips."""
    circuit = read_circuit(
        "SUP supply supply v=480\nQF1 breaker cb3 mag=900\nDR1 drive drive\n"
        "SS1 way sel pos=FWD,OFF,REV init=OFF c=13-14:FWD,23-24:REV\n"
        "SS2 permit sel pos=OFF,ON init=ON c=13-14:ON\nQS1 local isolator\nM1 motor motor3",
        SWITCHED,
        CONTROL,
    )
    acts = [
        ScenarioAct(at_us=round(at * 1e6), do=do, on=on, word=word)
        for at, do, on, word in (
            (0, "close", "breaker", ""),
            (2, "turn", "way", "FWD"),
            (8, "open", "local", ""),
            (25, "close", "local", ""),
        )
    ]
    trace = Stage(circuit).play(acts, until_us=28_000_000)
    codes = [one.code for one in trace.hazards]
    assert "switched_behind_drive" in codes
    faults = [(one.time / 1e6, one.value) for one in trace.events if one.aspect == "fault"]
    assert [value for _, value in faults] == ["overcurrent"]
    assert faults[0][0] == pytest.approx(25, abs=0.1)


def test_its_draw_follows_its_output():
    """At half speed about half the power comes out of the lines, at any speed the same amps go out."""
    full, half = Bench().running(), Bench("hz=30").running()
    assert half.drive.amps == pytest.approx(full.drive.amps, rel=0.02)
    assert half.drive.out_w == pytest.approx(full.drive.out_w * 0.51, rel=0.03)
    assert half.drive.draw == pytest.approx(full.drive.draw * 0.51, rel=0.1)


def test_its_output_is_live_as_long_as_it_runs():
    """Also at one hertz, where the basic wave is a few volts: the pulses are those of the bus."""
    bench = Bench("hz=1").do(0, "close", "breaker").to(1.9)
    assert not bench.run.is_live("motor.U1")
    bench.do(2, "turn", "way", "FWD").to(6)
    assert bench.drive.hz == 1
    assert bench.drive.volts_out() < 50
    assert bench.run.is_live("motor.U1")
    assert bench.run.is_live("drive.V")
    bench.do(6, "turn", "way", "OFF").to(9)
    assert not bench.run.is_live("motor.U1")
