"""The field pack: one job on paper, from the nameplate to the wire list.

WeasyPrint drops a font silently unless the same font configuration goes to the
style sheet and to the writer. The Latin subsets lack signs such as the check
mark, so the page says them in words.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from django.template.loader import render_to_string

from answers.dead import dead_checks_of
from answers.pdf import as_svg, printed
from answers.schemas.terminal_box import free_leads
from answers.schemas.worked import worked_out
from desk.answer import Tell
from evencoil.base import CoreError, Message, __version__, say
from evencoil.checks import dead_sheet
from evencoil.circuit import Circuit, io_map
from evencoil.drawing import (
    draw_run_up_torque,
    draw_run_up_traces,
    draw_start_branch,
    draw_winding,
)
from evencoil.job import (
    JobFile,
    JobInputs,
    Worked,
    drive_settings,
    fingerprint,
    run_up_of,
    work_out,
)
from evencoil.logic import IoLine
from evencoil.run_up import load_curve
from paper.results import results_of
from people.models import Works
from plant.profile import profile_of

__all__ = ["Head", "printed_pack"]

#: faults that every pack tells of
_PRINTED = {"fuse", "winding", "jam"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Head:
    """Whose pack it is.

    Attributes
    ----------
    works : Works
        Its name, time zone and plant rules.
    by : str
        Who prints it.
    number : int
        The job's number at its motor.
    issue_n : int
        Number of this issue.
    kind : str
        ``print``, ``wiring`` or ``signed``.
    """

    works: Works
    by: str
    number: int
    issue_n: int
    kind: str


def printed_pack(
    head: Head, file: JobFile, inputs: JobInputs, record: Mapping[str, Any] | None, tell: Tell
) -> tuple[bytes, dict[str, Any]]:
    """Return a job's field pack as PDF, and what is in it as plain values.

    Parameters
    ----------
    head : Head
        Whose it is.
    file : JobFile
        What people gave, as it goes to others.
    inputs : JobInputs
        The same as the core takes it.
    record : mapping or None
        What was done at the panel, for a pack that is signed.
    tell : callable
        Told how far it is.
    """
    worked = work_out(inputs, profile_of(head.works))
    return _pack(head, file, inputs, worked, record, tell), results_of(worked)


def _programs(circuit: Circuit | None) -> list[tuple[str, str, tuple[IoLine, ...]]]:
    """Return tag, text and wired points of every programmable relay."""
    if circuit is None:
        return []
    return [
        (
            circuit.tags.get(item.id, item.id),
            item.parameters.get("program", ""),
            io_map(circuit, item),
        )
        for item in circuit.netlist.devices
        if item.type == "plc"
    ]


def _run_up(inputs: JobInputs, worked: Worked) -> dict[str, Any] | None:
    """Return the run-up of the job's own way to start; None before a load is entered."""
    if not inputs.load.kind:
        return None
    try:
        ready = run_up_of(inputs, worked)
    except CoreError as refused:
        return {"refused": f"{refused} {refused.hint}"}
    way = ready.own_sheet()
    if way is None:
        return {"refused": ""}
    facts = ready.facts
    return {
        "way": say(Message(f"run_up.way.{way.method}")),
        "verdict": say(way.verdict),
        "is_good": way.is_good,
        "findings": [say(found) for found in way.findings],
        "first_s": f"{way.first_s:g}" if way.first_s else "",
        "start_a": f"{way.start_a:.0f}",
        "start_torque": f"{way.start_torque_percent:.0f}",
        "torque": as_svg(draw_run_up_torque(way, load_curve(facts))),
        "traces": as_svg(draw_run_up_traces(way, facts.ambient_c)),
        "facts": [
            (say(Message(f"label.{step.id}")), step.shown, step.unit, step.kind, say(step.working))
            for step in facts.all_steps
        ],
        "faults": [say(state.said) for state in ready.faults().states if state.cause in _PRINTED],
    }


def _pack(
    head: Head,
    file: JobFile,
    inputs: JobInputs,
    worked: Worked,
    record: Mapping[str, Any] | None,
    tell: Tell,
) -> bytes:
    """Return cover, plate, leads, sizes with their Why, drawings, wire list."""
    said, starter = worked_out(worked), worked.starter
    if starter.circuit is not None:
        starter.issuable()
    steps = {step.id: step for step in said.steps}
    notes = {step.id: place + 1 for place, step in enumerate(said.steps)}
    box = worked.box
    joints = tuple(joint.as_core() for joint in worked.joints) or box.intended
    coils = box.outcome.coils if box.outcome and worked.joints else ()
    ladder, power = starter.ladder().picture, starter.power()
    findings = [(found.level, say(found.message)) for found in starter.findings]
    sheet = None
    if starter.circuit is not None:
        try:
            sheet = dead_sheet(starter.circuit, dead_checks_of(starter.circuit, tell))
        except CoreError as refused:
            findings.append(("doubt", f"{refused} {refused.hint}"))
    html = render_to_string(
        "paper/pack.html",
        {
            "works": head.works,
            "by": head.by,
            "file": file,
            "number": head.number,
            "worked": said,
            "figures": [
                (figure, steps.get(figure.step or ""), notes.get(figure.step or ""))
                for figure in said.figures
            ],
            "notes": [(notes[step.id], step) for step in said.steps],
            "printed": head.works.local(dt.datetime.now(dt.UTC)),
            "print_id": fingerprint(file),
            "core": __version__,
            "issue_n": head.issue_n,
            "kind": head.kind,
            "record": record,
            "starter": starter,
            "findings": findings,
            "run_up": _run_up(inputs, worked),
            "start": None if box.start is None else as_svg(draw_start_branch(box.start)),
            "winding": as_svg(draw_winding(box.winding, joints, coils, box.names))
            if box.winding
            else "",
            "is_derived": not worked.joints,
            "followed": file.leads.followed if box.followed else None,
            "sources": ", ".join(item.source or "no place said" for item in file.leads.maker),
            "plan": said.joints,
            "rows_of_joints": [
                (
                    joint.line or (f"to starter {joint.to_starter}" if joint.to_starter else None),
                    " ".join(box.names.get(lead, lead) for lead in joint.leads),
                    joint.conductors,
                )
                for joint in box.intended
            ],
            "free": " ".join(box.names.get(lead, lead) for lead in free_leads(box)),
            "states": [
                (
                    state.said,
                    state.state,
                    [
                        (joint.line, " ".join(box.names.get(lead, lead) for lead in joint.leads))
                        for joint in state.joints
                    ],
                )
                for state in said.box.states
            ]
            if len(said.box.states) > 1
            else [],
            "ladder": as_svg(ladder) if ladder.shapes else "",
            "power": as_svg(power) if power.shapes else "",
            "is_tall": power.height > power.width * 0.8,
            "rows": starter.rows(),
            "programs": _programs(starter.circuit),
            "drives": drive_settings(starter.circuit, starter.is_stated),
            "material": [
                (
                    row,
                    [
                        (
                            say(Message(f"rating.{name}")),
                            value or say(Message("rating.open")),
                            unit,
                            notes.get(starter.sources.get(f"{row.device}.{name}", "")),
                        )
                        for name, value, unit in row.ratings
                    ],
                    say(Message(f"type.{row.type}")),
                )
                for row in starter.material()
            ],
            "edits": file.starter.edits,
            "accepted": [
                (say(Message(f"restart.{one.hazard}")), one) for one in file.starter.accepted
            ],
            "panel": as_svg(starter.panel()) if power.shapes else "",
            "strip": as_svg(starter.strip()) if power.shapes else "",
            "checks": [
                (one.rule, one.level, say(one.message), say(one.change))
                for one in starter.problems()
            ],
            # the fonts of the page have no ohm sign
            "dead": None if sheet is None else sheet,
            "dead_rows": [
                [cell.replace("Ω", "ohm") for cell in row]
                for row in (() if sheet is None else sheet.rows)
            ],
        },
    )
    return printed(html, render_to_string("paper/pack.css"))
