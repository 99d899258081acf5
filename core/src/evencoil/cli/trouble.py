"""``evencoil trouble JOB.json --symptom hums``: what can be wrong, and the next reading.

Readings taken go in as ``--read ID=VALUE``, with ohms, volts, amps, ``open`` or a word.
"""

from __future__ import annotations

import argparse
import json
import math
from dataclasses import asdict

from evencoil.base import Message, OutOfRangeError
from evencoil.circuit import Circuit
from evencoil.trouble import AGES, Answer, Case, field_of, hunt, said_hunt, symptoms

__all__ = ["add_trouble_arguments", "trouble"]


def add_trouble_arguments(parser: argparse.ArgumentParser) -> None:
    """Add the symptom, the age, and what was read.

    Parameters
    ----------
    parser : ArgumentParser
        Of the command.
    """
    parser.add_argument("--symptom", required=True, choices=list(symptoms()), metavar="SYMPTOM")
    parser.add_argument(
        "--age", choices=AGES, default="y1", help="y0 new, y1 to 10 years, y2 older"
    )
    parser.add_argument("--after-work", action="store_true", help="it began after work on it")
    parser.add_argument(
        "--read", action="append", default=[], metavar="ID=VALUE", help="a reading that was taken"
    )


def _answer(told: str) -> Answer:
    reading, sign, value = told.rpartition("=")
    if not sign:
        raise OutOfRangeError(
            Message("trouble.value"), field="read", hint=Message("trouble.value.hint")
        )
    if value == "cannot":
        return Answer(reading=reading, how="cannot")
    if value == "open":
        return Answer(reading=reading, value=math.inf)
    try:
        return Answer(reading=reading, value=float(value))
    except ValueError:
        return Answer(reading=reading, word=value)


def trouble(arguments: argparse.Namespace, circuit: Circuit) -> bool:
    """Print how a hunt stands; tell whether one cause is left.

    Parameters
    ----------
    arguments : Namespace
        ``symptom``, ``age``, ``after_work``, ``read``, and ``format``: ``table`` or ``json``.
    circuit : Circuit
        Drawn for its job.
    """
    field = field_of(circuit, with_work=arguments.after_work)
    case = Case(symptom=arguments.symptom, age=arguments.age, after_work=arguments.after_work)
    answers = [_answer(one) for one in arguments.read]
    said = said_hunt(field, case, hunt(field, case, answers))
    if arguments.format == "json":
        print(json.dumps(asdict(said), indent=2, ensure_ascii=False, allow_nan=False))
        return said.state == "found"
    print(f"{said.symptom}: {said.wording} ({said.candidates} single faults, {said.state})")
    for one in said.groups[:8]:
        print(f"{one.percent:6.1f} %  {' / '.join(one.faults[:2])}")
    if said.offer is not None:
        print(f"next: {said.offer.said}  [{said.offer.id}]")
        for hold in said.offer.hold:
            print(f"      hold: {hold}")
        if said.offer.caution:
            print(f"      {said.offer.caution}")
    for line in (*said.doubts, said.repair, *said.prove):
        if line:
            print(f"- {line}")
    return said.state == "found"
