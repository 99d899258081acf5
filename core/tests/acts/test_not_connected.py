"""A panel that is not connected to a source yet, and torque held against the label."""

from dataclasses import replace

import pytest
from acts_play import Play, cases

from evencoil.acts import Entry, Log, receive, state_of, torque_is_done

GOOD = {"meter": "m1", "value": "479", "unit": "V", "min": "414", "max": "506"}


class Panel:
    """One device at the conveyor's panel, with one source."""

    def __init__(self, role="electrician"):
        work = Play(cases()["setups"]["ic2"]).log.work
        self.log = Log([replace(work, sources={"main": work.sources["main"]}, expect={})])
        self.role, self.count = role, 0

    def do(self, kind, about=None, body=None):
        """Make an entry that has seen everything, and return its answer."""
        self.count += 1
        return receive(
            self.log,
            Entry(
                id=f"e{self.count}",
                kind=kind,
                by="mq",
                role=self.role,
                device="t",
                rev=1,
                about=about or {},
                body=body or {},
                based_on=tuple(self.log.heads()),
            ),
        )

    def prove(self):
        """Read every point of the source dead."""
        self.do("meter_live", {"round": "A"}, {**GOOD, "phase": "before"})
        for point in self.log.work.sources["main"].points:
            body = {"meter": "m1", "value": "0", "unit": "V", "waited_s": "0"}
            self.do("dead_point", {"round": "A", "point": point}, body)
        self.do("meter_live", {"round": "A"}, {**GOOD, "phase": "after"})


def test_hands_go_in_until_it_is_connected():
    """Recorded by an electrician and read dead; the moment it is connected nothing is proven."""
    panel = Panel()
    assert panel.do("lock_on", {"isolator": "q3"}, {"place": "not_connected"}) == "kept"
    assert state_of(panel.log).hands == ()
    panel.prove()
    assert state_of(panel.log).hands == ("mq",)
    assert panel.do("lock_off", {"locks": ["e1"]}) == "kept"
    assert state_of(panel.log).hands == ()
    assert state_of(panel.log).state == "not_locked"


def test_an_apprentice_does_not_say_that_nothing_is_connected():
    """He may hang a lock, not do without one."""
    panel = Panel("apprentice")
    assert panel.do("lock_on", {"isolator": "q3"}, {"place": "not_connected"}) == "refused:role"
    assert panel.do("lock_on", {"isolator": "q3"}, {"place": "isolator"}) == "kept"


@pytest.mark.parametrize(
    ("value", "is_done"),
    [("18", True), ("20", True), ("22", True), ("17.9", False), ("22.1", False)],
)
def test_torque_is_held_within_a_tenth_of_the_label(value, is_done):
    """The label asks 20 in-lb: 18 to 22 count."""
    panel = Panel()
    panel.do("lock_on", {"isolator": "q3"}, {"place": "isolator"})
    panel.prove()
    ends = list(panel.log.work.wires["w1"].ends)
    panel.do("landed", {"wire": "w1", "ends": ends}, {"ok": True})
    body = {"value": value, "target": "20", "unit": "in-lb", "tool": "T"}
    assert panel.do("torqued", {"wire": "w1"}, body) == "kept"
    assert torque_is_done(panel.log.now(), "w1") is is_done
