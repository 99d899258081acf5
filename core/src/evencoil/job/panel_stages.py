"""Energizing in stages, read off the netlist: what is closed, what each button must do, results.

A stage closes some isolators; the others stay locked. What it has to show is a list of results,
each with its bounds where something is known to compare it with. A need is a kind of entry, and
after an ``@`` the button, line or pair it is read at.

Units: [V], [A], [s].
Source: trade practice of first energizing (control alone, phase sequence, bump, unloaded,
loaded); NEMA MG 1-12.44 (volts within 10 percent of the nameplate), restated in own words.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import ROUND_DOWN, ROUND_UP, Decimal
from itertools import combinations
from typing import Any

from evencoil.acts import Stage as StageWork
from evencoil.base import CoreError, Message
from evencoil.circuit import Circuit
from evencoil.job.panel_buttons import Button, played_of
from evencoil.job.run_up import JobRunUp
from evencoil.job.worked import Worked
from evencoil.run_up import Expected, expected_readings

__all__ = ["PanelResult", "PanelStage", "expected_results", "panel_stages", "stage_works"]

#: NEMA MG 1-12.44: part of the nameplate's volts, either way
_VOLTS = Decimal("0.1")
#: where a machine of up to 300 kW is no longer good for long on a stiff base, or only just good on
#: a soft one (ISO 20816-3, recalled); a smaller one is as well (ISO 10816-1) [mm/s RMS]
_VIBRATION = {"unit": "mm/s", "min": "0", "max": "4.5", "likely": "0 to 2.8"}
#: readings of the run-up sheet that a stage asks, by stage and kind
_FROM_RUN_UP = {
    "unloaded_a": "unloaded.amps",
    "loaded_a": "loaded.amps",
    "locked_a": "loaded.start_amps",
    "start_s": "loaded.start_time",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelResult:
    """One result of a stage: its kind of entry, where it is read, and whether it is needed."""

    id: str
    kind: str
    at: str
    said: str
    unit: str
    is_needed: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelStage:
    """One step of energizing.

    Attributes
    ----------
    feeds : tuple of str
        What is closed or joined to feed it, in order.
    says : tuple of str
        What to look at, with its caution.
    """

    id: str
    said: str
    feeds: tuple[str, ...]
    says: tuple[str, ...]
    results: tuple[PanelResult, ...]


def panel_stages(circuit: Circuit, separate: tuple[str, ...]) -> tuple[PanelStage, ...]:
    """Return the stages of a circuit, in order.

    Parameters
    ----------
    circuit : Circuit
        Its starter.
    separate : tuple of str
        Isolators of separate control supplies, by their ids.
    """
    played = played_of(circuit)
    buttons = played.buttons
    pairs, lines = _pairs(circuit), _lines(circuit)
    is_three = len(lines) == 3
    volts = tuple(_result("volts", f"{one}-{other}", "V") for one, other in pairs)
    amps = tuple(_result("amps", line, "A") for line in lines)
    more = (
        _result("speed", "shaft", "rpm", is_needed=False),
        _result("vibration", "frame", "mm/s", is_needed=False),
    )
    sequence = (_result("phase_sequence", "", ""),) if is_three else ()
    control = PanelStage(
        id="control",
        said=_say("control"),
        feeds=tuple(_feeds(circuit, separate)),
        says=(_say("control.says"),),
        results=tuple(_button(one) for one in buttons),
    )
    return (
        # a manual starter has no control circuit to try alone
        *((control,) if buttons else ()),
        PanelStage(
            id="bump",
            said=_say("bump"),
            feeds=(_say("closed"),),
            says=(
                *((_say("sequence.says"),) if is_three else ()),
                _say("bump.says"),
                *((_say("bump.drive"),) if _has_drive(circuit) else ()),
            ),
            results=(*sequence, *_bumps(played.ways)),
        ),
        PanelStage(
            id="unloaded",
            said=_say("unloaded"),
            feeds=(_say("closed"),),
            says=(_say("unloaded.says"), _say("live.says"), *_drive_meters(circuit)),
            results=(*volts, *amps, *more),
        ),
        PanelStage(
            id="loaded",
            said=_say("loaded"),
            feeds=(_say("closed"),),
            says=(_say("loaded.says"), _say("live.says"), *_drive_meters(circuit)),
            results=(
                *volts,
                *amps,
                _result("start_amps", "", "A", is_needed=False),
                _result("start_time", "", "s"),
                *more,
                *_joints(circuit, lines),
            ),
        ),
    )


def _has_drive(circuit: Circuit) -> bool:
    return any(item.type == "drive" for item in circuit.netlist.devices)


def _drive_meters(circuit: Circuit) -> tuple[str, ...]:
    """Say where volts and amps are read if a drive stands between: what a meter shows there."""
    return (_say("drive.meters"),) if _has_drive(circuit) else ()


def stage_works(
    stages: tuple[PanelStage, ...], separate: tuple[str, ...], everything: tuple[str, ...]
) -> dict[str, StageWork]:
    """Return the same stages as entries are judged by them.

    Parameters
    ----------
    stages : tuple of PanelStage
        In order.
    separate : tuple of str
        Isolators of separate control supplies.
    everything : tuple of str
        All isolators of the panel.
    """
    return {
        one.id: StageWork(
            live=separate if one.id == "control" else everything,
            scope=("control",) if one.id == "control" else ("control", "power"),
            needs=tuple(
                f"{result.kind}@{result.at}" if result.at else result.kind
                for result in one.results
                if result.is_needed
            ),
        )
        for one in stages
    }


def expected_results(worked: Worked, ready: JobRunUp | None) -> dict[str, Mapping[str, Any]]:
    """Return unit and bounds of the results of each stage, as far as they are known.

    Parameters
    ----------
    worked : Worked
        A job, calculated.
    ready : JobRunUp or None
        Its motor, ready to run; None where something is missing for it.
    """
    found: dict[str, Mapping[str, Any]] = {"vibration": _VIBRATION}
    verdict = worked.verdict
    if verdict is not None:
        band = verdict.plate_volts
        volts = _bounds("V", band.low * (1 - _VOLTS), band.high * (1 + _VOLTS))
        if worked.supply is not None:
            volts["value"] = f"{worked.supply.line_volts_v}"
        found |= {f"{stage}.volts": volts for stage in ("unloaded", "loaded")}
    for one in _readings(ready):
        name = _FROM_RUN_UP.get(one.id)
        if name is not None:
            value, part = Decimal(str(one.value)), Decimal(one.percent) / 100
            found[name] = {
                **_bounds(one.unit, value * (1 - part), value * (1 + part)),
                "value": f"{value:.3g}",
            }
    most, idle = _most_amps(worked), found.get("unloaded.amps")
    likely = found.pop("loaded.amps", None)
    if most is not None:
        # another load than the one entered is no fault; more than the nameplate, or less than
        # it takes without load, is
        loaded: dict[str, Any] = {"unit": "A", "min": "0", "max": f"{most.normalize():f}"}
        if idle is not None:
            loaded["min"] = idle["min"]
        if likely is not None:
            loaded["likely"] = f"{likely['min']} to {likely['max']}"
            loaded["value"] = likely["value"]
        found["loaded.amps"] = loaded
    return found


def _readings(ready: JobRunUp | None) -> tuple[Expected, ...]:
    """Return what the run-up sheet expects of meter and watch; none where it cannot be run."""
    if ready is None:
        return ()
    try:
        return expected_readings(ready.facts, ready.sheet(), ready.faults())
    except CoreError:
        return ()


def _bounds(unit: str, low: Decimal, high: Decimal) -> dict[str, Any]:
    """Return two bounds to three figures, each rounded outward."""

    def rounded(value: Decimal, way: str) -> str:
        place = Decimal(1).scaleb(value.adjusted() - 2)
        return f"{value.quantize(place, rounding=way).normalize():f}"

    return {"unit": unit, "min": rounded(low, ROUND_DOWN), "max": rounded(high, ROUND_UP)}


def _most_amps(worked: Worked) -> Decimal | None:
    """Return the nameplate's amps at this supply, times its service factor [A]."""
    if "plate_amps_a" not in worked.trail:
        return None
    factor = worked.reading.plate.service_factor
    return worked.trail.number("plate_amps_a") * (1 if factor is None else factor)


def _say(name: str, **params: str) -> str:
    return str(Message(f"panel.stage.{name}", params))


def _result(kind: str, at: str, unit: str, *, is_needed: bool = True) -> PanelResult:
    return PanelResult(
        id=f"{kind}@{at}",
        kind=kind,
        at=at,
        said=_say(f"result.{kind}", at=at),
        unit=unit,
        is_needed=is_needed,
    )


def _bumps(ways: tuple[Button, ...]) -> tuple[PanelResult, ...]:
    """Return the bump, or one for each way round: each direction has its own lines."""
    if not ways:
        return (_result("bump_result", "", ""),)
    return tuple(
        PanelResult(
            id=f"bump_result@{way.id}",
            kind="bump_result",
            at=way.id,
            said=_say("result.bump_way", start=way.said),
            unit="",
        )
        for way in ways
    )


def _button(button: Button) -> PanelResult:
    return PanelResult(
        id=f"control_result@{button.id}",
        kind="control_result",
        at=button.id,
        said=button.said,
        unit="",
    )


def _lines(circuit: Circuit) -> tuple[str, ...]:
    """Return the names of the supply's lines."""
    supply = next((one for one in circuit.netlist.devices if one.type == "supply"), None)
    if supply is None:
        return ()
    return tuple(end for end in supply.terminals if end not in {"PE", "N"})


def _pairs(circuit: Circuit) -> tuple[tuple[str, str], ...]:
    """Return between what the supply's volts are read."""
    lines = _lines(circuit)
    if len(lines) > 1:
        return tuple(combinations(lines, 2))
    return tuple((line, "N") for line in lines)


#: whose line joints are compared with each other while they carry the load's current
_COMPARED = {"fdisc", "cb3", "mms", "contactor", "olr"}


def _joints(circuit: Circuit, lines: tuple[str, ...]) -> Iterator[PanelResult]:
    """Go through the joints that carry the same current, device by device and line by line."""
    if len(lines) != 3:
        return
    for item in circuit.netlist.devices:
        if item.type in _COMPARED:
            for line in lines:
                tag = circuit.tags.get(item.id, item.id)
                yield _result("joint_check", f"{tag} {line}", "C", is_needed=False)


def _feeds(circuit: Circuit, separate: tuple[str, ...]) -> Iterator[str]:
    """Go through how to feed the control circuit while the motor's power stays locked."""
    for name in separate:
        yield _say("feeds.separate", tag=circuit.tags.get(name, name))
    if separate:
        return
    wires = circuit.netlist.wires
    for item in circuit.netlist.devices:
        if item.type != "xfmr":
            continue
        out = [end for end in item.terminals if end.startswith("X")]
        fuses = [
            one
            for one in circuit.netlist.devices
            if one.type == "fuse"
            and any(
                {wire.start.rpartition(".")[0], wire.end.rpartition(".")[0]} == {one.id, item.id}
                for wire in wires
            )
        ]
        if fuses:
            tags = ", ".join(circuit.tags.get(one.id, one.id) for one in fuses)
            yield _say("feeds.fuses", tags=tags)
        ends = ", ".join(circuit.said(f"{item.id}.{end}") for end in out)
        yield _say("feeds.transformer", tag=circuit.tags.get(item.id, item.id), ends=ends)
        yield from _feeds_of_drives(circuit)
        return
    drives = list(_feeds_of_drives(circuit))
    yield from drives or [_say("feeds.line")]


def _feeds_of_drives(circuit: Circuit) -> Iterator[str]:
    """Say how inputs of a drive are tried: they work on its own volts."""
    for item in circuit.netlist.devices:
        if item.type == "drive":
            yield _say("feeds.drive", tag=circuit.tags.get(item.id, item.id))
