"""Protective devices with their settings: phase monitor, ground-fault relay, elements."""

import pytest

from evencoil.circuit import read_circuit
from evencoil.sensors import ohms_of
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run

LINES = "SUP.L1 - PM1.L1 ; SUP.L2 - PM1.L2 ; SUP.L3 - PM1.L3"


class Bench:
    """A run of a small circuit."""

    def __init__(self, devices, power, control=""):
        self.circuit = read_circuit(devices, power, control)
        self.run = Run(compile_plant(self.circuit.netlist))

    def do(self, at_s, verb, on="", word=""):
        """Do something at a time."""
        self.run.act(Action(round(at_s * 1e6), verb, on, word))
        return self

    def closed(self, at_s, device, link="11-14"):
        """Tell whether a contact is closed at a time."""
        self.run.advance(round(at_s * 1e6))
        self.run.look(round(at_s * 1e6))
        return self.run.plant.part_of[device].is_closed(self.run, link)


def monitor(settings=""):
    """Return a phase monitor on a 480 V supply."""
    return Bench(f"SUP supply supply v=480\nPM1 monitor phasemon v=480 {settings}", LINES)


@pytest.mark.parametrize(
    ("settings", "sag", "is_closed"),
    [
        ("", "0.86", True),
        ("", "0.84", False),
        ("under=90", "0.88", False),
        ("under=70", "0.75", True),
        # above is watched only where it is set
        ("", "1.2", True),
        ("over=110", "1.2", False),
        ("over=110", "1.05", True),
    ],
)
def test_under_and_over_volts(settings, sag, is_closed):
    """By its settings in percent of rated volts."""
    bench = monitor(settings)
    assert bench.closed(1, "monitor")
    assert bench.do(1, "sag", "supply", sag).closed(3, "monitor") is is_closed


@pytest.mark.parametrize(("settings", "is_closed"), [("", False), ("order=0", True)])
def test_sequence_is_watched_or_not(settings, is_closed):
    """Two lines exchanged."""
    bench = monitor(settings).do(0.1, "swaplines", "supply")
    assert bench.closed(2, "monitor") is is_closed


def test_a_lost_line_trips_after_its_delay():
    """Half a second as set: just before it holds, just after it is out; back after two."""
    bench = monitor("trip_s=0.5 close_s=2")
    assert not bench.closed(1.9, "monitor")
    assert bench.closed(2.1, "monitor")
    bench.do(3, "lose", "supply", "L2")
    assert bench.closed(3.45, "monitor")
    assert not bench.closed(3.55, "monitor")
    bench.do(4, "restore", "supply", "L2")
    assert not bench.closed(5.9, "monitor")
    assert bench.closed(6.1, "monitor")


def ground(settings):
    """Return a motor behind a breaker with a ground-fault relay around its conductors."""
    return Bench(
        f"""
        SUP supply supply v=480
        QF1 breaker cb3 mag=100000
        CS1 control source
        FR1 leak gfr around=breaker {settings}
        M1 motor motor3
        """,
        """
        SUP.L1 - QF1.1 ; SUP.L2 - QF1.3 ; SUP.L3 - QF1.5
        QF1.2 - M1.U1 ; QF1.4 - M1.V1 ; QF1.6 - M1.W1 ; SUP.PE - M1.PE
        """,
        "1: CS1.L - FR1.A1\n2: CS1.N - FR1.A2",
    ).do(0, "close", "breaker")


def test_what_does_not_come_back_trips_it():
    """Start and run sum to nothing; a lead on ground does not, and it stays tripped until reset."""
    bench = ground("a=5 t=0.2")
    assert bench.closed(3, "leak")
    assert bench.run.plant.part_of["leak"].leaks(bench.run) < 0.01
    bench.do(3, "ground", "motor.U1")
    assert bench.closed(3.19, "leak")
    assert not bench.closed(3.25, "leak")
    bench.do(4, "unground", "motor.U1")
    assert not bench.closed(5, "leak")
    bench.do(5, "reset", "leak")
    assert bench.closed(5.5, "leak")


def test_a_lost_line_is_no_ground_fault():
    """Two lines carry the same there and back."""
    bench = ground("a=5").do(2, "lose", "supply", "L1")
    assert bench.closed(4, "leak")


def test_its_test_button_and_its_supply():
    """Pressed it trips; without its own supply it is out as well."""
    assert not ground("").do(2, "trip", "leak").closed(3, "leak")
    assert not ground("").do(2, "off", "control").closed(3, "leak")


@pytest.mark.parametrize("element", ["Pt100", "Pt1000", "Ni120", "Cu10"])
def test_an_element_and_its_monitor_are_of_one_kind(element):
    """At 150 C it trips by its set point; a monitor set for another element takes it for broken."""

    def bench(own):
        return Bench(
            f"""
            CS1 control source
            RT1 sensor rtd element={element}
            RM1 watch rtdmon element={own} alarm=130 trip=145
            M1 motor motor3
            """,
            "",
            "1: CS1.L - RM1.A1\n2: CS1.N - RM1.A2\n3: RT1.R1 - RM1.T1\n"
            "4: RT1.R2 - RM1.T2\n5: RT1.R3 - RM1.T3",
        )

    good = bench(element)
    assert good.closed(1, "watch", "21-24")
    assert good.do(1, "temp", "motor", "150").closed(3, "watch", "21-24") is False
    other = "Ni120" if element == "Pt1000" else "Pt1000"
    assert ohms_of(other, 30) != ohms_of(element, 30)
    assert bench(other).closed(1, "watch", "21-24") is False
