"""What an audit finds in a stored job: its lines, and what they were before or as things are."""

from __future__ import annotations

import logging
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from pydantic import TypeAdapter

from api.problems import NeedsRepairError
from audits.models import Audit, AuditedJob, AuditedLine
from evencoil.audit import (
    AuditLine,
    JobAudit,
    PlayedOnce,
    WhatIf,
    audit_job,
    changes,
    suppose,
)
from evencoil.base import CoreError
from evencoil.codebook import Profile
from evencoil.job import work_out
from jobs.models import JobMotor
from jobs.store import kept
from people.models import Works

__all__ = ["BODY", "UNREAD", "Found", "Row", "audited", "line_of", "lines_before"]

#: state of a job that could not be calculated
UNREAD = "unread"
_log = logging.getLogger("evencoil.audits")
#: circuits that this process played, alike in every audit
_once = PlayedOnce()
#: what is kept of a job beside its lines
BODY: TypeAdapter[JobAudit] = TypeAdapter(JobAudit)
_LINE: TypeAdapter[AuditLine] = TypeAdapter(AuditLine)
Lines = Sequence[AuditLine]


@dataclass(frozen=True, slots=True)
class Row:
    """A line with its state, ``gone`` for one that is no longer found, and what it was.

    ``was`` is None where nothing is known of before, empty where it was not found then.
    """

    line: AuditLine
    state: str
    was: str | None


@dataclass(frozen=True, slots=True)
class Found:
    """A job: its worst state, what is kept of it, its lines."""

    state: str
    body: dict[str, Any]
    rows: tuple[Row, ...] = ()


def audited(
    link: JobMotor,
    works: Works,
    profile: Profile,
    what_if: WhatIf,
    before: Mapping[int, Lines],
) -> Found:
    """Return what is found in a stored job; one that cannot be calculated says so and why.

    Parameters
    ----------
    link : JobMotor
        The job, with its motor.
    works : Works
        Its plant.
    profile : Profile
        The plant's rules.
    what_if : WhatIf
        What is supposed; then the lines are those that would come, go or change.
    before : mapping
        Primary key of a job to its lines in the audit before.
    """
    try:
        now = kept(link, works)
        worked = work_out(now.inputs, profile)
        is_stale = now.newest_plate_n > now.versions["plate"].n
        found = audit_job(now.inputs, worked, is_stale=is_stale, problems_of=_once)
        if not what_if.is_asked:
            return Found(found.state, _body(found), _compared(found.lines, before.get(link.pk)))
        made = suppose(now.inputs, profile, worked, what_if)
        there = work_out(made.inputs, made.profile)
        supposed = audit_job(made.inputs, there, is_stale=is_stale, problems_of=_once)
    except NeedsRepairError as broken:
        return _unread(str(broken.body["detail"]))
    except CoreError as refused:
        return _unread(str(refused))
    except Exception:  # noqa: BLE001 - one job ends no audit of all: it is logged, and told
        _log.exception("audit of %s", link)
        return _unread("This job could not be calculated. Tell an administrator.")
    rows = _changed(found.lines, supposed.lines)
    return Found(supposed.state, {**_body(supposed), "left": list(made.left)}, tuple(rows))


def _body(found: JobAudit) -> dict[str, Any]:
    body: dict[str, Any] = BODY.dump_python(replace(found, lines=()), mode="json")
    return body


def _unread(reason: str) -> Found:
    return Found(UNREAD, {"reason": reason})


def _changed(before: Lines, after: Lines) -> list[Row]:
    return [
        Row(change.line, change.after or "gone", change.before)
        for change in changes({"": before}, {"": after})
    ]


def _compared(now: Lines, before: Lines | None) -> tuple[Row, ...]:
    """Return every line with what it was, and those that are no longer found."""
    if before is None:
        return tuple(Row(line, line.state, None) for line in now)
    changed = {(row.line.topic, row.line.key): row for row in _changed(before, now)}
    still = (changed.pop((line.topic, line.key), Row(line, line.state, line.state)) for line in now)
    return (*still, *changed.values())


def lines_before(audit: Audit, links: Sequence[JobMotor]) -> dict[int, list[AuditLine]]:
    """Return the lines of the audit before, by job; one that it did not see is not there.

    Parameters
    ----------
    audit : Audit
        The one under way.
    links : sequence of JobMotor
        The jobs of a part.
    """
    if audit.before is None:
        return {}
    seen = AuditedJob.objects.filter(audit=audit.before, link__in=links).exclude(state=UNREAD)
    found: dict[int, list[AuditLine]] = {job.link_id: [] for job in seen}
    rows = AuditedLine.objects.filter(job__in=seen).exclude(state="gone").select_related("job")
    for row in rows:
        found[row.job.link_id].append(line_of(row))
    return found


def line_of(row: AuditedLine) -> AuditLine:
    """Return a line as the core takes it; one that is gone has the state in which it was.

    Parameters
    ----------
    row : AuditedLine
        As kept.
    """
    return _LINE.validate_python(
        {
            "topic": row.topic,
            "key": row.key,
            "state": row.was if row.state == "gone" else row.state,
            "said": row.said,
            "do": row.do,
            "guesses": row.guesses,
            "rule": row.rule,
            "step": row.step,
        }
    )
