"""``evencoil run JOB.json``: the run-up of a job, as text, JSON or CSV.

Load and fault can be tried without changing the file: ``--load fan``, ``--torque 80``,
``--fault fuse``. A run that does not end at speed exits with 1.
"""

from __future__ import annotations

import argparse
import csv
import json
import sys
from decimal import Decimal
from typing import Any, get_args

from pydantic import ValidationError

from evencoil.base import Message, OutOfRangeError, say
from evencoil.job import JobFile, JobRunUp, run_up_of, work_out_job
from evencoil.run_up import CAUSES, FaultSheet, LoadInputs, LoadKind, MethodSheet, RunUpSheet
from evencoil.solver.motor import rpm

__all__ = ["add_arguments", "run_job"]

#: what can be tried, and the input it stands for
_TRIED = {"load": "kind", "torque": "torque_percent", "inertia": "inertia_lb_ft2"}
_COLUMNS = (
    "method",
    "time_s",
    "speed_rpm",
    "torque_nm",
    "load_nm",
    "line_a",
    "relay",
    "hottest_c",
    "supply_v",
)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Add what can be tried without changing the file.

    Parameters
    ----------
    parser : ArgumentParser
        Of the command.
    """
    kinds = [kind for kind in get_args(LoadKind) if kind]
    parser.add_argument("--load", choices=kinds, help="kind of load instead of the file's")
    parser.add_argument("--torque", help="torque of the load at rated speed, percent of rated")
    parser.add_argument("--inertia", help="inertia of the load at the motor shaft, lb ft2")
    parser.add_argument("--fault", choices=["all", *CAUSES], help="show what a fault does")


def _asked(job: JobFile, arguments: argparse.Namespace) -> JobRunUp:
    inputs = job.inputs
    told: dict[str, Any] = inputs.load.model_dump()
    for name, field in (
        ("load", "kind"),
        ("torque", "torque_percent"),
        ("inertia", "inertia_lb_ft2"),
    ):
        if getattr(arguments, name) is not None:
            told[field] = getattr(arguments, name)
    try:
        load = LoadInputs.model_validate(told)
    except ValidationError as wrong:
        first = wrong.errors()[0]
        raise OutOfRangeError(
            Message("run_up.option", {"value": str(first["input"])[:40]}),
            field=f"load.{first['loc'][0]}",
            hint=Message("run_up.option.hint"),
        ) from wrong
    return run_up_of(inputs.model_copy(update={"load": load}), work_out_job(job))


def run_job(job: JobFile, arguments: argparse.Namespace) -> bool:
    """Print the run-up of a job; return whether its own way to start ends at speed.

    Parameters
    ----------
    job : JobFile
        As read.
    arguments : Namespace
        With what `add_arguments` adds.

    Raises
    ------
    CoreError
        If something is missing, or such a motor is not calculated.
    """
    ready = _asked(job, arguments)
    if arguments.fault:
        _faults(ready.faults(), arguments.fault, arguments.format)
        return True
    sheet = ready.sheet()
    if arguments.format == "json":
        print(json.dumps(_as_json(ready, sheet), indent=2, ensure_ascii=False))
    elif arguments.format == "csv":
        _as_csv(ready, sheet)
    else:
        _as_text(ready, sheet)
    own = next((one for one in sheet.methods if one.method == ready.own), sheet.methods[0])
    return own.is_good


def _as_text(ready: JobRunUp, sheet: RunUpSheet) -> None:
    for step in ready.facts.all_steps:
        mark = "assumed" if step.kind == "assumed" else ""
        print(
            f"{say(Message(f'label.{step.id}')):40} {step.shown:>10} {step.unit:8} {mark}".rstrip()
        )
    for one in sheet.methods:
        print(f"{one.method:20} {say(one.verdict)}")
        for found in one.findings:
            print(f"{'':20} {say(found)}")
    for refused in sheet.refused:
        print(f"{refused.method:20} {say(refused.error.message)}")


def _rows(ready: JobRunUp, one: MethodSheet) -> list[list[object]]:
    return [
        [
            one.method,
            round(sample.time_s, 4),
            round(rpm(sample.speed_rad_s), 1),
            round(sample.torque_nm, 2),
            round(sample.load_nm, 2),
            round(max(sample.line_a), 2),
            round(sample.relay, 4),
            round(max(sample.rise_k) + ready.facts.ambient_c, 1),
            round(sample.supply_v, 1),
        ]
        for sample in one.run.samples
    ]


def _as_csv(ready: JobRunUp, sheet: RunUpSheet) -> None:
    writer = csv.writer(sys.stdout, lineterminator="\n")
    writer.writerow(_COLUMNS)
    for one in sheet.methods:
        writer.writerows(_rows(ready, one))


def _as_json(ready: JobRunUp, sheet: RunUpSheet) -> dict[str, Any]:
    return {
        "own": ready.own,
        "facts": [
            {
                "id": step.id,
                "value": str(step.value) if isinstance(step.value, Decimal) else step.text,
                "unit": step.unit,
                "kind": step.kind,
            }
            for step in ready.facts.all_steps
        ],
        "methods": [
            {
                "method": one.method,
                "verdict": say(one.verdict),
                "is_good": one.is_good,
                "start_a": round(one.start_a, 2),
                "start_torque_percent": round(one.start_torque_percent, 1),
                "sag_percent": None if one.sag_percent is None else round(one.sag_percent, 2),
                "at_speed_s": one.run.at_speed_s,
                "findings": [say(found) for found in one.findings],
                "columns": list(_COLUMNS[1:]),
                "samples": [row[1:] for row in _rows(ready, one)],
            }
            for one in sheet.methods
        ],
        "refused": {one.method: say(one.error.message) for one in sheet.refused},
    }


def _faults(sheet: FaultSheet, cause: str, form: str) -> None:
    states = [one for one in sheet.states if cause in {"all", one.cause}]
    if form == "json":
        told = [
            {
                "cause": one.cause,
                "is_running": one.is_running,
                "speed_rpm": round(one.speed_rpm, 1),
                "torque_percent": round(one.torque_percent, 1),
                "line_a": dict(one.line_a),
                "coil_a": dict(one.coil_a),
                "motor_v": dict(one.motor_v),
                "relay_trips_s": one.trips_s,
                "winding_burns_s": one.burns_s,
                "said": say(one.said),
            }
            for one in states
        ]
        print(json.dumps(told, indent=2, ensure_ascii=False))
        return
    for one in states:
        print(say(one.said))
    for found in sheet.findings:
        print(say(found))
