"""``evencoil schedule MOTORS.csv``: a table of motors to job files, its bad lines to a repair file.

Columns are guessed from their heads; ``--map FIELD=HEAD`` says it where the guess is wrong.
"""

from __future__ import annotations

import argparse
import json
import re
import uuid
from pathlib import Path

from evencoil.base import Message, OutOfRangeError, say
from evencoil.job import FileMotor, JobFile, dump
from evencoil.schedule import Entry, Mapped, Schedule, Sheet, open_table, repair_file

__all__ = ["add_schedule_arguments", "schedule"]

#: job files of one schedule and tag have one id: reading it again makes no second motor
_SPACE = uuid.UUID("6f1a2c0e-52d5-4c58-9a5e-5a4d3f7b9c11")
_MOST_SHOWN = 40


def add_schedule_arguments(parser: argparse.ArgumentParser) -> None:
    """Add the mapping of columns, and the files to write.

    Parameters
    ----------
    parser : ArgumentParser
        Of the command.
    """
    parser.add_argument("file", metavar="MOTORS.csv", help="a table with a head, CSV or XLSX, or -")
    parser.add_argument(
        "--map", action="append", default=[], metavar="FIELD=HEAD", help="a column by its head"
    )
    parser.add_argument("--out", metavar="DIR", help="write a job file for each good line")
    parser.add_argument("--bad", metavar="FILE.csv", help="write the bad lines to be repaired")
    parser.add_argument("--format", choices=("table", "json"), default="table")


def _told(maps: list[str]) -> dict[str, str]:
    found = {}
    for one in maps:
        field, sign, head = one.partition("=")
        if not sign:
            raise OutOfRangeError(
                Message("schedule.map", {"told": one[:60]}),
                field="map",
                hint=Message("schedule.map.hint"),
            )
        found[field] = head
    return found


def _job(entry: Entry) -> JobFile:
    key = uuid.uuid5(_SPACE, entry.tag.casefold())
    motor = FileMotor(id=key, motor_tag=entry.tag, name=entry.name, machine=entry.machine)
    return JobFile.model_validate(
        {**entry.inputs.model_dump(), "job_id": uuid.uuid5(key, "job"), "motor": motor}
    )


def _write(folder: Path, entries: tuple[Entry, ...]) -> int:
    folder.mkdir(parents=True, exist_ok=True)
    for entry in entries:
        job, name = _job(entry), re.sub(r"[^A-Za-z0-9._-]", "_", entry.tag)
        if name != entry.tag or name.startswith("."):
            # two tags may be one name once their letters are gone
            name = f"motor_{name.lstrip('.')}_{job.motor.id.hex[:8]}"
        (folder / f"{name}.json").write_bytes(dump(job))
    return len(entries)


def schedule(arguments: argparse.Namespace, data: bytes) -> bool:
    """Print what was read of a schedule and write its files; tell whether every line was good.

    Parameters
    ----------
    arguments : Namespace
        ``map``, ``out``, ``bad`` and ``format``.
    data : bytes
        The table.
    """
    table = open_table(data, _told(arguments.map))
    sheet, mapped, found = table.sheet, table.mapped, table.schedule
    if arguments.out:
        _write(Path(arguments.out), found.entries)
    if arguments.bad:
        # newlines are the file's own
        Path(arguments.bad).write_bytes(repair_file(sheet, found).encode("utf-8-sig"))
    if arguments.format == "json":
        print(json.dumps(_as_json(sheet, mapped, found), indent=2, ensure_ascii=False))
    else:
        _as_text(sheet, mapped, found)
    return not found.bad


def _as_json(sheet: Sheet, mapped: Mapped, found: Schedule) -> dict[str, object]:
    return {
        "encoding": sheet.encoding,
        "is_encoding_guessed": sheet.is_guess,
        "delimiter": sheet.delimiter,
        "sheet": sheet.name,
        "columns": {field: sheet.heads[place] for field, place in mapped.place_of.items()},
        "left_out": [sheet.heads[place] for place in mapped.left],
        "doubled": {sheet.heads[place]: field for place, field in mapped.doubled},
        "good": len(found.entries),
        "bad_lines": len(found.bad_lines),
        "bad": [
            {
                "line": one.line,
                "field": one.field,
                "value": one.value,
                "reason": say(one.reason),
                "hint": say(one.hint),
            }
            for one in found.bad
        ],
        "doubts": [
            {"line": one.line, "tag": one.tag, "said": [say(text) for text in one.doubts]}
            for one in found.entries
            if one.doubts
        ],
    }


def _as_text(sheet: Sheet, mapped: Mapped, found: Schedule) -> None:
    guessed = ", a guess: look at letters beyond a to z" if sheet.is_guess else ""
    how = f"{sheet.encoding}{guessed}, delimiter {sheet.delimiter!r}"
    print(f"{len(sheet.lines)} lines, {f'sheet {sheet.name}' if sheet.name else how}")
    for field, place in mapped.place_of.items():
        print(f"  {field:16} {sheet.heads[place]}")
    for place in mapped.left:
        print(f"  {'left out':16} {sheet.heads[place]}")
    for place, field in mapped.doubled:
        print(f"  {'left out':16} {sheet.heads[place]}: another column gives {field} already")
    print(f"{len(found.entries)} motors, {len(found.bad_lines)} lines not taken")
    for one in found.bad[:_MOST_SHOWN]:
        print(f"line {one.line}, {one.field}: {say(one.reason)} {say(one.hint)}")
    if len(found.bad) > _MOST_SHOWN:
        print(f"and {len(found.bad) - _MOST_SHOWN} more bad cells")
    for entry in found.entries[:_MOST_SHOWN]:
        for text in entry.doubts:
            print(f"line {entry.line}, {entry.tag}: {say(text)}")
