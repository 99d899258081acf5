"""A day at the panel that is laid once for a module: its tests go on from it, each rolled back."""

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from panel_day import PLATE, REHEARSED, Day, Tablet

from answers.dead import dead_checks_of
from jobs.store import starter_of
from tests_support import JOB, caller, motor, post, put, signed_in

ROLES = {"apprentice": "pim", "electrician": "marta", "reviewer": "ruth", "admin": "abel"}


@dataclass
class Laid:
    """People of the plant, and the day as far as it went."""

    who: Mapping[str, Any]
    day: Day

    def clients(self) -> dict[str, Any]:
        """Return a client of each role, signed in."""
        return {role: signed_in(one) for role, one in self.who.items()}


def set_out() -> tuple[dict[str, Any], dict[str, Any]]:
    """Set out the plant: one person of each role, and IC-2 with its starter and its dead check."""
    who = {role: caller("here", name, role) for role, name in ROLES.items()}
    signed = {role: signed_in(one) for role, one in who.items()}
    electrician = signed["electrician"]
    put(electrician, "plate", {"text": PLATE})
    put(electrician, "supply", {"text": "480Y/277"})
    put(electrician, "leads", {"winding": "9-wye"})
    put(electrician, "starter", {"standard_circuit": "3A"})
    link = who["electrician"].works.jobs.get().scope.get()
    dead_checks_of(starter_of(link, who["electrician"].works).required())
    return who, signed


def wired_day(electrician: Any) -> Day:
    """Rehearse, wire, read and close up the conveyor, ready for its first stage."""
    assert post(electrician, f"{JOB}/panel/rehearsal", REHEARSED).status_code == 200
    day = Day(Tablet(electrician, "t1"))
    day.lock()
    day.land()
    day.read()
    day.close_up()
    return day


def loaded(day: Day) -> None:
    """Energize it in stages to its load."""
    for stage in ("control", "bump", "unloaded", "loaded"):
        # control alone keeps the line locked
        if stage == "control":
            day.do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "14"})
            day.do("people_clear", {}, {"locks_left": "0"})
        day.stage(stage)
        if stage == "control":
            day.close_up()
        day.do("people_clear", {}, {"locks_left": "0"})


@contextmanager
def laid_until(end: str, blocker: Any) -> Iterator[Laid]:
    """Lay a day until its panel is ``wired`` or ``loaded``; nothing of it is left afterwards."""
    whole = transaction.atomic()
    # what is a test's own transaction to the program lies within this one
    whole._from_testcase = True
    with blocker.unblock(), whole:
        motor(caller("here", "ann"))
        who, signed = set_out()
        day = wired_day(signed["electrician"])
        if end == "loaded":
            loaded(day)
        try:
            yield Laid(who, day)
        finally:
            transaction.set_rollback(True)
