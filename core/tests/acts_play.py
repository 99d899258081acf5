"""Plays worked scenarios of entries: a history, then events in the order they arrive."""

import json
from dataclasses import replace
from functools import cache
from pathlib import Path

from evencoil.acts import Entry, Log, Row, Rules, Source, Stage, Wire, Work, receive


@cache
def cases():
    """Return the worked scenarios."""
    return json.loads((Path(__file__).parent / "cases/acts.json").read_text("utf-8"))


def work_of(setup):
    """Return what entries can be about, of a scenario's setup."""
    net, rules = setup["netlist"], setup["rules"]
    return Work(
        sources={
            name: Source(
                kind=one["kind"],
                isolator=one["isolator"],
                points=tuple(one["points"]),
                wait_s=one["wait_s"],
            )
            for name, one in net["sources"].items()
        },
        wires={
            name: Wire(ends=tuple(one["ends"]), scope=one["scope"])
            for name, one in net["wires"].items()
        },
        rows={
            name: Row(wires=tuple(one["wires"]), least=one["min"], most=one["max"])
            for name, one in net["rows"].items()
        },
        items=tuple(setup["dead_items"]),
        expect=setup["expect"],
        stages={
            name: Stage(
                live=tuple(one["live"]), scope=tuple(one["scope"]), needs=tuple(one["needs"])
            )
            for name, one in setup["stages"].items()
        },
        rules=Rules(
            dead_limit_v=rules["dead_limit_v"],
            two_person=frozenset(rules["two_person"]),
            torque=frozenset(rules["torque"]),
            two_sign=rules["two_sign"],
            has_license=rules["license"],
            is_rehearsed=rules["rehearsed"],
        ),
    )


class Play:
    """A job's log while a scenario is played."""

    def __init__(self, setup):
        self.roles = dict(setup["people"])
        self.log = Log([work_of(setup)])
        self.answers = {}

    def event(self, told):
        """Take one event: an entry, or one of the server's own."""
        if told.get("event") == "netlist":
            self.redraw(told)
        elif told.get("event") == "role":
            self.roles[told["person"]] = told["role"]
        elif "event" not in told:
            self.answers.setdefault(told["id"], []).append(receive(self.log, self.entry(told)))

    def redraw(self, told):
        """Move ends, remove or add wires: the next revision."""
        work = self.log.work
        wires = dict(work.wires)
        for name, ends in told.get("move", {}).items():
            wires[name] = replace(wires[name], ends=tuple(ends))
        for name in told.get("remove", ()):
            wires.pop(name, None)
        rows = {
            name: replace(row, wires=tuple(one for one in row.wires if one in wires))
            for name, row in work.rows.items()
        }
        self.log.works.append(replace(work, wires=wires, rows=rows))

    def entry(self, told):
        """Return an entry with the role of its person now."""
        return Entry(
            id=told["id"],
            kind=told["kind"],
            by=told["by"],
            role=self.roles[told["by"]],
            device=told["device"],
            rev=told["rev"],
            about=told["about"],
            body=told["body"],
            based_on=tuple(told["based_on"]),
            at=told.get("at", ""),
            received_at=told.get("received_at", ""),
            clock_off_s=told.get("clock_off_s", 0),
            is_online=told.get("online", False),
        )


def played(scenario):
    """Return the play of a whole scenario."""
    told = cases()
    play = Play(told["setups"][scenario.get("setup", "ic2")])
    for event in told["histories"].get(scenario.get("start"), ()):
        play.event(event)
    play.answers.clear()
    for event in scenario["events"]:
        play.event(event)
    return play
