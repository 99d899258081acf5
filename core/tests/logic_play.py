"""Plays a worked case of the relay: acts, a small plant around it, and what is expected when."""

import json
from functools import cache
from pathlib import Path

from evencoil.logic import Points, Relay, RelayTimes, read_program

_CASES = Path(__file__).parent / "cases" / "logic.json"


@cache
def cases():
    """Return the worked cases."""
    return json.loads(_CASES.read_text(encoding="utf-8"))["cases"]


def of_class(*names):
    """Return the cases of some classes."""
    return [one for one in cases() if one["class"] in names]


def points_of(case):
    """Return the points of a case's relay."""
    told = case.get("device", {})
    return Points(
        inputs=told.get("in", 8), outputs=told.get("out", 4), analog=told.get("analog", 2)
    )


class Plant:
    """Signals, contactors and lamps as boolean terms of each other."""

    IN_MS, OUT_MS = 20, 15

    def __init__(self, told):
        self.signals = dict(told.get("signals", {}))
        self.inputs = told.get("inputs", {})
        self.coils = {name: one["coil"] for name, one in told.get("contactors", {}).items()}
        self.lamps = told.get("lamps", {})
        self.state = dict.fromkeys(self.coils, False)
        self.under_way = {}
        self.welded, self.blocked = set(), set()

    def term(self, text, relay):
        """Return what a boolean term is worth now."""
        names = {"SUP": relay.is_on, **self.signals, **self.state}
        names |= {name: relay.is_closed(name) for name in relay.contacts}
        assert " OR " not in text
        return all(
            not names[part[4:]] if part.startswith("NOT ") else bool(names[part])
            for part in text.split(" AND ")
        )

    def settle(self, now, relay):
        """Move what is due, then send contactors where their coils say, and tell the inputs."""
        for name in [name for name, (when, _) in self.under_way.items() if when <= now]:
            self.state[name] = self.under_way.pop(name)[1]
        for name, text in self.coils.items():
            wanted = self.term(text, relay)
            if name in self.welded:
                wanted = True
            if name in self.blocked and wanted and not self.state[name]:
                continue
            if self.under_way.get(name, (0, self.state[name]))[1] == wanted:
                continue
            if self.state[name] == wanted:
                self.under_way.pop(name, None)
                continue
            self.under_way[name] = (now + (self.IN_MS if wanted else self.OUT_MS), wanted)
        for name, text in self.inputs.items():
            relay.level(now, name, self.term(text, relay))

    def due(self):
        """Return when the next contactor moves."""
        return min((when for when, _ in self.under_way.values()), default=None)


def act(relay, plant, one, now):
    """Do what a case does from outside."""
    for name, value in one.get("set", {}).items():
        if name in plant.signals:
            plant.signals[name] = value
        elif name in plant.inputs:
            raise AssertionError(f"{name} follows from the plant")
        else:
            relay.level(now, name, value if name.startswith("AI") else bool(value))
    if "supply" in one:
        relay.power(now, is_on=one["supply"])
    for name, value in one.get("stuck", {}).items():
        relay.stuck[name] = bool(value)
    plant.welded |= set(one.get("weld", []))
    plant.blocked |= set(one.get("block", []))


def seen(relay, plant, name):
    """Return what a name of an expectation shows."""
    if name == "fault":
        return None if relay.machine.fault is None else relay.machine.fault.what
    if name == "fault.line":
        return relay.machine.fault.line
    if name.startswith("c."):
        return relay.is_closed(name[2:])
    if name in plant.state:
        return plant.state[name]
    if name in plant.lamps:
        return plant.term(plant.lamps[name], relay)
    return relay.machine.value(name)


def relay_of(case, checked=None):
    """Return the relay of a case, without supply."""
    told = case.get("device", {})
    times = RelayTimes(
        boot=told.get("boot", 0),
        scan=told.get("scan", 10),
        filter=told.get("filter", 0),
        on=told.get("on", 0),
        off=told.get("off", 0),
        drop=told.get("drop", 8),
    )
    return Relay(checked or read_program(case["program"], points_of(case)), times)


def play(case, checked=None):
    """Run a case, and return everything in it that is not as expected."""
    relay, plant = relay_of(case, checked), Plant(case.get("plant", {}))
    acts, expected = case.get("acts", []), case["expect"]
    end = max([one.get("t", one.get("to", 0)) for one in expected], default=0)
    instants = {one["t"] for one in [*acts, *expected] if "t" in one}
    shown, wrong, now = {}, [], 0
    relay.power(0, is_on=True)
    while now <= end:
        relay.contacts_due(now)
        plant.settle(now, relay)
        for one in acts:
            if one["t"] == now:
                act(relay, plant, one, now)
        plant.settle(now, relay)
        relay.work(now)
        relay.contacts_due(now)
        plant.settle(now, relay)
        wrong += compared(relay, plant, expected, now, shown)
        following = [when for when in (relay.due(), plant.due(), *instants) if when is not None]
        now = min((when for when in following if when > now), default=end + 1)
    wrong += [
        (one["from"], one["to"], name, value)
        for one in expected
        for name, value in one.get("seen", {}).items()
        if shown.get((one["from"], one["to"], name), False) != value
    ]
    return wrong


def compared(relay, plant, expected, now, shown):
    """Return what is not as expected at an instant; note what was seen on."""
    for one in expected:
        for name in one.get("seen", {}):
            if one["from"] <= now <= one["to"]:
                key = (one["from"], one["to"], name)
                shown[key] = shown.get(key, False) or bool(seen(relay, plant, name))
    return [
        (now, name, value, seen(relay, plant, name))
        for one in expected
        if one.get("t") == now
        for name, value in one.items()
        if name != "t" and seen(relay, plant, name) != value
    ]
