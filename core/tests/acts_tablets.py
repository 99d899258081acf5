"""Two tablets and a desk that know of each other only what they have synchronized."""

import random
from dataclasses import replace

from acts_play import Play, cases

from evencoil.acts import Entry, receive, state_of

PEOPLE = {"t1": "mq", "t2": "da", "d1": "ro"}
POINTS = ("L1-L2", "L1-G", "T1-T2", "X1-X2")


WEIGHTS = {
    "lock": 12,
    "unlock": 8,
    "prove": 22,
    "land": 24,
    "read": 12,
    "close_up": 5,
    "energize": 5,
    "trip": 3,
    "tell": 3,
    "redraw": 3,
    "correct": 3,
}


class Device:
    """One device: what it made, and what it has seen."""

    def __init__(self, name, by):
        self.name, self.by = name, by
        self.known, self.outbox, self.own = [], [], 0


class Site:
    """A server's log and its devices, driven at random."""

    def __init__(self, seed):
        self.rng = random.Random(seed)
        self.play = Play(cases()["setups"]["ic2"])
        self.log = self.play.log
        self.devices = {name: Device(name, by) for name, by in PEOPLE.items()}
        self.made, self.answers, self.arrived = [], {}, []

    def make(self, device, kind, about=None, body=None):
        """Make an entry on a device, offline."""
        device.own += 1
        entry = Entry(
            id=f"{device.name}.{device.own}",
            kind=kind,
            by=device.by,
            role=self.play.roles[device.by],
            device=device.name,
            rev=self.seen_rev(device),
            about=about or {},
            body=body or {},
            based_on=tuple(one.id for one in (*device.known, *device.outbox)),
            is_online=device.name == "d1",
        )
        device.outbox.append(entry)
        self.made.append(entry)

    def seen_rev(self, device):
        """Return the revision a device has: that of its last synchronizing."""
        return getattr(device, "rev", 1)

    def sync(self, device):
        """Send what a device made, in order, some of it twice; then learn everything."""
        for entry in device.outbox:
            for _ in range(self.rng.choice((1, 1, 1, 2))):
                answer = receive(self.log, entry)
                self.answers.setdefault(entry.id, []).append(answer)
            if self.answers[entry.id][0] != "history_missing":
                self.arrived.append(entry)
        device.outbox = []
        device.known = list(self.arrived)
        device.rev = self.log.rev

    def step(self):
        """Do one thing at random, more often what a day at the panel consists of."""
        device = self.rng.choice(list(self.devices.values()))
        if self.rng.random() < 0.25 or (device.name == "d1" and self.rng.random() < 0.6):
            self.sync(device)
            return
        self.act(device)

    def act(self, device):
        """Make one entry at random, what a day mostly consists of more often."""
        what = self.rng.choices(list(WEIGHTS), list(WEIGHTS.values()))[0]
        getattr(self, what)(device)

    def lock(self, device):
        """Lock an isolator."""
        name = self.rng.choice(("q3", "c120"))
        self.make(device, "lock_on", {"isolator": name}, {"place": "isolator", "lock_no": "1"})

    def unlock(self, device):
        """Report some lock off, one's own or not."""
        locks = [one.id for one in (*device.known, *device.outbox) if one.kind == "lock_on"]
        if locks:
            self.make(device, "lock_off", {"locks": [self.rng.choice(locks)]})

    def land(self, device):
        """Land a wire, or find that it is not."""
        wire = self.rng.choice(("w1", "w2", "w3"))
        work = self.log.works[self.seen_rev(device) - 1]
        if wire in work.wires:
            ok = self.rng.random() < 0.85
            about = {"wire": wire, "ends": list(work.wires[wire].ends)}
            self.make(device, "landed", about, {"ok": ok, "tugged": ok})

    def read(self, device):
        """Read a row, mostly as it should be."""
        row, good = self.rng.choice((("r1", "0.2"), ("r2", "14.1")))
        value = good if self.rng.random() < 0.8 else "OL"
        self.make(device, "dead_reading", {"row": row}, {"value": value, "unit": "ohm"})

    def close_up(self, device):
        """Put covers on and count the people."""
        self.make(device, "covers_on")
        self.make(device, "people_clear", {}, {"locks_left": "0"})

    def energize(self, device):
        """Open a stage, mostly close it."""
        self.make(device, "stage_opened", {"stage": self.rng.choice(("control", "bump"))})
        opened = device.outbox[-1].id
        if self.rng.random() < 0.7:
            self.make(device, "stage_closed", {"opened": opened}, {"result": "ok"})

    def trip(self, device):
        """Report a trip."""
        self.make(device, "trip", {"device": "ol1"})

    def tell(self, device):
        """Write a note, now and then one that says stop."""
        self.make(device, "note", {}, {"stop": self.rng.random() < 0.3, "text": "x"})

    def redraw(self, device):
        """Let the drawing move an end, and perhaps back."""
        del device
        self.play.redraw({"move": {"w2": ["start.3", self.rng.choice(("m.14", "m.22"))]}})

    def correct(self, device):
        """Take something of one's own back."""
        mine = [one for one in (*device.known, *device.outbox) if one.by == device.by]
        if mine:
            of = self.rng.choice(mine).id
            self.make(device, "correction", {}, {"of": of, "reason": "typed wrong"})

    def prove(self, device):
        """Prove dead: mostly whole, sometimes a point short or live."""
        name = f"{device.name}.round{device.own}"
        volts = {"meter": "m1", "unit": "V", "min": "414", "max": "506", "value": "479"}
        self.make(device, "meter_live", {"round": name}, {**volts, "phase": "before"})
        for point in POINTS:
            if self.rng.random() < 0.04:
                continue
            value = "277" if self.rng.random() < 0.03 else "0.1"
            self.make(
                device,
                "dead_point",
                {"round": name, "point": point},
                {"meter": "m1", "value": value, "unit": "V", "waited_s": "0"},
            )
        self.make(device, "meter_live", {"round": name}, {**volts, "phase": "after"})

    def day(self, steps=40):
        """Play a day, then let everyone synchronize twice."""
        for device in list(self.devices.values())[:2]:
            for isolator in ("q3", "c120"):
                self.make(
                    device, "lock_on", {"isolator": isolator}, {"place": "isolator", "lock_no": "1"}
                )
            self.sync(device)
        for _ in range(steps):
            self.step()
        for _ in range(2):
            for device in self.devices.values():
                self.sync(device)
        return state_of(self.log)


def shuffled(site, seed):
    """Return another log with the same entries in another order that respects causality."""
    rng = random.Random(seed)
    other = Play(cases()["setups"]["ic2"])
    other.log.works[:] = site.log.works
    waiting = list(site.arrived)
    placed = set()
    while waiting:
        ready = [
            one
            for one in waiting
            if all(name in placed or not site.log.knows(name) for name in one.based_on)
        ]
        one = rng.choice(ready)
        waiting.remove(one)
        placed.add(one.id)
        late = one.id in {entry.id for entry in site.log.superseded()}
        clocked = replace(one, at=str(rng.random()), clock_off_s=rng.uniform(-9e4, 9e4))
        other.log.add(clocked, counts=site.log.counts(one.id) or late, is_superseded=late)
    return other.log
