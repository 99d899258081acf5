"""Commands about the circuit of a job: checks, proofs, dead checks, choosing, its netlist.

Exit codes as everywhere: 0 all is well, 1 something does not hold, 2 the input is wrong.
"""

from __future__ import annotations

import argparse
import json
import math
from collections.abc import Sequence
from decimal import Decimal
from typing import Any

from evencoil.base import Message, say
from evencoil.checks import (
    Check,
    Hand,
    Proof,
    dead_checks,
    isolations_of,
    prove,
    said_hand,
    with_expectations,
)
from evencoil.circuit import Circuit, write_netlist
from evencoil.job import JobStarter, Worked, choices
from evencoil.rehearsal import probes

__all__ = ["check", "choose", "dead_check", "netlist"]


def _print(arguments: argparse.Namespace, said: Any, lines: Sequence[str]) -> None:
    if arguments.format == "json":
        print(json.dumps(said, indent=2, ensure_ascii=False, allow_nan=False))
    else:
        for line in lines:
            print(line)


def check(arguments: argparse.Namespace, room: JobStarter) -> bool:
    """Print what is wrong with a circuit, what isolators leave live, scenario tests and proofs.

    Parameters
    ----------
    arguments : Namespace
        ``format`` is ``table`` or ``json``.
    room : JobStarter
        Drawn for its job.

    Returns
    -------
    bool
        True if nothing has to be changed or accepted, every proof holds, and no test found
        anything that nobody accepted.
    """
    circuit = room.required()
    found = room.problems()
    open_findings = [one for one in room.findings if room.holds_back(one)]
    tags = circuit.tags
    isolated = isolations_of(circuit)
    played = probes(with_expectations(circuit))
    proven = [prove(circuit, "hands"), prove(circuit, "weld")]
    said: dict[str, Any] = {
        "found": [
            {
                "rule": one.rule,
                "level": one.level,
                "text": say(one.message),
                "change": say(one.change),
                "devices": [tags.get(name, name) for name in one.devices],
            }
            for one in found
        ],
        "holds_back": [
            {"code": one.code, "level": one.level, "text": say(one.message)}
            for one in open_findings
        ],
        "isolators": [
            {
                "isolator": tags.get(one.device, one.device),
                "live": [circuit.said(end) for end in one.live],
                "can_pull_in": [tags.get(name, name) for name in one.coils],
                "motors": [tags.get(name, name) for name in one.motors],
            }
            for one in isolated
        ],
        "probes": [
            {
                "family": one.family,
                "holds": one.holds and one.is_tried,
                "tried": one.is_tried,
                "accepted": one.family in room.accepted,
                "scenarios": one.searched,
                "sequence": [say(act) for act in one.acts],
            }
            for one in played
        ],
        "proofs": [
            {
                "kind": one.kind,
                "holds": one.holds,
                "exhausted": one.is_exhausted,
                "states": one.states,
                "transitions": one.transitions,
                "depth": one.depth,
                "whole_depth": one.whole_depth,
                "broken": [
                    {"hazard": item.code, "sequence": [say(act) for act in item.acts]}
                    for item in one.broken
                ],
            }
            for one in proven
        ],
    }
    lines = [f"{one.rule}  {one.level:6} {say(one.message)} {say(one.change)}" for one in found]
    lines += [f"{one.code}  {one.level} {say(one.message)}" for one in open_findings]
    lines += [
        f"{row['isolator']} open: {len(row['live'])} nets live, "
        f"{', '.join(row['can_pull_in']) or 'nothing'} can pull in"
        for row in said["isolators"]
    ]
    for one in played:
        how = " → ".join(say(act) for act in one.acts)
        told = "none found" if one.is_tried else "not tried: nothing here to try"
        accepted = ", accepted" if not one.holds and one.family in room.accepted else ""
        lines.append(
            f"{one.family:16} {told if one.holds else how} ({one.searched} scenarios run{accepted})"
        )
    for proof in proven:
        how = "; ".join(
            f"{item.code}: {' → '.join(say(act) for act in item.acts)}" for item in proof.broken
        )
        cut = f"search stopped: every sequence of up to {proof.whole_depth} actions was tried"
        state = "holds" if proof.holds else how or cut
        lines.append(
            f"proof {proof.kind:6} {state} ({proof.states} states, {proof.transitions} "
            f"transitions, {proof.depth} deep)"
        )
    _print(arguments, said, lines)
    return (
        all(one.level != "error" for one in found)
        and not open_findings
        and all(one.holds or one.family in room.accepted for one in played)
        and all(_stands(one, room.accepted) for one in proven)
    )


def _stands(proof: Proof, accepted: frozenset[str]) -> bool:
    """Tell whether a proof holds, or meets only an unexpected start that was accepted."""
    met = {one.code for one in proof.broken}
    return proof.holds or (proof.is_exhausted and bool(accepted) and met <= {"springs_to_life"})


def _said(circuit: Circuit, one: Check, apart: Sequence[Hand]) -> str:
    hands = [said_hand(circuit, hand) for hand in one.hands if hand not in apart]
    return ", ".join(hands) or say(Message("dead.hands.none"))


def dead_check(arguments: argparse.Namespace, circuit: Circuit) -> bool:
    """Print the ohm readings that tell every wire of a circuit.

    Parameters
    ----------
    arguments : Namespace
        ``format`` is ``table`` or ``json``.
    circuit : Circuit
        As drawn.

    Returns
    -------
    bool
        True if every wire is detected by some reading.
    """
    found = dead_checks(circuit)
    said: dict[str, Any] = {
        "apart": [said_hand(circuit, hand) for hand in found.apart],
        "checks": [
            {
                "from": circuit.said(one.start),
                "to": circuit.said(one.end),
                "hands": _said(circuit, one, found.apart),
                "kind": one.kind,
                "ohms": None if math.isinf(one.ohms) else round(one.ohms, 1),
                "wires": list(one.covers),
            }
            for one in found.checks
        ],
        "untold": list(found.untold),
        "not_shown": [say(one) for one in found.blind],
        "mistakes": found.mistakes,
    }
    lines = [f"first: {', '.join(said['apart']) or 'nothing'}"]
    for one in found.checks:
        reads = "open" if math.isinf(one.ohms) else f"{one.ohms:.1f} ohm"
        lines.append(
            f"{circuit.said(one.start):12} {circuit.said(one.end):12} {reads:12} "
            f"{_said(circuit, one, found.apart)}"
        )
    lines.append(f"{found.shown} of {found.mistakes} single mistakes show; not these:")
    lines += [f"  {text}" for text in said["not_shown"]]
    _print(arguments, said, lines)
    return not found.untold


def _tenths(value: Decimal | None) -> str | None:
    return None if value is None else f"{value:.1f}"


def choose(arguments: argparse.Namespace, worked: Worked, load: str) -> bool:
    """Print every starter beside this motor and this load.

    Parameters
    ----------
    arguments : Namespace
        ``format`` is ``table`` or ``json``.
    worked : Worked
        The job.
    load : str
        ``empty``, ``loaded`` or ``unknown``.

    Returns
    -------
    bool
        True if any starter can.
    """
    found = choices(worked, load)  # type: ignore[arg-type]  # one of the three words
    said = [
        {
            "id": one.id,
            "verdict": one.verdict,
            "line_percent": _tenths(one.line_percent),
            "line_a": _tenths(one.line_a),
            "torque_percent": _tenths(one.torque_percent),
            "reason": say(one.reason),
            "hazards": [say(Message(f"restart.{name}")) for name in one.hazards],
        }
        for one in found
    ]
    lines = [
        f"{one.id:4} {one.verdict:7} line {_tenths(one.line_percent) or '—':>5} %  torque "
        f"{_tenths(one.torque_percent) or '—':>5} %  {say(one.reason)}"
        for one in found
    ]
    _print(arguments, said, lines)
    return any(one.verdict == "can" for one in found)


def netlist(arguments: argparse.Namespace, circuit: Circuit) -> bool:
    """Print a circuit as a netlist file.

    Parameters
    ----------
    arguments : Namespace
        ``format`` does not matter: a netlist has its own.
    circuit : Circuit
        As drawn.
    """
    del arguments
    print(write_netlist(circuit), end="")
    return True
