"""The command line: ``evencoil size|connect|wirelist|run|rehearse|validate JOB.json``.

Exit codes: 0 all figures found; 1 at least one figure is withheld, with its
reason; 2 the file or the call is wrong. Errors go to standard error with field
and next step, as a line or, with ``--format json``, as one JSON object.
"""

from __future__ import annotations

import argparse
import csv
import json
import sys
from collections.abc import Callable, Sequence
from dataclasses import asdict
from functools import partial
from pathlib import Path
from typing import Any, TextIO

from evencoil.base import (
    CoreError,
    FileFormatError,
    Finding,
    Message,
    Names,
    __version__,
    say,
    speak,
    speaking,
)
from evencoil.checks import with_expectations
from evencoil.circuit import Circuit
from evencoil.cli import box as cli_box
from evencoil.cli import circuit as cli_circuit
from evencoil.cli import run_up as cli_run_up
from evencoil.cli.audit import add_audit_arguments, audit
from evencoil.cli.many import add_many_arguments, files_named, on_many
from evencoil.cli.schedule import add_schedule_arguments, schedule
from evencoil.cli.trouble import add_trouble_arguments, trouble
from evencoil.job import (
    MAX_BYTES,
    SCHEMA,
    JobFile,
    JobStarter,
    Worked,
    fingerprint,
    json_schema,
    load,
    work_out_job,
)
from evencoil.rehearsal import read_scenario, rehearse, trace_as_json
from evencoil.schedule import MOST_BYTES

__all__ = ["main"]

OK, WITHHELD, WRONG = 0, 1, 2


def _read(name: str, most: int = MAX_BYTES) -> bytes:
    try:
        if name == "-":
            return sys.stdin.buffer.read(most + 1)
        with Path(name).open("rb") as file:
            return file.read(most + 1)
    except OSError as wrong:
        raise FileFormatError(
            Message(
                "file.unreadable", {"name": name, "reason": wrong.strerror or type(wrong).__name__}
            ),
            field="file",
            hint=Message("file.unreadable.hint"),
        ) from wrong


def _load(name: str) -> JobFile:
    """Return a job file; from here on sentences are said in the names of its plant."""
    job = load(_read(name))
    speak(job.profile.as_core().names)
    return job


def _findings(worked: Worked) -> tuple[Finding, ...]:
    """Return what was found on nameplate and supply, in the order of the screen."""
    verdict = worked.verdict.findings if worked.verdict else ()
    return (*worked.reading.findings, *verdict, *worked.supply_checks)


def _as_json(job: JobFile, worked: Worked) -> dict[str, Any]:
    """Return a worked job as JSON: each value with unit, rule, working, marks."""
    steps = {step.id: step for step in worked.steps}
    figures = []
    for figure in worked.figures:
        entry: dict[str, Any] = {"id": figure.id}
        if figure.step is not None:
            step = steps[figure.step]
            entry |= {"value": step.text, "unit": step.unit, "shown": step.shown}
        if figure.refusal is not None:
            refused = figure.refusal
            entry["refusal"] = {
                "code": refused.code,
                "detail": refused.detail,
                "field": refused.field,
                "hint": refused.hint,
            }
        figures.append(entry)
    return {
        "motor_tag": job.motor.motor_tag,
        "fingerprint": fingerprint(job),
        "core": __version__,
        "edition": worked.profile.edition if job.supply.territory == "nec" else None,
        "figures": figures,
        "steps": [
            {
                "id": step.id,
                "kind": step.kind,
                "value": step.text,
                "unit": step.unit,
                "shown": step.shown,
                "rule": None if step.rule is None else str(step.rule),
                "working": say(step.working),
                "uses": list(step.uses),
                "marks": [
                    {"kind": mark.kind, "origin": mark.origin, "text": say(mark.message)}
                    for mark in step.marks
                ],
            }
            for step in worked.steps
        ],
        "findings": [
            {
                "code": found.code,
                "level": found.level,
                "field": found.field,
                "text": say(found.message),
            }
            for found in _findings(worked)
        ],
    }


def _as_table(job: JobFile, worked: Worked, out: TextIO) -> None:
    code = f"NEC {worked.profile.edition}" if job.supply.territory == "nec" else "another code"
    print(f"{job.motor.motor_tag}  {code}", file=out)
    for finding in _findings(worked):
        print(f"  {finding.level:8} {say(finding.message)}", file=out)
    print(file=out)
    for step in worked.steps:
        marks = " ".join(sorted({mark.kind.upper() for mark in step.marks}))
        rule = "" if step.rule is None else step.rule.section
        line = f"{step.id:24} {step.said:>14}  {rule:24} {say(step.working)} {marks}"
        print(line.rstrip(), file=out)
    for figure in worked.figures:
        if figure.refusal is not None:
            print(f"{figure.id:24} {'withheld':>14}  {figure.refusal.detail}", file=out)
            print(f"{'':24} {'':>14}  {figure.refusal.hint}", file=out)
    # each mark once, however much stands on it
    told = {(mark.kind, say(mark.message)) for step in worked.steps for mark in step.marks}
    for kind, text in sorted(told):
        print(f"  {kind.upper():14} {text}", file=out)


def _size(arguments: argparse.Namespace) -> int:
    job = _load(arguments.job)
    worked = work_out_job(job)
    if arguments.format == "json":
        print(json.dumps(_as_json(job, worked), indent=2, ensure_ascii=False, allow_nan=False))
    else:
        _as_table(job, worked, sys.stdout)
    return WITHHELD if any(figure.refusal for figure in worked.figures) else OK


def _connect(arguments: argparse.Namespace) -> int:
    return cli_box.connect(arguments, _read)


def _identify(arguments: argparse.Namespace) -> int:
    return cli_box.identify(arguments, _read)


def _convert(arguments: argparse.Namespace) -> int:
    return cli_box.convert(arguments, _read)


def _room(job: JobFile) -> JobStarter:
    """Return the starter of a job, drawn.

    Raises
    ------
    CoreError
        If none is chosen, or it cannot be drawn.
    """
    starter = work_out_job(job).starter
    starter.issuable()
    return starter


def _wirelist(arguments: argparse.Namespace) -> int:
    room = _room(_load(arguments.job))
    doubts = [found for found in room.findings if found.level in {"doubt", "refusal"}]
    if arguments.format == "json":
        said = {
            "circuit": room.entry.id if room.entry else "",
            "wires": [asdict(row) for row in room.rows()],
            "material": [asdict(row) for row in room.material()],
            "findings": [
                {"code": found.code, "level": found.level, "text": say(found.message)}
                for found in room.findings
            ],
        }
        print(json.dumps(said, indent=2, ensure_ascii=False))
    elif arguments.format == "csv":
        writer = csv.writer(sys.stdout, lineterminator="\n")
        writer.writerow(["number", "from", "to", "way", "color", "wire_id"])
        for row in room.rows():
            writer.writerow([row.number, row.start, row.end, row.way, row.color, row.id])
    else:
        for row in room.rows():
            print(f"{row.number:>5}  {row.start:14} {row.end:14} {row.way:8} {row.color}")
        for found in room.findings:
            print(f"  {found.level:8} {say(found.message)}")
    return WITHHELD if doubts else OK


def _drawn(arguments: argparse.Namespace) -> Circuit:
    return _room(_load(arguments.job)).required()


def _check(arguments: argparse.Namespace) -> int:
    return OK if cli_circuit.check(arguments, _room(_load(arguments.job))) else WITHHELD


def _dead_check(arguments: argparse.Namespace) -> int:
    return OK if cli_circuit.dead_check(arguments, _drawn(arguments)) else WITHHELD


def _netlist(arguments: argparse.Namespace) -> int:
    return OK if cli_circuit.netlist(arguments, _drawn(arguments)) else WITHHELD


def _choose(arguments: argparse.Namespace) -> int:
    job = _load(arguments.job)
    is_any = cli_circuit.choose(arguments, work_out_job(job), job.starter.load)
    return OK if is_any else WITHHELD


def _rehearse(arguments: argparse.Namespace) -> int:
    room = _room(_load(arguments.job))
    scenario = read_scenario(_read(arguments.scenario))
    if room.circuit is None:
        return WRONG
    trace = rehearse(with_expectations(room.circuit), scenario)
    tags = room.circuit.tags
    if arguments.format == "json":
        print(json.dumps(trace_as_json(trace, room.circuit), indent=2, ensure_ascii=False))
    else:
        print(f"constants: {trace.set_name}; netlist {trace.fingerprint[:12]}")
        for event in trace.events:
            name = tags.get(event.device, event.device)
            print(f"{event.time / 1e6:10.4f} s  {name:12} {event.aspect:12} {event.value}")
        for hazard in trace.hazards:
            print(
                f"{hazard.time_us / 1e6:10.4f} s  {say(Message(f'hazard.{hazard.code}'))}: "
                f"{hazard.sentence}"
            )
        if trace.never_settles:
            print("the contacts never settle; stopped")
        if trace.is_cut:
            print(f"ends at {trace.until_us / 1e6:.3f} s: too many changes for one run")
    return WITHHELD if trace.hazards or trace.never_settles or trace.is_cut else OK


def _run(arguments: argparse.Namespace) -> int:
    return OK if cli_run_up.run_job(_load(arguments.job), arguments) else WITHHELD


def _trouble(arguments: argparse.Namespace) -> int:
    return OK if trouble(arguments, _drawn(arguments)) else WITHHELD


def _validate(arguments: argparse.Namespace) -> int:
    job = _load(arguments.job)
    work_out_job(job)
    said = {"valid": True, "schema": SCHEMA, "fingerprint": fingerprint(job)}
    if arguments.format == "json":
        print(json.dumps(said))
    else:
        print(f"valid, schema {SCHEMA}, {said['fingerprint']}")
    return OK


def _schedule(arguments: argparse.Namespace) -> int:
    return OK if schedule(arguments, _read(arguments.file, MOST_BYTES)) else WITHHELD


def _audit(arguments: argparse.Namespace) -> int:
    return OK if audit(arguments) else WITHHELD


def _schema(arguments: argparse.Namespace) -> int:
    del arguments
    print(json.dumps(json_schema(), indent=2, ensure_ascii=False))
    return OK


#: what is asked of one file and of thousands alike
_MANY = {"size", "connect", "convert", "validate", "choose", "check", "run", "trouble"}


def _told(action: Callable[[argparse.Namespace], int], arguments: argparse.Namespace) -> int:
    """Do a command; a refusal is printed on standard error, in the form that was asked for."""
    try:
        return action(arguments)
    except CoreError as error:
        problem = error.problem()
        if arguments.format == "json":
            print(json.dumps(problem, ensure_ascii=False), file=sys.stderr)
        else:
            print(f"{problem['field']}: {problem['detail']} {problem['hint']}", file=sys.stderr)
        return WRONG


def _each(action: Callable[[argparse.Namespace], int], arguments: argparse.Namespace) -> int:
    """Do a command on its file, or on each of its files."""
    files = files_named(arguments.jobs)
    if files == list(arguments.jobs) and len(files) == 1:
        arguments.job = files[0]
        return action(arguments)
    # what was asked goes to other processes: without what cannot
    own = argparse.Namespace(**{**vars(arguments), "action": None})
    return on_many(partial(_told, action), own, files)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="evencoil", description="Motor branch circuits with their evidence."
    )
    parser.add_argument("--version", action="version", version=__version__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, action, about in (
        ("size", _size, "work out table current and conductor, each with its evidence"),
        ("connect", _connect, "derive the joints of the leads, and tell what the joints given do"),
        ("identify", _identify, "tell what the readings on unmarked leads say, and the next one"),
        ("convert", _convert, "tell what becomes of the motor on another supply"),
        ("validate", _validate, "check a job file without showing its figures"),
        ("wirelist", _wirelist, "draw the starter and list its wires and material"),
        ("choose", _choose, "lay every starter beside the motor and the load"),
        ("check", _check, "check and prove the starter; exit 1 if something must be changed"),
        ("deadcheck", _dead_check, "list the ohm readings that tell every wire"),
        ("netlist", _netlist, "write the starter's netlist as text"),
        ("run", _run, "run the motor up on its load in every way it can be started"),
        ("trouble", _trouble, "tell what can be wrong and the next reading; exit 0 if one is left"),
        ("rehearse", _rehearse, "play a scenario on the starter; exit 1 if a hazard shows"),
    ):
        command = commands.add_parser(name, help=about, description=about)
        if name in _MANY:
            add_many_arguments(command)
        else:
            command.add_argument(
                "job", metavar="JOB.json", help="a job file, or - for standard input"
            )
        if name == "rehearse":
            command.add_argument(
                "scenario", metavar="SCENARIO.json", help="operator actions and their times"
            )
        if name == "convert":
            command.add_argument("--supply", required=True, help='the new supply, as "480Y/277"')
        if name == "trouble":
            add_trouble_arguments(command)
        if name == "run":
            cli_run_up.add_arguments(command)
        has_csv = name in {"wirelist", "run"}
        forms = ("table", "json", "csv") if has_csv else ("table", "json")
        command.add_argument("--format", choices=forms, default="table")
        command.set_defaults(action=partial(_each, action) if name in _MANY else action)
    table = commands.add_parser(
        "schedule", help="read a table of motors into job files; exit 1 if a line was not taken"
    )
    add_schedule_arguments(table)
    table.set_defaults(action=_schedule)
    many = commands.add_parser(
        "audit", help="hold many jobs against the rules, worst first; exit 1 if one does not hold"
    )
    add_audit_arguments(many)
    many.set_defaults(action=_audit)
    schema = commands.add_parser("schema", help="print the JSON Schema of job files")
    schema.set_defaults(action=_schema, format="json")
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command line.

    Parameters
    ----------
    argv : sequence of str, optional
        Arguments after the program's name; those of the process if omitted.

    Returns
    -------
    int
        The exit code: 0, 1 or 2 as told above.
    """
    arguments = _parser().parse_args(argv)
    with speaking(Names()):
        return _told(arguments.action, arguments)


if __name__ == "__main__":
    sys.exit(main())
