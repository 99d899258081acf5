"""Devices at a panel, for tests: what they made, what they have seen, and a whole day on one."""

import copy
import uuid

from tests_support import JOB, WORD, post

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"
GOOD = {"meter": "m1", "value": "479", "unit": "V", "min": "414", "max": "506"}


class Tablet:
    """One device of one person: it knows what it made and what it has seen."""

    def __init__(self, client, name):
        self.client, self.name, self.seen, self.clock, self.rev = client, name, [], 0, 1

    def made(self, kind, about=None, body=None):
        """Return one entry, not sent yet."""
        self.clock += 1
        # a device's ids rise with time
        uid = str(uuid.UUID(int=(self.clock << 80) + uuid.uuid4().int % (1 << 80), version=4))
        return {
            "uid": uid,
            "kind": kind,
            "device": self.name,
            "rev": self.rev,
            "about": about or {},
            "body": body or {},
            "based_on": list(self.seen),
        }

    def send(self, *entries):
        """Send entries; return the answers and the panel."""
        answer = post(self.client, f"{JOB}/panel/acts", {"acts": list(entries)})
        assert answer.status_code == 200, answer.content
        told = answer.json()
        self.seen = told["panel"]["heads"]
        return [one["answer"] for one in told["answers"]], told["panel"]

    def do(self, kind, about=None, body=None):
        """Make and send one entry."""
        (answer,), panel = self.send(self.made(kind, about, body))
        return answer, panel

    def prove(self, panel):
        """Prove every point dead."""
        name = f"{self.name}{self.clock}"
        self.do("meter_live", {"round": name}, {**GOOD, "phase": "before"})
        for point in panel["points"]:
            body = {"meter": "m1", "value": "0.1", "unit": "V", "waited_s": "600"}
            self.do("dead_point", {"round": name, "point": point["id"]}, body)
        return self.do("meter_live", {"round": name}, {**GOOD, "phase": "after"})[1]


def panel_of(client):
    """Return the panel."""
    answer = client.get(f"{JOB}/panel")
    assert answer.status_code == 200, answer.content
    return answer.json()


#: a rehearsal of a three-wire starter: started, and stopped
REHEARSED = {
    "actions": [
        {"t": 0, "do": "close", "on": "breaker"},
        {"t": 1_000_000, "do": "push", "on": "start"},
        {"t": 6_000_000, "do": "push", "on": "stop"},
    ],
    "until": 30_000_000,
}


class Day:
    """A whole day at the panel of the conveyor, one step at a time."""

    def __init__(self, tablet):
        self.tablet = tablet
        self.panel = panel_of(tablet.client)

    def do(self, kind, about=None, body=None, answer="kept"):
        """Make an entry, send it, and look at the panel after it."""
        self.tablet.rev = self.panel["rev"]
        got, self.panel = self.tablet.do(kind, about, body)
        assert got == answer, (kind, about, body, got)
        return self.panel

    def lock(self, number="14"):
        """Lock the line and prove it dead."""
        self.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": number})
        self.tablet.rev = self.panel["rev"]
        self.panel = self.tablet.prove(self.panel)
        assert self.panel["hands"]

    def several(self, *told):
        """Make entries one after another without network, and send them at once."""
        self.tablet.rev = self.panel["rev"]
        made, seen = [], list(self.tablet.seen)
        for kind, about, body in told:
            entry = {**self.tablet.made(kind, about, body), "based_on": seen}
            made.append(entry)
            seen = [entry["uid"]]
        for place in range(0, len(made), 100):
            answers, self.panel = self.tablet.send(*made[place : place + 100])
            assert set(answers) == {"kept"}

    def land(self):
        """Land, tug and torque every wire that is not done."""
        self.several(
            *(
                (
                    "landed",
                    {"wire": wire["id"], "ends": [wire["start"], wire["end"]]},
                    {"ok": True, "tugged": True},
                )
                for wire in self.panel["wires"]
                if wire["state"] != "done"
            )
        )
        self.several(
            *(
                ("torqued", {"wire": wire["id"]}, {"value": "20", "unit": "in-lb", "tool": "TQ-3"})
                for wire in self.panel["wires"]
                if wire["needs_torque"] and not wire["is_torqued"]
            )
        )

    def read(self):
        """Read every row and item as it should be."""
        bounds = {one["id"]: one for one in self.panel["expected"]}
        found = []
        for row in self.panel["rows"]:
            if row["state"] != "as_expected":
                least, most = bounds[row["id"]]["min"], bounds[row["id"]]["max"]
                value = "OL" if most is None else least
                found.append(("dead_reading", {"row": row["id"]}, {"value": value, "unit": "ohm"}))
        for item in self.panel["items"]:
            if item["state"] == "as_expected":
                continue
            if item["kind"] == "ground_continuity":
                found.append((item["kind"], {"item": item["id"]}, {"value": "0.1", "unit": "ohm"}))
            else:
                body = {"value": "500", "unit": "Mohm", "temp_c": "20", "connected": []}
                found.append((item["kind"], {"group": item["id"]}, body))
        self.several(*found)

    def close_up(self):
        """Covers on, locks off, people counted out."""
        self.do("covers_on", {}, {"guards": True})
        mine = [
            one["id"]
            for one in self.panel["locks"]
            if one["state"] == "on" and one["by"] == self.panel["me"]
        ]
        if mine:
            self.do("lock_off", {"locks": mine})
        self.do("people_clear", {}, {"locks_left": "0"})

    def stage(self, name, turn="clockwise"):
        """Open a stage, read everything it asks, and close it."""
        self.do("stage_opened", {"stage": name}, {"boundary": "as shown"})
        stage = next(one for one in self.panel["stages"] if one["id"] == name)
        read = []
        for one in stage["results"]:
            if not one["is_needed"]:
                continue
            value = one["min"] if one["min"] not in (None, "0") else one["max"] or "10"
            body = {
                "control_result": {"ok": True},
                "phase_sequence": {"order": "L1-L2-L3"},
                "bump_result": {"turn": turn, "wanted": "clockwise", "coupled": False},
            }.get(one["kind"], {"value": value, "unit": one["unit"]})
            about = {"opened": stage["opened"]}
            if one["at"]:
                about["at"] = one["at"]
            read.append((one["kind"], about, body))
        self.several(*read)
        ended = "ok" if turn == "clockwise" else "wrong"
        self.do("stage_closed", {"opened": stage["opened"]}, {"result": ended})

    def state_of(self, stage):
        """Return how a stage stands."""
        return next(one["state"] for one in self.panel["stages"] if one["id"] == stage)

    def again(self, client):
        """Return the same day for another client of the same person: what it does stays its own."""
        tablet = Tablet(client, self.tablet.name)
        tablet.seen, tablet.clock, tablet.rev = (
            list(self.tablet.seen),
            self.tablet.clock,
            self.tablet.rev,
        )
        day = Day.__new__(Day)
        day.tablet, day.panel = tablet, copy.deepcopy(self.panel)
        return day


def signature(client, panel, **more):
    """Return what a reviewer sends to sign what is seen."""
    return {
        "uid": str(uuid.uuid4()),
        "device": "desk",
        "rev": panel["rev"],
        "based_on": panel["heads"],
        "license": "EL-1182",
        "accepts": [],
        **more,
    }


def reauthenticate(client):
    """Give the password again, as the browser does."""
    answer = post(client, "/api/auth/browser/v1/auth/reauthenticate", {"password": WORD})
    assert answer.status_code == 200, answer.content
