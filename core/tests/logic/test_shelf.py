"""Every checked program does what it says, and nothing by itself; times by hand."""

import pytest

from evencoil.logic import Relay, RelayTimes, advice_of, checked_programs, edge_inputs, read_program

TIMES = RelayTimes(boot=0, scan=10, filter=0, on=0, off=0, drop=8)
PROGRAMS = {one.id: one for one in checked_programs()}


class Panel:
    """A program with its inputs by hand; what is asked for comes in at once unless it is held."""

    def __init__(self, name, **feedback):
        self.relay = Relay(read_program(PROGRAMS[name].text), TIMES)
        self.feedback = feedback
        self.dead = set()
        self.now = 0
        self.relay.power(0, is_on=True)

    def run(self, seconds, **inputs):
        """Set inputs, let time pass, and return the outputs that are on."""
        for name, value in inputs.items():
            self.relay.level(self.now, name, bool(value))
        until = self.now + round(seconds * 1000)
        while self.now < until:
            self.relay.work(self.now)
            self.relay.contacts_due(self.now)
            for output, point in self.feedback.items():
                is_in = self.relay.is_closed(output) and output not in self.dead
                self.relay.level(self.now, point, is_in)
            self.now += 10
        return {name for name, value in self.relay.contacts.items() if value}


@pytest.mark.parametrize("name", PROGRAMS)
def test_nothing_is_doubtful_in_it(name):
    """No edge that starts by a return, no name that is not used."""
    checked = read_program(PROGRAMS[name].text)
    assert advice_of(checked) == ()
    assert list(edge_inputs(checked)) == []


@pytest.mark.parametrize("name", ["three_wire", "jog", "reversing", "star_delta", "sequence"])
def test_a_start_that_is_stuck_starts_nothing_when_power_comes(name):
    """Held from the first scan; pressed anew it does."""
    point = {"jog": "I6", "reversing": "I4", "star_delta": "I6"}.get(name, "I3")
    panel = Panel(name, Q1=point)
    assert panel.run(2, I1=1, I2=1) == set()
    panel.run(0.5, I2=0)
    if name != "star_delta":
        assert panel.run(0.2, I2=1)


def test_two_wire_tells_a_feedback_both_ways():
    """Not in after half a second, and in without being asked."""
    panel = Panel("two_wire", Q1="I2")
    assert panel.run(2, I1=1) == {"Q1"}
    panel.dead = {"Q1"}
    assert panel.run(0.4) == {"Q1"}
    assert panel.run(0.3) == {"Q1", "Q2"}
    stuck = Panel("two_wire")
    assert stuck.run(0.4, I2=1) == set()
    assert stuck.run(0.3) == {"Q2"}


def test_three_wire_latches_a_fault_until_its_reset():
    """The contactor does not come: off after a second, and off until reset and started."""
    panel = Panel("three_wire", Q1="I3")
    panel.run(0.1, I1=1)
    panel.dead = {"Q1"}
    assert panel.run(0.9, I2=1) == {"Q1"}
    assert panel.run(0.3, I2=0) == {"Q2"}
    panel.dead = set()
    assert panel.run(1, I2=1) == {"Q2"}
    assert panel.run(0.1, I2=0, I4=1) == set()
    assert panel.run(0.1, I4=0, I2=1) == {"Q1"}
    assert panel.run(0.1, I1=0) == set()
    assert panel.run(0.1, I1=1) == set()


def test_a_jog_never_seals_in():
    """Let go, it stops; pressed while it runs, the run is over."""
    panel = Panel("jog")
    panel.run(0.1, I1=1)
    assert panel.run(0.2, I3=1) == {"Q1"}
    assert panel.run(0.1, I3=0) == set()
    assert panel.run(0.1, I2=1) == {"Q1"}
    panel.run(0.1, I2=0)
    panel.run(0.1, I3=1)
    assert panel.run(0.1, I3=0) == set()


def test_reversing_waits_half_a_second():
    """Never both; the other comes 0.5 s after the first is out."""
    panel = Panel("reversing", Q1="I4", Q2="I5")
    panel.run(0.1, I1=1)
    assert panel.run(1, I2=1) == {"Q1"}
    panel.run(0.1, I2=0)
    assert panel.run(0.4, I3=1) == set()
    panel.run(0.1, I3=0)
    assert panel.run(0.2) == {"Q2"}
    assert panel.run(0.1, I6=1) == set()
    assert panel.run(1, I6=0) == set()


def test_star_delta_changes_over():
    """Star before main, 8 s, a pause, delta; never star and delta."""
    panel = Panel("star_delta", Q2="I3", Q3="I4")
    panel.run(0.1, I1=1)
    assert panel.run(0.1, I2=1) == {"Q1", "Q2"}
    assert panel.run(7.5, I2=0) == {"Q1", "Q2"}
    assert panel.run(1) == {"Q1", "Q3"}
    assert panel.run(0.1, I5=1) == set()


def test_pumps_take_turns_and_stand_in():
    """The other one the second time; the lag one 5 s later; a failed one is replaced."""
    panel = Panel("lead_lag", Q1="I4", Q2="I5")
    first = panel.run(1, I1=1, I2=1)
    panel.run(1, I1=0, I2=0)
    second = panel.run(1, I1=1, I2=1)
    assert {*first, *second} == {"Q1", "Q2"}
    assert first != second
    assert panel.run(4.5, I3=1) == second
    assert panel.run(1) == {"Q1", "Q2"}
    panel.run(1, I1=0, I2=0, I3=0)
    panel.dead = set(first)
    assert panel.run(1, I1=1, I2=1) == first
    assert panel.run(2) == {*second, "Q3"}


def test_three_machines_one_after_the_other():
    """3 s apart; without the first the others go."""
    panel = Panel("sequence", Q1="I3", Q2="I4", Q3="I5")
    panel.run(0.1, I1=1)
    assert panel.run(2.8, I2=1) == {"Q1"}
    assert panel.run(3, I2=0) == {"Q1", "Q2"}
    assert panel.run(3) == {"Q1", "Q2", "Q3"}
    panel.dead = {"Q1"}
    assert panel.run(0.2) == {"Q1"}


def test_it_tries_three_times():
    """A minute between; then the lamp, until it is reset by hand."""
    panel = Panel("limited_tries", Q1="I2")
    panel.dead = {"Q1"}
    assert panel.run(0.9, I1=1) == {"Q1"}
    assert panel.run(1) == set()
    assert panel.run(60) == {"Q1"}
    panel.run(62)
    assert panel.run(62) == {"Q2"}
    assert panel.run(120) == {"Q2"}
    panel.dead = set()
    panel.run(0.1, I4=1)
    assert panel.run(70, I4=0) == {"Q1"}
