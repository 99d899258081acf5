"""One command on many job files: a file that is wrong takes no other with it.

Each file is answered as it is alone, by one of several processes, and printed in the order of the
files: under its name as text, as one JSON object a line, or with its name in the first column.
"""

from __future__ import annotations

import argparse
import io
import json
import sys
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from functools import partial
from multiprocessing import get_context
from pathlib import Path
from typing import Protocol, TypeVar

from evencoil.base import FileFormatError, Message, Names, counted, speaking

__all__ = [
    "MOST_PROCESSES",
    "Answered",
    "One",
    "add_many_arguments",
    "files_named",
    "in_processes",
    "on_many",
]

Result = TypeVar("Result")

#: answers that are waited for at once, of each process: thousands of files are not in memory
_AHEAD = 32
MOST_PROCESSES = 64


class One(Protocol):
    """What does one command on one file: prints its answer and returns its exit code."""

    def __call__(self, arguments: argparse.Namespace) -> int:
        """Answer for ``arguments.job``."""


@dataclass(frozen=True, slots=True)
class Answered:
    """A file, its exit code, what was printed, and what was said of an error."""

    name: str
    code: int
    out: str
    error: str


def add_many_arguments(parser: argparse.ArgumentParser) -> None:
    """Add the files and how many processes share them.

    Parameters
    ----------
    parser : ArgumentParser
        Of the command.
    """
    parser.add_argument(
        "jobs",
        nargs="+",
        metavar="JOB.json",
        help="job files or folders of them; - alone for standard input",
    )
    parser.add_argument(
        "--processes",
        type=int,
        default=1,
        metavar="N",
        help=f"1 to {MOST_PROCESSES}, for many files",
    )


def files_named(names: Sequence[str]) -> list[str]:
    """Return the job files named, those of a folder in the order of their names.

    Parameters
    ----------
    names : sequence of str
        Files and folders.

    Raises
    ------
    FileFormatError
        If there is no file at all.
    """
    found: list[str] = []
    for name in names:
        path = Path(name)
        found += sorted(str(one) for one in path.glob("*.json")) if path.is_dir() else [name]
    if not found:
        raise FileFormatError(
            Message("audit.no_file"), field="files", hint=Message("audit.no_file.hint")
        )
    return found


def _alone(one: One, arguments: argparse.Namespace, name: str) -> Answered:
    """Answer for one file as if there were no other."""
    own = argparse.Namespace(**{**vars(arguments), "job": name})
    out, error = io.StringIO(), io.StringIO()
    with speaking(Names()), redirect_stdout(out), redirect_stderr(error):
        code = one(own)
    return Answered(name, code, out.getvalue(), error.getvalue())


def in_processes(
    work: Callable[[str], Result], files: Sequence[str], processes: int
) -> Iterator[Result]:
    """Yield what is made of each file, in their order, by so many processes.

    Parameters
    ----------
    work : callable
        A function of a module, or a `partial` of one: it goes to other processes.
    files : sequence of str
        What it is given, one after another.
    processes : int
        As asked for; 1 to `MOST_PROCESSES` are started.
    """
    processes = max(1, min(MOST_PROCESSES, processes))
    if processes == 1:
        yield from map(work, files)
        return
    # begun anew and not copied: nothing of this process is theirs
    with ProcessPoolExecutor(processes, mp_context=get_context("spawn")) as pool:
        step = processes * _AHEAD
        for start in range(0, len(files), step):
            yield from pool.map(work, files[start : start + step], chunksize=4)


def on_many(one: One, arguments: argparse.Namespace, files: Sequence[str]) -> int:
    """Print every file's answer and return the worst exit code; a last line counts them.

    Parameters
    ----------
    one : One
        The command on one file. It tells its own errors, as the command alone does.
    arguments : Namespace
        Of the command; ``format`` is the form of the answers.
    files : sequence of str
        Two or more.
    """
    codes = {0: 0, 1: 0, 2: 0}
    has_head = False
    work = partial(_alone, one, arguments)
    for answer in in_processes(work, files, arguments.processes):
        codes[answer.code] += 1
        if arguments.format == "json":
            print(_as_line(answer))
        elif arguments.format == "csv":
            has_head = _rows(answer, has_head=has_head)
        else:
            print(f"== {answer.name}")
            print(answer.out, end="")
        if answer.error and arguments.format != "json":
            print(f"{answer.name}: {answer.error}", end="", file=sys.stderr)
    print(
        f"{counted(str(len(files)), 'file', 'files')}: {codes[0]} whole, {codes[1]} with something"
        f" withheld or found, {codes[2]} wrong",
        file=sys.stderr,
    )
    return max(code for code, count in codes.items() if count)


def _as_line(answer: Answered) -> str:
    """Return a file's answer as one line of JSON."""
    said: dict[str, object] = {"file": answer.name, "exit": answer.code}
    if answer.out:
        said["answer"] = json.loads(answer.out)
    if answer.error:
        said["error"] = json.loads(answer.error)
    return json.dumps(said, ensure_ascii=False)


def _rows(answer: Answered, *, has_head: bool) -> bool:
    """Print a file's rows, each with its name; the heading once. Tell whether it was printed."""
    lines = answer.out.splitlines()
    name = '"' + answer.name.replace('"', '""') + '"'
    for place, line in enumerate(lines):
        if place == 0:
            if not has_head:
                print(f"file,{line}")
            continue
        print(f"{name},{line}")
    return has_head or bool(lines)
