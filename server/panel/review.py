"""What a reviewer looks at first: open, to be judged, assumed, different, raised, accepted."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping

from api.schemas import Schema
from evencoil.acts import Log, state_of, to_judge
from evencoil.base import Message, Step, say
from evencoil.job import Worked
from evencoil.starters import AcceptedInput
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.log import log_of, newest_revision
from panel.models import PanelRevision
from panel.names import named, open_said
from people.access import Caller

__all__ = ["ReviewOut", "review_of"]


class ReviewItemOut(Schema):
    """One thing to look at: its group, what it is, why, and what was asked and answered of it."""

    id: str
    group: str
    said: str
    why: str
    asked: list[str]
    is_answered: bool


class ReviewOut(Schema):
    """Everything a reviewer has to see, what needs judgment first."""

    is_fit: bool
    needs_license: bool
    rev: int
    heads: list[str]
    accepts: list[str]
    items: list[ReviewItemOut]


def review_of(caller: Caller, link: JobMotor) -> ReviewOut:
    """Return what has to be looked at before a signature."""
    revision, _ = newest_revision(caller, link)
    log, rows = log_of(link)
    state = state_of(log)
    names = {row.by.username: str(row.by) for row in rows}
    now = kept(link, caller.works)
    worked = work_out_kept(now, caller.works)
    accepts = [name for name, _, _ in to_judge(log.now())]
    found = [
        *(
            (
                code,
                "judge" if code in accepts else "open",
                open_said(revision, log, code, names),
                "",
            )
            for code in state.open
        ),
        *_assumed(worked),
        *_different(worked, log, revision),
        *_raised(worked),
        *_accepted(now.inputs.starter.accepted, log, revision, names),
    ]
    return ReviewOut(
        is_fit=state.is_fit,
        needs_license=log.work.rules.has_license,
        rev=revision.n,
        heads=log.heads(),
        accepts=accepts,
        items=[_item(log, one, names) for one in found],
    )


_Found = Iterator[tuple[str, str, str, str]]


def _item(log: Log, found: tuple[str, str, str, str], names: Mapping[str, str]) -> ReviewItemOut:
    """Return one figure with the questions on it and their answers."""
    name, group, what, why = found
    view = log.now()
    said: list[str] = []
    is_answered = True
    for one in view.of("sent_back"):
        if one.about["figure"] != name:
            continue
        said.append(f"{names.get(one.by, one.by)}: {one.body.get('question', '')}")
        answers = [answer for answer in view.of("review_asked") if log.saw(answer, one)]
        is_answered = is_answered and bool(answers)
        said += [
            f"{names.get(answer.by, answer.by)}: {answer.body.get('text', '')}"
            for answer in answers
        ]
    return ReviewItemOut(
        id=name, group=group, said=what, why=why, asked=said, is_answered=is_answered
    )


def _assumed(worked: Worked) -> _Found:
    for step in worked.steps:
        for mark in step.marks:
            if mark.kind in {"assumed", "doubted"}:
                yield step.id, "assumed", _said(step), say(mark.message)


def _said(step: Step) -> str:
    return f"{say(Message(f'label.{step.id}'))}: {step.said}"


def _different(worked: Worked, log: Log, revision: PanelRevision) -> _Found:
    view = log.now()
    for one in view.of("different_here"):
        what = named(revision, log, "wire", str(one.about["wire"]))
        yield f"different.{one.id}", "different", what, str(one.body.get("found", ""))
    for one in view.of("color_seen"):
        wire = next(
            (wire for wire in revision.body["wires"] if wire["id"] == one.about["wire"]), None
        )
        if wire is not None and str(one.body.get("color", "")).lower() != wire["color"].lower():
            said = say(
                Message(
                    "panel.review.color",
                    {
                        "wire": f"{wire['number']} {wire['start_said']} – {wire['end_said']}",
                        "found": str(one.body.get("color", "")),
                        "asked": wire["color"],
                    },
                )
            )
            yield f"color.{one.id}", "different", said, ""
    steps = {step.id: step for step in worked.steps}
    for one in view.of("setting_seen", "heater_seen"):
        device = named(revision, log, "device", str(one.about["device"]))
        seen = str(one.body.get("value") or one.body.get("code", ""))
        asked = steps.get("overload_setting_a")
        said = say(
            Message(
                "panel.review.setting",
                {"device": device, "seen": seen, "asked": "" if asked is None else asked.said},
            )
        )
        yield f"setting.{one.id}", "different", said, ""
    for problem in worked.starter.problems():
        if problem.level == "doubt":
            yield f"check.{problem.rule}", "different", say(problem.message), say(problem.change)


def _raised(worked: Worked) -> _Found:
    for step in worked.steps:
        if step.working.id == "protection.raised":
            yield step.id, "raised", _said(step), say(step.working)
    for finding in worked.starter.findings:
        if finding.level in {"doubt", "refusal"}:
            yield f"finding.{finding.code}", "different", say(finding.message), ""


def _accepted(
    hazards: Iterable[AcceptedInput], log: Log, revision: PanelRevision, names: Mapping[str, str]
) -> _Found:
    for one in hazards:
        hazard = say(Message(f"restart.{one.hazard}"))
        yield f"accepted.{one.hazard}", "accepted", hazard, f"{one.by}, {one.at}: {one.why}"
    for note in log.now().of("note"):
        if note.body.get("accepts"):
            who = names.get(note.by, note.by)
            what = named(revision, log, "row", str(note.body["accepts"]))
            yield f"row.{note.id}", "accepted", what, f"{who}: {note.body.get('reason', '')}"
