"""Commands about the box of a job: joints, unmarked leads, another supply.

Exit codes as everywhere: 0 all is well, 1 something is wrong or withheld, 2 the input is wrong.
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable
from typing import Any

from evencoil.base import plain, say, show
from evencoil.job import load, work_out_job
from evencoil.leads import guide_bench
from evencoil.machine import MachineMotor, convert_motor
from evencoil.plate import SupplyInputs

__all__ = ["connect", "convert", "identify"]

OK, WITHHELD = 0, 1
#: reads a file by its name
Read = Callable[[str], bytes]


def connect(arguments: argparse.Namespace, read: Read) -> int:
    """Print the joints of the box, and what the joints entered do.

    Parameters
    ----------
    arguments : Namespace
        The job file and the format.
    read : callable
        Reads the file.
    """
    job = load(read(arguments.job))
    box = work_out_job(job).box
    said: dict[str, Any] = {
        "motor_tag": job.motor.motor_tag,
        "winding": None if box.winding is None else box.winding.kind,
    }
    if box.derived is not None:
        said["connection"] = box.derived.name
        said["is_switched_by_starter"] = box.is_switched
        said["joints"] = [
            {
                "line": joint.line,
                "leads": list(joint.leads),
                "to_starter": joint.to_starter,
                "conductors": joint.conductors,
            }
            for joint in box.intended
        ]
        said["notes"] = [say(note) for note in box.notes]
        said["tell"] = "" if box.tell is None else say(box.tell)
        said["rotation"] = "" if box.rotation_note is None else say(box.rotation_note)
    if box.states is not None:
        said["states"] = {
            state: {
                "connection": known.name,
                "joints": [
                    {"line": joint.line, "leads": list(joint.leads)} for joint in known.joints
                ],
                "free": list(known.free(box.winding)) if box.winding else [],
            }
            for state, known in box.states.states.items()
        }
    error = box.derived_error
    if error is not None:
        said["refusal"] = error.problem()
    if box.outcome is not None and job.leads.joints:
        said["as_joined"] = {
            "verdict": box.outcome.verdict,
            "connection": box.outcome.name,
            "coils": [
                {
                    "coil": coil.name,
                    "from": coil.start,
                    "to": coil.end,
                    "volts_v": round(coil.volts_v, 1),
                    "running_v": round(coil.running_v, 1),
                    "starting_times": round(coil.starting_times, 1),
                    "running_times": round(coil.running_times, 1),
                    "rated_v": round(coil.rated_v, 1),
                    "angle_deg": round(coil.angle_deg, 1),
                }
                for coil in box.outcome.coils
            ],
            "findings": [
                {
                    "level": found.level,
                    "says": say(found.message),
                    "do": "" if found.hint is None else say(found.hint),
                }
                for found in box.outcome.findings
            ],
        }
    if box.outcome_error is not None:
        said["as_joined"] = {"refusal": box.outcome_error.problem()}
    if arguments.format == "json":
        print(json.dumps(said, indent=2, ensure_ascii=False, allow_nan=False))
    else:
        _connect_table(said)
    is_wrong = "as_joined" in said and said["as_joined"].get("verdict") != "right"
    return WITHHELD if error is not None or is_wrong else OK


def identify(arguments: argparse.Namespace, read: Read) -> int:
    """Print what the readings on unmarked leads tell, and the next one to take.

    Parameters
    ----------
    arguments : Namespace
        The job file and the format.
    read : callable
        Reads the file.
    """
    bench = load(read(arguments.job)).bench
    found = guide_bench(bench)
    ask = found.ask
    said: dict[str, Any] = {
        "stage": found.stage,
        "kinds": list(found.kinds),
        "left": found.left,
        "about": found.about,
        "numbers": dict(found.numbers),
        "doubtful": list(found.doubtful),
        "notes": [say(note) for note in found.notes],
        "ask": None
        if ask is None
        else {
            "what": ask.what,
            "pair": list(ask.pair),
            "feed": list(ask.feed),
            "joined": [list(pair) for pair in ask.joined],
        },
    }
    if arguments.format == "json":
        print(json.dumps(said, indent=2, ensure_ascii=False, allow_nan=False))
    else:
        print(
            f"{found.stage}: {', '.join(found.kinds)}, {found.left} left, about {found.about} more"
        )
        for letter, lead in sorted(found.numbers.items()):
            print(f"  {letter}  {lead}")
        if ask is not None:
            feed = f"feed {'-'.join(ask.feed)}, " if ask.feed else ""
            joined = "".join(f"join {one}-{other}, " for one, other in ask.joined)
            verb = "touch" if ask.what == "touch" else "read"
            print(f"  next: {feed}{joined}{verb} {'-'.join(ask.pair)}")
        for note in said["notes"]:
            print(f"  {note}")
    return OK if found.stage == "done" else WITHHELD


def convert(arguments: argparse.Namespace, read: Read) -> int:
    """Print what becomes of the motor on another supply: moves, sizes, heaters, ways out.

    Parameters
    ----------
    arguments : Namespace
        The job file, the new supply and the format.
    read : callable
        Reads the file.
    """
    job = load(read(arguments.job))
    found = convert_motor(
        MachineMotor(
            tag=job.motor.motor_tag,
            plate=job.plate,
            supply=job.supply,
            leads=job.leads,
            size=job.size,
        ),
        SupplyInputs(text=arguments.supply),
        job.profile.as_core(),
    )
    after = found.after.derived
    said: dict[str, Any] = {
        "motor_tag": found.tag,
        "answer": found.answer,
        "connection": None if after is None else after.name,
        "moves": [say(move) for move in found.moves],
        "amps_before": None if found.amps_before is None else plain(found.amps_before),
        "amps_after": None if found.amps_after is None else plain(found.amps_after),
        "sizes": [
            {"figure": row.figure, "before": row.before, "after": row.after}
            for row in found.changed
        ],
        "heaters": "" if found.left is None else say(found.left),
        "refusal": None if found.reason is None else found.reason.problem(),
        "ways_out": [say(way) for way in found.ways_out],
        "load_kva": None if found.load_kva is None else show(found.load_kva),
    }
    if arguments.format == "json":
        print(json.dumps(said, indent=2, ensure_ascii=False, allow_nan=False))
    else:
        print(f"{found.tag}  {found.answer}  {said['connection'] or ''}")
        for line in (*said["moves"], *said["ways_out"]):
            print(f"  {line}")
        for row in said["sizes"]:
            print(f"  {row['figure']:24} {row['before']} -> {row['after']}")
        if said["heaters"]:
            print(f"  {said['heaters']}")
        if said["load_kva"]:
            print(f"  {said['load_kva']} kVA for a transformer of its own")
        if found.reason is not None:
            print(f"  {found.reason} {say(found.reason.hint)}")
    return OK if found.answer == "can" else WITHHELD


def _connect_table(said: dict[str, Any]) -> None:
    print(f"{said['motor_tag']}  {said['winding'] or 'winding not known'}")
    for joint in said.get("joints", []):
        line = joint["line"] or (f"to {joint['to_starter']}" if joint["to_starter"] else "  ")
        print(f"  {line}  {' '.join(joint['leads']):16} {joint['conductors']} conductors")
    for note in said.get("notes", []):
        print(f"  {note}")
    for name in ("tell", "rotation"):
        if said.get(name):
            print(f"  {said[name]}")
    if "refusal" in said:
        print(f"  withheld: {said['refusal']['detail']} {said['refusal']['hint']}")
    for coil in said.get("as_joined", {}).get("coils", []):
        print(
            f"  {coil['from']}-{coil['to']:4} {coil['volts_v']:8.1f} V at standstill,"
            f" {coil['running_v']:.1f} V at full speed, of {coil['rated_v']:.1f} V"
        )
    for found in said.get("as_joined", {}).get("findings", []):
        print(f"  {found['says']} {found['do']}".rstrip())
    refusal = said.get("as_joined", {}).get("refusal")
    if refusal is not None:
        print(f"  as joined: {refusal['detail']} {refusal['hint']}")
