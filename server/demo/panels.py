"""What was done at two panels of the demo: one in the middle of its wiring, one ready to sign."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping
from typing import Any

from answers.dead import dead_checks_of
from jobs.models import JobMotor
from jobs.store import starter_of
from panel.actions import TakeActs
from panel.log import log_of, newest_revision
from panel.rehearsed import RecordRehearsal
from panel.schemas import PanelOut, panel_out
from people.access import Caller

__all__ = ["AT_PANEL"]

_SECOND = 1_000_000
_METER = "M-7"
#: what a sound motor of the demo reads besides bounds
_VOLTS = ("478", "481", "476")


class _AtPanel:
    """One person at one panel, entry by entry, as the screen would make them."""

    def __init__(self, caller: Caller, link: JobMotor) -> None:
        self.caller, self.link = caller, link
        self.waiting: list[dict[str, Any]] = []

    def panel(self) -> PanelOut:
        """Send what waits, and return how the panel stands."""
        if self.waiting:
            TakeActs(self.caller, self.link, self.waiting).run()
            self.waiting = []
        revision, notice = newest_revision(self.caller, self.link)
        log, rows = log_of(self.link)
        return panel_out(self.caller, revision, log, rows, notice)

    def do(
        self, kind: str, about: dict[str, Any] | None = None, body: dict[str, Any] | None = None
    ) -> None:
        """Make an entry that has seen everything before it."""
        if self.waiting:
            seen, rev = [str(self.waiting[-1]["uid"])], self.waiting[-1]["rev"]
        else:
            revision, _ = newest_revision(self.caller, self.link)
            log, _ = log_of(self.link)
            seen, rev = log.heads(), revision.n
        self.waiting.append(
            {
                "uid": uuid.uuid4(),
                "kind": kind,
                "device": f"demo-{self.caller.user.username}",
                "rev": rev,
                "about": about or {},
                "body": body or {},
                "based_on": seen,
                "observed_at": "",
                "clock_off_s": 0.0,
            }
        )


def _rehearse(caller: Caller, link: JobMotor, start: str, stop: str) -> None:
    """Put a start and a stop on record."""
    acts = [
        {"t": 0, "do": "close", "on": "breaker", "word": ""},
        {"t": _SECOND, "do": "push", "on": start, "word": ""},
        {"t": 20 * _SECOND, "do": "push", "on": stop, "word": ""},
    ]
    RecordRehearsal(caller, link, acts, 45 * _SECOND).run()


def _prepare(caller: Caller, link: JobMotor) -> _AtPanel:
    dead_checks_of(starter_of(link, caller.works).required())
    return _AtPanel(caller, link)


def _lock(at: _AtPanel, number: str) -> None:
    """Lock every source and prove every point dead."""
    panel = at.panel()
    for isolator in dict.fromkeys(one.isolator for one in panel.sources):
        at.do("lock_on", {"isolator": isolator}, {"place": "isolator", "lock_no": number})
    name = f"round-{number}"
    live = {"meter": _METER, "value": "119", "unit": "V", "min": "108", "max": "132"}
    at.do("meter_live", {"round": name}, {**live, "phase": "before"})
    for point in panel.points:
        body = {"meter": _METER, "value": "0.1", "unit": "V", "waited_s": "0"}
        at.do("dead_point", {"round": name, "point": point.id}, body)
    at.do("meter_live", {"round": name}, {**live, "phase": "after"})


def half_wired(caller: Caller, link: JobMotor) -> None:
    """Rehearse, lock, prove dead, land and torque half of the wires; the lock stays on."""
    at = _prepare(caller, link)
    _rehearse(caller, link, "start", "stop")
    _lock(at, "14")
    panel = at.panel()
    for wire in panel.wires[: len(panel.wires) // 2]:
        _land(at, wire.id, [wire.start, wire.end], needs_torque=wire.needs_torque)
    at.panel()


def _land(at: _AtPanel, wire: str, ends: list[str], *, needs_torque: bool) -> None:
    at.do("landed", {"wire": wire, "ends": ends}, {"ok": True, "tugged": True})
    if needs_torque:
        body = {"value": "20", "target": "20", "unit": "in-lb", "tool": "TQ-3"}
        at.do("torqued", {"wire": wire}, body)


def ready_to_sign(caller: Caller, link: JobMotor) -> None:
    """Do everything from lock to the loaded run: what is left is the signature."""
    at = _prepare(caller, link)
    _rehearse(caller, link, "start", "stop")
    _lock(at, "14")
    panel = at.panel()
    for wire in panel.wires:
        _land(at, wire.id, [wire.start, wire.end], needs_torque=wire.needs_torque)
    bounds = {one.id: one for one in panel.expected}
    for row in panel.rows:
        known = bounds[row.id]
        value = "OL" if known.max is None else "0.2" if known.min == "0" else str(known.min)
        at.do("dead_reading", {"row": row.id}, {"value": value, "unit": "ohm"})
    for item in panel.items:
        if item.kind == "ground_continuity":
            at.do(item.kind, {"item": item.id}, {"value": "0.1", "unit": "ohm"})
        else:
            body = {"value": "300", "unit": "Mohm", "temp_c": "22", "connected": []}
            at.do(item.kind, {"group": item.id}, {**body, "test_v": item.tester_v})
    at.do("covers_on", {}, {"guards": True})
    for stage in at.panel().stages:
        _energize(at, stage.id)
    at.panel()


def _energize(at: _AtPanel, name: str) -> None:
    """Do one stage: locks off, people counted, power, results, power off."""
    panel = at.panel()
    mine = [one.id for one in panel.locks if one.state == "on"]
    if name != "control" and mine:
        at.do("lock_off", {"locks": mine})
    at.do("people_clear", {}, {"locks_left": "0"})
    at.do("stage_opened", {"stage": name}, {"boundary": "as shown"})
    stage = next(one for one in at.panel().stages if one.id == name)
    count: dict[str, int] = {}
    for one in stage.results:
        if not one.is_needed:
            continue
        place = count.get(one.kind, 0)
        count[one.kind] = place + 1
        about = {"opened": stage.opened, **({"at": one.at} if one.at else {})}
        at.do(one.kind, about, _body(one.kind, one.unit, one.min, one.max, place))
    at.do("stage_closed", {"opened": stage.opened}, {"result": "ok"})


def _body(kind: str, unit: str, least: str | None, most: str | None, place: int) -> dict[str, Any]:
    """Return a reading that a sound motor gives: inside its bounds, three lines nearly alike."""
    if kind == "control_result":
        return {"ok": True}
    if kind == "phase_sequence":
        return {"order": "L1-L2-L3"}
    if kind == "bump_result":
        turn = {"turn": "clockwise", "wanted": "clockwise", "viewpoint": "shaft end"}
        return {**turn, "coupled": False}
    if kind == "volts":
        return {"value": _VOLTS[place % 3], "unit": unit}
    middle = (float(least or 0) + float(most or 4)) / 2
    return {"value": f"{middle * (1 + 0.01 * (place - 1)):.3g}", "unit": unit}


#: how far the work at a panel of the demo is
AT_PANEL: Mapping[str, Callable[[Caller, JobMotor], None]] = {
    "half_wired": half_wired,
    "ready_to_sign": ready_to_sign,
}
