"""Rolling the leads, the turn before and after, vibration: each by hand."""

from dataclasses import replace

import pytest
from acts_play import Play, cases

from evencoil.acts import Entry, Log, Stage, receive, rolled_leads, state_of, turns_as_before


class Panel:
    """The conveyor with nothing to land: power on, results, power off, one entry after another."""

    def __init__(self, **stages):
        work = Play(cases()["setups"]["ic2"]).log.work
        self.log = Log(
            [
                replace(
                    work,
                    sources={"main": work.sources["main"]},
                    wires={},
                    rows={},
                    items=(),
                    expect={"vibration": {"unit": "mm/s", "min": "0", "max": "4.5"}},
                    stages={
                        name: Stage(live=("q3",), scope=("power",), needs=needs)
                        for name, needs in stages.items()
                    },
                )
            ]
        )
        self.count = 0

    def do(self, kind, about=None, body=None):
        """Make one entry that has seen all before it."""
        self.count += 1
        name = f"e{self.count}"
        entry = Entry(
            id=name,
            kind=kind,
            by="mq",
            role="electrician",
            device="t",
            rev=1,
            about=about or {},
            body=body or {},
            based_on=tuple(self.log.heads()),
        )
        assert receive(self.log, entry).startswith("kept"), kind
        return name

    def run(self, stage, *amps):
        """Open a stage, read three lines, close it."""
        self.do("covers_on")
        self.do("people_clear", body={"locks_left": "0"})
        opened = self.do("stage_opened", {"stage": stage})
        for line, value in zip(("L1", "L2", "L3"), amps, strict=True):
            self.do("amps", {"opened": opened, "at": line}, {"value": value, "unit": "A"})
        self.do("stage_closed", {"opened": opened}, {"result": "ok"})

    def roll(self):
        """Move every line on by one lead."""
        self.do("swap_done", {"wires": ["w1"]}, {"roll": True})


@pytest.mark.parametrize(
    ("before", "after", "why"),
    [
        # L2 is high, and stays high whatever lead it feeds
        (("20", "26", "20"), ("20", "26", "20"), "supply"),
        # lead 2 is high: after the roll line L1 feeds it
        (("20", "26", "20"), ("26", "20", "20"), "motor"),
        # a low one is told as well as a high one: lead 1, then fed by L3
        (("14", "20", "20"), ("20", "20", "14"), "motor"),
        # it went the way that the leads did not
        (("20", "26", "20"), ("20", "20", "26"), "unclear"),
        # high before, low after: not one cause
        (("20", "26", "20"), ("20", "14", "20"), "unclear"),
        # taken apart and joined again, it is gone
        (("20", "26", "20"), ("21", "22", "21"), "gone"),
    ],
)
def test_what_stays_with_the_line_is_the_supply(before, after, why):
    """Lines to the next lead: lead 2 is fed by L1 then, lead 1 by L3."""
    panel = Panel(unloaded=())
    panel.run("unloaded", *before)
    panel.roll()
    panel.run("unloaded", *after)
    assert rolled_leads(panel.log.now()).why == why


def test_without_a_roll_or_a_second_reading_nothing_is_told():
    """Nor from two stages: amps without load and with it are no pair."""
    panel = Panel(unloaded=(), loaded=())
    panel.run("unloaded", "20", "26", "20")
    assert rolled_leads(panel.log.now()) is None
    panel.roll()
    assert rolled_leads(panel.log.now()) is None
    panel.run("loaded", "26", "20", "20")
    assert rolled_leads(panel.log.now()) is None


def test_two_rolls_are_two_steps():
    """Lead 2 is fed by L1 after one roll, by L3 after two."""
    panel = Panel(unloaded=())
    panel.run("unloaded", "20", "26", "20")
    panel.roll()
    panel.roll()
    panel.run("unloaded", "20", "20", "26")
    assert rolled_leads(panel.log.now()).why == "motor"


def bumped(before, turn, seen_from, **more):
    """Bump a motor of which it was noted how it ran; tell whether it turns as before, and passed."""
    panel = Panel(bump=("bump_result",))
    if before:
        turned, end = before
        panel.do("note", body={"ran_before": True, "turn": turned, "viewpoint": end})
    panel.do("covers_on")
    panel.do("people_clear", body={"locks_left": "0"})
    opened = panel.do("stage_opened", {"stage": "bump"})
    body = {"turn": turn, "wanted": turn, "coupled": False, "viewpoint": seen_from, **more}
    panel.do("bump_result", {"opened": opened}, body)
    panel.do("stage_closed", {"opened": opened}, {"result": "ok"})
    view = panel.log.now()
    return turns_as_before(view, view.of("bump_result")[0]), state_of(panel.log).stages["bump"]


@pytest.mark.parametrize(
    ("before", "turn", "seen_from", "same"),
    [
        (("clockwise", "shaft end"), "clockwise", "shaft end", True),
        (("clockwise", "shaft end"), "counterclockwise", "shaft end", False),
        # seen from the other end, the same shaft turns the other way
        (("clockwise", "shaft end"), "counterclockwise", "opposite end", True),
        (("clockwise", "shaft end"), "clockwise", "opposite end", False),
        (None, "clockwise", "shaft end", None),
    ],
)
def test_a_replaced_motor_turns_as_before(before, turn, seen_from, same):
    """Another turn than before does not pass, though it was entered as the wanted one."""
    told, state = bumped(before, turn, seen_from)
    assert told is same
    assert state == ("wrong" if same is False else "ok")


def test_another_turn_passes_with_its_reason():
    """The machine was rebuilt: that is said, and kept."""
    why = "New gearbox turns the screw the other way."
    before = ("clockwise", "shaft end")
    assert bumped(before, "counterclockwise", "shaft end", why=why) == (False, "ok")


@pytest.mark.parametrize(
    ("body", "state"),
    [
        ({"ok": True, "mm_s": "4.5"}, "ok"),
        ({"ok": True, "mm_s": "4.6"}, "wrong"),
        ({"ok": True, "how": "by hand on the fixed frame"}, "ok"),
        ({"ok": False, "how": "by hand on the fixed frame"}, "wrong"),
    ],
)
def test_vibration_by_instrument_has_a_limit(body, state):
    """By hand it is a person's judgment; an instrument's figure is held against 4.5 mm/s."""
    panel = Panel(loaded=("vibration@frame",))
    panel.do("covers_on")
    panel.do("people_clear", body={"locks_left": "0"})
    opened = panel.do("stage_opened", {"stage": "loaded"})
    panel.do("vibration", {"opened": opened, "at": "frame"}, body)
    panel.do("stage_closed", {"opened": opened}, {"result": "ok"})
    assert state_of(panel.log).stages["loaded"] == state
