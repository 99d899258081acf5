"""What starts a single-phase motor: capacitors, start switch or relay, protector.

The main winding alone makes no turning field; the start winding, with what lies
in series with it, does. From the parts found the kind of motor follows, the path
of the start current, a dead test of each part, and what cannot be.

Units: capacitance [uF], resistance [ohm], volts [V].
Source: textbook single-phase induction motors; NEMA MG 1 part 2 for the marks
P1, P2, P3. Tolerances and ohm ranges are practice, not limits of a standard.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from evencoil.base import Finding, Message, finding, plain
from evencoil.winding.coils import Winding

__all__ = [
    "Capacitors",
    "PartTest",
    "SinglePhaseKind",
    "StartBranch",
    "StartSwitch",
    "start_branch",
]

Capacitors = Literal["", "none", "start", "run", "both"]
StartSwitch = Literal["", "none", "centrifugal", "potential_relay", "current_relay", "electronic"]
SinglePhaseKind = Literal[
    "unknown", "split_phase", "capacitor_start", "permanent_split", "capacitor_start_run", "none"
]
Part = Literal[
    "start_capacitor",
    "run_capacitor",
    "centrifugal",
    "potential_relay",
    "current_relay",
    "electronic",
    "protector_2",
    "protector_3",
    "main_winding",
    "start_winding",
]
_KINDS: dict[tuple[bool, bool, bool], SinglePhaseKind] = {
    (False, False, True): "split_phase",
    (True, False, True): "capacitor_start",
    (False, True, False): "permanent_split",
    (True, True, True): "capacitor_start_run",
}
#: above this a capacitor is not made to stay in circuit [uF]
_MOST_RUN_UF = Decimal(100)
#: below this it hardly starts anything [uF]
_LEAST_START_UF = Decimal(20)


@dataclass(frozen=True, slots=True)
class PartTest:
    """How a part reads, dead and discharged, and what another reading says."""

    part: Part
    name: Message
    reads: Message
    else_: Message


@dataclass(frozen=True, slots=True)
class StartBranch:
    """The start circuit as its parts say.

    Attributes
    ----------
    kind : str
        ``unknown`` while a part is not said; ``none`` where nothing can start it.
    switched : tuple of str
        Parts in series that leave the circuit at speed, in order from the line.
    steady : tuple of str
        Parts that stay, in parallel with those.
    is_inside : bool
        True where the start winding has no leads of its own in the box.
    """

    kind: SinglePhaseKind
    switched: tuple[Part, ...]
    steady: tuple[Part, ...]
    protector: Part | None
    is_inside: bool
    tests: tuple[PartTest, ...]
    findings: tuple[Finding, ...]


def _test(part: Part, **params: str) -> PartTest:
    return PartTest(
        part,
        Message(f"single.part.{part}"),
        Message(f"single.reads.{part}", params),
        Message(f"single.else.{part}"),
    )


def _band(value: Decimal | None, low: str, high: str) -> str:
    """Return the accepted band of a stamped capacitance, or that it is not known."""
    if value is None:
        return str(Message("single.no_uf"))
    least, most = value * Decimal(low), value * Decimal(high)
    return str(
        Message("single.band", {"uf": plain(value), "low": f"{least:.1f}", "high": f"{most:.1f}"})
    )


def _doubt(code: str, **params: str) -> Finding:
    found = finding("single", "leads.single", code, "doubt", **params)
    return replace(found, code=f"single.{code}")


def start_branch(
    winding: Winding,
    *,
    capacitors: Capacitors = "",
    switch: StartSwitch = "",
    start_uf: Decimal | None = None,
    run_uf: Decimal | None = None,
    protector_leads: int = 0,
) -> StartBranch | None:
    """Return the start circuit of a single-phase motor, or None for three phases.

    Parameters
    ----------
    winding : Winding
        Whether the start winding has leads of its own decides what can be reached.
    capacitors : str
        Which were found; empty while no one looked.
    switch : str
        What takes the start winding or its capacitor out at speed.
    start_uf : Decimal or None
        As stamped on the start capacitor. [uF]
    run_uf : Decimal or None
        As stamped on the run capacitor. [uF]
    protector_leads : int
        Leads of a thermal protector in the motor's line: 0, 2 or 3.
    """
    if winding.phases != 1:
        return None
    has_start, has_run = capacitors in {"start", "both"}, capacitors in {"run", "both"}
    switching: Part | None = None if switch in {"", "none"} else switch  # type: ignore[assignment]  # the other switches are parts
    parts: list[Part] = [switching] if switching else []
    switched = (*parts, *(("start_capacitor",) if has_start else ()))
    steady: tuple[Part, ...] = ("run_capacitor",) if has_run else ()
    protector: Part | None = None
    if protector_leads:
        protector = "protector_3" if protector_leads == 3 else "protector_2"
    found = (has_start, has_run, switching is not None)
    is_told = capacitors != "" and switch != ""
    bands = {"start_capacitor": (start_uf, "1", "1.2"), "run_capacitor": (run_uf, "0.94", "1.06")}
    tests = [_test("main_winding"), _test("start_winding")]
    for part in (*switched, *steady, *((protector,) if protector else ())):
        band = bands.get(part)
        tests.append(_test(part, **({"band": _band(*band)} if band else {})))
    return StartBranch(
        kind=_KINDS.get(found, "none") if is_told else "unknown",
        switched=switched,
        steady=steady,
        protector=protector,
        is_inside=not {"T5", "T8"} <= set(winding.leads),
        tests=tuple(tests),
        findings=(*(_contradictions(found) if is_told else ()), *_sizes(start_uf, run_uf)),
    )


def _contradictions(found: tuple[bool, bool, bool]) -> list[Finding]:
    """Name what parts that make no usual motor would do: start and run capacitor, switch."""
    code = {
        (True, False, False): "unswitched",
        (True, True, False): "unswitched",
        (False, False, False): "no_shift",
        (False, True, True): "run_switched",
    }.get(found)
    return [] if code is None else [_doubt(code)]


def _sizes(start_uf: Decimal | None, run_uf: Decimal | None) -> list[Finding]:
    found = []
    if run_uf is not None and run_uf > _MOST_RUN_UF:
        found.append(_doubt("run_large", uf=plain(run_uf), most=plain(_MOST_RUN_UF)))
    if start_uf is not None and start_uf < _LEAST_START_UF:
        found.append(_doubt("start_small", uf=plain(start_uf), least=plain(_LEAST_START_UF)))
    return found
