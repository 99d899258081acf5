"""Lines of the motor list: kept with their key, calculated anew where the key changed.

A page calculates as many stale lines as a request may cost; what is left goes to a worker, and is
shown as it was last, marked so, or as not calculated yet.
"""

from __future__ import annotations

import time
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.core.cache import cache
from django_tasks import task

from api.problems import NeedsRepairError
from evencoil.base import say, speaking
from evencoil.job import Worked, next_up, starter_states
from evencoil.sizing import horsepower_from_kw
from jobs.keys import keys_of
from jobs.models import JobMotor, Summary
from jobs.store import kept, work_out_kept
from people.models import Works
from plant.models import Motor
from plant.profile import profile_of

__all__ = ["Line", "lines_of", "newest_links", "work_out_lines", "work_out_soon"]

#: processor time that one request spends on stale lines [s], how many a worker takes at once, and
#: how long after a request for a plant the next one counts [s]
BUDGET_S = 1.0
AT_ONCE = 200
AGAIN_S = 5


@dataclass(frozen=True, slots=True)
class Line:
    """What the motor list shows of a motor; ``is_old`` until its line is calculated anew."""

    link: JobMotor
    body: dict[str, Any]
    is_old: bool


_EMPTY: dict[str, Any] = {"headline": "", "supply": "", "arches": [], "wants": "", "next_step": ""}


def _worked_out(link: JobMotor, works: Works) -> tuple[dict[str, Any], dict[str, Any]]:
    """Return a motor's line and what it is found by; an unreadable job says so and where."""
    try:
        now = kept(link, works)
        worked = work_out_kept(now, works)
    except NeedsRepairError as broken:
        body = {
            **_EMPTY,
            "headline": "Needs repair",
            "wants": broken.body["detail"],
            "next_step": broken.body["step"],
            "needs_repair": True,
        }
        return body, {"line_volts_v": None, "power_hp": None, "plate_text": "", "wires": ""}
    is_stale = now.newest_plate_n > now.versions["plate"].n
    todo = next_up(worked, is_stale=is_stale)
    body = {
        "headline": say(worked.states[0].headline),
        "supply": now.inputs.supply.text,
        "arches": [
            {"step": state.step, "state": "stale" if is_stale else state.state}
            for state in (*worked.states, *starter_states(worked.starter))
        ],
        "wants": "" if todo is None else say(todo.message),
        "next_step": "" if todo is None else todo.step,
    }
    return body, _found_by(worked, now.inputs.plate.text)


def _found_by(worked: Worked, plate: str) -> dict[str, Any]:
    """Return what a motor is filtered and searched by."""
    stamped = worked.reading.plate
    powers = (*stamped.power_hp, *map(horsepower_from_kw, stamped.power_kw))
    rows = worked.starter.rows() if worked.starter.circuit is not None else ()
    wires = {said for row in rows for said in (row.number, row.start, row.end)}
    return {
        "line_volts_v": None if worked.supply is None else float(worked.supply.line_volts_v),
        "power_hp": max(map(float, powers), default=None),
        "plate_text": plate,
        # between bars each is one word: 12 does not find 112
        "wires": f"|{'|'.join(sorted(wires))}|",
    }


def _keep(link: JobMotor, works: Works, key: str) -> dict[str, Any]:
    body, found_by = _worked_out(link, works)
    Summary.objects.update_or_create(
        motor=link.motor,
        defaults={
            "number": link.number,
            "key": key,
            "body": body,
            "is_waiting": bool(body["wants"]),
            "next_step": body["next_step"],
            **found_by,
        },
    )
    return body


def newest_links(motors: Sequence[int]) -> list[JobMotor]:
    """Return the newest job of each motor, in the order of the motors.

    Parameters
    ----------
    motors : sequence of int
        Primary keys.
    """
    rows = (
        JobMotor.objects.select_related("motor", "motor__machine", "job")
        .filter(motor__in=motors)
        .order_by("motor_id", "-number")
        .distinct("motor_id")
    )
    found = {row.motor_id: row for row in rows}
    return [found[pk] for pk in motors if pk in found]


def lines_of(links: Sequence[JobMotor], works: Works) -> list[Line]:
    """Return the line of each motor, calculated anew as far as one request may cost.

    Parameters
    ----------
    links : sequence of JobMotor
        One page, each with its motor and machine.
    works : Works
        Their plant.
    """
    keys = keys_of(links, works)
    known = {
        row.motor_id: row
        for row in Summary.objects.filter(motor__in=[link.motor_id for link in links])
    }
    began = time.process_time()
    found: list[Line] = []
    is_any_old = False
    for link in links:
        row = known.get(link.motor_id)
        if row is not None and row.key == keys[link.pk]:
            found.append(Line(link, row.body, is_old=False))
            continue
        is_any_old = True
        if time.process_time() - began < BUDGET_S:
            found.append(Line(link, _keep(link, works, keys[link.pk]), is_old=False))
        else:
            found.append(Line(link, _EMPTY if row is None else row.body, is_old=True))
    if is_any_old:
        work_out_soon(works)
    return found


def work_out_soon(works: Works) -> None:
    """Ask a worker to go through the lines of a plant, once in a while at most.

    Parameters
    ----------
    works : Works
        Whose inputs or rules changed.
    """
    if cache.add(f"lines.{works.pk}", 1, AGAIN_S):
        work_out_lines.enqueue(works.pk)


@task()
def work_out_lines(works_pk: int) -> int:
    """Work out anew every stale line of a plant.

    Parameters
    ----------
    works_pk : int
        Of the plant; one that is gone has no lines.

    Returns
    -------
    int
        How many were stale.
    """
    works = Works.objects.filter(pk=works_pk).first()
    if works is None:
        return 0
    done = 0
    every = list(Motor.objects.filter(works=works).values_list("pk", flat=True))
    with speaking(profile_of(works).names):
        for first in range(0, len(every), AT_ONCE):
            rows = newest_links(every[first : first + AT_ONCE])
            keys = keys_of(rows, works)
            fresh = dict(
                Summary.objects.filter(motor__in=[link.motor_id for link in rows]).values_list(
                    "motor_id", "key"
                )
            )
            for link in rows:
                if fresh.get(link.motor_id) != keys[link.pk]:
                    _keep(link, works, keys[link.pk])
                    done += 1
    return done
