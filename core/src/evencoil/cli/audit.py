"""``evencoil audit JOB.json ...``: many jobs held against the rules, the worst first.

A file that cannot be read is told and takes no other with it. Several processes share the files.
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass
from functools import cache, partial
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from evencoil.audit import (
    STATES,
    AuditLine,
    JobAudit,
    Place,
    PlantNeed,
    PlayedOnce,
    Tally,
    WhatIf,
    audit_csv,
    audit_job,
    changes,
    line_rank,
    suppose,
)
from evencoil.base import (
    CoreError,
    Message,
    OutOfRangeError,
    counted,
    say,
    speaking,
)
from evencoil.cli.many import MOST_PROCESSES, files_named, in_processes
from evencoil.codebook import EDITIONS
from evencoil.job import MAX_BYTES, load, work_out

__all__ = ["add_audit_arguments", "audit"]

_MOST_SHOWN = 200
_MOST_NEEDS = 20


@dataclass(frozen=True, slots=True)
class _One:
    """A file: where its motor is and what was found, or why it could not be read."""

    name: str
    place: Place | None
    audit: JobAudit | None
    supposed: JobAudit | None = None
    left: tuple[str, ...] = ()
    reason: str = ""


def add_audit_arguments(parser: argparse.ArgumentParser) -> None:
    """Add the files, what is supposed, and how it is told.

    Parameters
    ----------
    parser : ArgumentParser
        Of the command.
    """
    parser.add_argument("files", nargs="+", metavar="JOB.json", help="job files or folders of them")
    parser.add_argument("--format", choices=("table", "csv", "json"), default="table")
    parser.add_argument(
        "--processes", type=int, default=1, metavar="N", help=f"1 to {MOST_PROCESSES}"
    )
    parser.add_argument(
        "--drawn", action="store_true", help="read starters off their drawings, play none"
    )
    parser.add_argument("--edition", type=int, choices=EDITIONS, help="suppose another edition")
    parser.add_argument(
        "--breakers", action="store_true", help="suppose a breaker of the same amps for each fuse"
    )
    parser.add_argument("--fault-times", metavar="N", help="suppose N times the fault current")
    parser.add_argument("--ambient", metavar="C", help="suppose another ambient in degrees C")


@cache
def _once() -> PlayedOnce:
    """Return what this process keeps of circuits that it played."""
    return PlayedOnce()


def _audited(what_if: WhatIf, name: str, *, is_played: bool) -> _One:
    try:
        with Path(name).open("rb") as file:
            job = load(file.read(MAX_BYTES + 1))
        profile = job.profile.as_core()
        with speaking(profile.names):
            worked = work_out(job.inputs, profile)
            found = audit_job(job.inputs, worked, is_played=is_played, problems_of=_once())
            supposed: JobAudit | None = None
            left: tuple[str, ...] = ()
            if what_if.is_asked:
                made = suppose(job.inputs, profile, worked, what_if)
                left = made.left
                supposed = audit_job(
                    made.inputs,
                    work_out(made.inputs, made.profile),
                    is_played=is_played,
                    problems_of=_once(),
                )
    except CoreError as wrong:
        return _One(name, None, None, reason=str(wrong))
    except OSError as wrong:
        return _One(name, None, None, reason=wrong.strerror or type(wrong).__name__)
    motor = job.motor
    place = Place(job=str(job.job_id), tag=motor.motor_tag, machine=motor.machine)
    return _One(name, place, found, supposed, left)


def _what_if(arguments: argparse.Namespace) -> WhatIf:
    given = {
        "edition": arguments.edition,
        "breakers": arguments.breakers,
        "fault_times": arguments.fault_times,
        "ambient_c": arguments.ambient,
    }
    try:
        return WhatIf.model_validate(given)
    except ValidationError as wrong:
        first = wrong.errors()[0]
        field = str(first["loc"][0])
        raise OutOfRangeError(
            Message("audit.what_if", {"value": str(given[field])[:20], "reason": first["msg"]}),
            field=field,
            hint=Message("audit.what_if.hint"),
        ) from wrong


def audit(arguments: argparse.Namespace) -> bool:
    """Print what fails, is doubtful or unknown; tell whether everything holds.

    Parameters
    ----------
    arguments : Namespace
        As `add_audit_arguments` adds them.

    Raises
    ------
    FileFormatError
        If there is no file at all.
    OutOfRangeError
        If what is supposed cannot be.
    """
    files = files_named(arguments.files)
    what_if = _what_if(arguments)
    work = partial(_audited, what_if, is_played=not arguments.drawn)
    found = list(in_processes(work, files, arguments.processes))
    if arguments.format == "json":
        print(json.dumps(_as_json(found, what_if), indent=2, ensure_ascii=False))
    elif arguments.format == "csv":
        print(audit_csv(_lines(found)), end="")
    else:
        _as_text(found, what_if)
    return all(one.audit is not None and one.audit.state in {"guess", "holds"} for one in found)


def _lines(found: Sequence[_One]) -> list[tuple[Place, AuditLine]]:
    """Return the lines of all files, the worst first."""
    lines = [
        (one.place, line)
        for one in found
        if one.audit is not None and one.place is not None
        for line in one.audit.lines
    ]
    return sorted(lines, key=lambda pair: line_rank(pair[1]))


def _tally(found: Sequence[_One]) -> Tally:
    tally = Tally()
    for one in found:
        if one.audit is None or one.place is None:
            tally.unread += 1
        else:
            tally.add(one.place, one.audit)
    return tally


def _supposed(found: Sequence[_One]) -> Iterator[dict[str, Any]]:
    """Yield what would come, go or change, as plain values."""
    whole = [one for one in found if one.supposed is not None and one.place is not None]
    before = {one.name: one.audit.lines for one in whole if one.audit is not None}
    after = {one.name: one.supposed.lines for one in whole if one.supposed is not None}
    tags = {one.name: one.place.tag for one in whole if one.place is not None}
    for change in changes(before, after):
        yield {
            "motor_tag": tags[change.job],
            "before": change.before,
            "after": change.after,
            **asdict(change.line),
        }


def _as_json(found: Sequence[_One], what_if: WhatIf) -> dict[str, Any]:
    tally = _tally(found)
    return {
        "jobs": {state: tally.jobs[state] for state in STATES},
        "unread": [{"file": one.name, "reason": one.reason} for one in found if one.reason],
        "topics": {
            topic: {state: counts[state] for state in STATES if counts[state]}
            for topic, counts in tally.topics.items()
        },
        "lines": [
            {"motor_tag": place.tag, "machine": place.machine, **asdict(line)}
            for place, line in _lines(found)
        ],
        "unknown": [{**asdict(need), "cost": need.cost} for need in tally.needs()],
        "supposed": list(_supposed(found)) if what_if.is_asked else None,
        "not_supposed": {one.name: list(one.left) for one in found if one.left},
    }


def _as_text(found: Sequence[_One], what_if: WhatIf) -> None:
    tally = _tally(found)
    print(counted(str(tally.total), "job", "jobs"))
    for state in STATES:
        if tally.jobs[state]:
            print(f"  {tally.jobs[state]:6} {say(Message(f'audit.state.{state}'))}")
    for one in found:
        if one.reason:
            print(say(Message("audit.unread", {"name": one.name, "reason": one.reason})))
    _print_lines(_lines(found))
    _print_needs(tally.needs())
    if what_if.is_asked:
        for change in _supposed(found):
            was, now = change["before"] or "—", change["after"] or "—"
            print(f"if so: {change['motor_tag']:12} {was} -> {now}: {change['said']}")


def _print_lines(lines: Sequence[tuple[Place, AuditLine]]) -> None:
    for place, line in lines[:_MOST_SHOWN]:
        topic = say(Message(f"audit.topic.{line.topic}"))
        said = say(Message(f"audit.state.{line.state}"))
        print(f"{place.tag:12} {said:16} {topic:20} {line.said} {line.do}".rstrip())
        for guess in line.guesses:
            print(f"{'':12} {'assumed':16} {'':20} {guess}")
    if len(lines) > _MOST_SHOWN:
        print(f"and {len(lines) - _MOST_SHOWN} more; --format csv writes all")


def _print_needs(needs: Sequence[PlantNeed]) -> None:
    for need in needs[:_MOST_NEEDS]:
        jobs = counted(str(need.jobs), "job", "jobs")
        print(f"{need.cost:6} figures in {jobs}: {need.said}")
    if len(needs) > _MOST_NEEDS:
        print(f"and {len(needs) - _MOST_NEEDS} more unknown facts; --format json writes all")
