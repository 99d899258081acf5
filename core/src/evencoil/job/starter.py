"""The Starter and Drawings steps worked out: from recipe and job to one netlist.

Everything shown (drawings, wire list, material, rehearsal) comes from the same
circuit. A recipe that cannot do with this motor stays drawn and says why.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

from evencoil.base import CoreError, Finding, Message, MissingError
from evencoil.checks import Graph, Hand, Observed, isolations
from evencoil.circuit import (
    Circuit,
    Crowded,
    Difference,
    Edit,
    Material,
    Numbered,
    WireRow,
    crowded,
    differences,
    loose_ends,
    material,
    number_nets,
    renamed,
    replay,
    wire_rows,
)
from evencoil.codebook import Profile
from evencoil.drawing import (
    Ladder,
    Picture,
    Style,
    draw_ladder,
    draw_panel,
    draw_power,
    draw_rungs,
    draw_strip,
)
from evencoil.job.starter_findings import (
    accessory_findings,
    fit_finding,
    fit_findings,
    hazard_findings,
    heater_findings,
)
from evencoil.job.work_out import Worked
from evencoil.sizing import FUSES
from evencoil.starters import (
    FOUND,
    CatalogueEntry,
    DeadReadingInput,
    MotorRating,
    OptionSpec,
    StarterInputs,
    draw,
    entry_of,
    found_entry,
    install_motor,
    options_of,
    rate,
)
from evencoil.winding import LINES

__all__ = ["StarterRoom", "work_out_starter"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StarterRoom:
    """A starter drawn for this job.

    Attributes
    ----------
    entry : CatalogueEntry or None
        The recipe; None until one is chosen, or if it was refused.
    options : tuple of OptionSpec
        What can be chosen, and ``used`` what is.
    circuit : Circuit or None
        The whole netlist with labels.
    sources : mapping
        ``device.parameter`` to the step of the Size sheet it stands on.
    stale : tuple of (Edit, Message)
        Edits that no longer apply.
    findings : tuple of Finding
        What does not fit, worst first.
    refusal : CoreError or None
        Why there is no circuit.
    before : Circuit or None
        As the recipe draws it, without anybody's edits.
    profile : Profile
        The works' own rules: colours, control conductor, ferrules.
    power_size : str
        Conductor of the motor circuit from the sizes, empty if not known.
    """

    entry: CatalogueEntry | None
    options: tuple[OptionSpec, ...]
    used: Mapping[str, str]
    circuit: Circuit | None
    numbered: Numbered | None
    sources: Mapping[str, str]
    stale: tuple[tuple[Edit, Message], ...]
    findings: tuple[Finding, ...]
    refusal: CoreError | None
    style: Style
    readings: tuple[DeadReadingInput, ...] = ()
    before: Circuit | None = None
    profile: Profile = field(default_factory=Profile)
    power_size: str = ""

    def changes(self) -> tuple[Difference, ...]:
        """Return what differs from the circuit as the recipe draws it."""
        if self.circuit is None or self.before is None:
            return ()
        return differences(self.before, self.circuit)

    def observed(self) -> tuple[Observed, ...]:
        """Return the ohm readings that were taken on the dead circuit."""
        return tuple(
            Observed(
                start=one.start,
                end=one.end,
                hands=tuple(Hand(hand.verb, hand.device, hand.word) for hand in one.hands),
                ohms=math.inf if one.ohms is None else float(one.ohms),
            )
            for one in self.readings
        )

    def rows(self) -> tuple[WireRow, ...]:
        """Return the wire list."""
        if self.circuit is None or self.numbered is None:
            return ()
        return wire_rows(
            self.circuit, self.numbered, self.profile, self.power_size, self._foreign()
        )

    def _foreign(self) -> set[int]:
        """Return the control nets that stay live with the main switch open."""
        if self.circuit is None:
            return set()
        graph = Graph(self.circuit)
        main = next((one for one in isolations(graph) if one.device == "breaker"), None)
        return {graph.nets[end] for end in main.control} if main is not None else set()

    def material(self) -> tuple[Material, ...]:
        """Return the bill of material."""
        return () if self.circuit is None else material(self.circuit)

    def ladder(self) -> Ladder:
        """Return the ladder as geometry."""
        if self.circuit is None or self.numbered is None:
            return Ladder(Picture(0, 0, (), ()), {})
        return draw_ladder(self.circuit, self.numbered, self.style)

    def power(self) -> Picture:
        """Return the power diagram as geometry."""
        if self.circuit is None or self.numbered is None:
            return Picture(0, 0, (), ())
        return draw_power(self.circuit, self.numbered, self.style)

    def panel(self) -> Picture:
        """Return the layout of panel and door as geometry."""
        if self.circuit is None or self.numbered is None:
            return Picture(0, 0, (), ())
        return draw_panel(self.circuit, self.numbered)

    def strip(self) -> Picture:
        """Return the terminal strip as geometry."""
        if self.circuit is None or self.numbered is None:
            return Picture(0, 0, (), ())
        return draw_strip(self.circuit, self.numbered)

    def rungs(self, ladder: Ladder) -> tuple[Picture, ...]:
        """Return each rung of the drawn ladder by itself, upright, for a narrow screen."""
        if self.circuit is None or self.numbered is None:
            return ()
        return draw_rungs(ladder, self.circuit, self.numbered, self.style)

    def sheet(self, which: str) -> Picture:
        """Return one sheet by its name; the others are not drawn."""
        sheets: Mapping[str, Callable[[], Picture]] = {
            "ladder": lambda: self.ladder().picture,
            "power": self.power,
            "panel": self.panel,
            "strip": self.strip,
        }
        return sheets[which]()

    def required(self) -> Circuit:
        """Return the circuit, or say that no starter is chosen or why it is not drawn.

        Raises
        ------
        CoreError
            If there is none.
        """
        if self.circuit is None:
            raise self.refusal or MissingError(
                Message("starter.none"), field="starter.recipe", hint=Message("starter.none.hint")
            )
        return self.circuit

    def crowded(self) -> tuple[Crowded, ...]:
        """Return the terminals with too many wires."""
        return () if self.circuit is None else crowded(self.circuit)


def _empty(style: Style, refusal: CoreError | None = None) -> StarterRoom:
    return StarterRoom(
        entry=None,
        options=(),
        used={},
        circuit=None,
        numbered=None,
        sources={},
        stale=(),
        findings=(),
        refusal=refusal,
        style=style,
    )


def _with_device(inputs: StarterInputs, worked: Worked) -> dict[str, str]:
    """Return the options, the short-circuit device following the sizes unless chosen here."""
    kind = next((step.value for step in worked.steps if step.id == "protection_kind"), None)
    chosen = dict(inputs.options)
    names = {spec.name for spec in options_of(entry_of(inputs.recipe))}
    if "protection" in names and kind in FUSES:
        chosen.setdefault("protection", "fused_disconnect")
    return chosen


def _rating(worked: Worked) -> MotorRating:
    plate = worked.reading.plate
    column = worked.verdict.column if worked.verdict else 0
    volts = max((band.high for band in plate.volts_v), default=None)
    amps = None
    if plate.amps_a:
        if len(plate.amps_a) == len(plate.volts_v):
            place = max(range(len(plate.volts_v)), key=lambda one: plate.volts_v[one].high)
            amps = plate.amps_a[place].high
        else:
            amps = plate.amps_a[min(column, len(plate.amps_a) - 1)].high
    coils = {
        known.speed: worked.box.rating.line_band(known)[1] / known.factor
        for known in reversed(worked.box.known)
        if worked.box.rating is not None and known.stage == "run"
    }
    return MotorRating(
        volts_v=volts,
        amps_a=amps,
        power_hp=plate.power_hp[0] if plate.power_hp else None,
        coil_v=coils.get("high", coils.get("")),
        coil_low_v=coils.get("low"),
    )


@dataclass(frozen=True, slots=True)
class _Drawn:
    """A circuit before its edits, with what can be chosen on it and where ratings come from."""

    entry: CatalogueEntry
    options: tuple[OptionSpec, ...]
    used: Mapping[str, str]
    circuit: Circuit
    sources: Mapping[str, str]
    findings: list[Finding]


def _empty_panel(worked: Worked) -> _Drawn:
    """Return a supply and a motor and nothing between: what is there is traced as edits."""
    entry = found_entry()
    rated = rate(
        entry.circuit,
        {step.id: step for step in worked.steps},
        worked.supply.line_volts_v if worked.supply is not None else None,
    )
    return _Drawn(entry, (), {}, rated.circuit, rated.sources, [fit_finding("found", "note")])


def _from_recipe(worked: Worked, inputs: StarterInputs) -> _Drawn:
    """Return a recipe of the catalogue drawn with this job's ratings and winding."""
    drawn = draw(inputs.recipe, _with_device(inputs, worked))
    specs = options_of(drawn.entry)
    findings = fit_findings(drawn.entry, worked)
    steps = {step.id: step for step in worked.steps}
    line_v = worked.supply.line_volts_v if worked.supply is not None else None
    rated = rate(drawn.circuit, steps, line_v)
    circuit = rated.circuit
    box = worked.box
    has_stand_in = any(
        item.id == "motor" and item.type == "motor3" for item in circuit.netlist.devices
    )
    if has_stand_in and box.winding is not None and box.winding.phases == 3:
        ends = {*box.winding.leads, *LINES}
        joints = tuple(
            replace(joint, leads=tuple(lead for lead in joint.leads if lead in ends))
            for joint in (given.as_core() for given in worked.joints)
        )
        if not joints:
            joints = box.intended
            findings.append(fit_finding("derived", "note"))
        if joints:
            circuit = install_motor(circuit, box.winding, joints, _rating(worked))
        else:
            findings.append(fit_finding("no_joints", "note"))
    elif has_stand_in:
        findings.append(fit_finding("stand_in", "note"))
    return _Drawn(drawn.entry, specs, drawn.options, circuit, rated.sources, findings)


def work_out_starter(worked: Worked, inputs: StarterInputs) -> StarterRoom:
    """Draw the starter of a job.

    Parameters
    ----------
    worked : Worked
        Plate, supply, leads and sizes.
    inputs : StarterInputs
        Recipe, options, edits.

    Returns
    -------
    StarterRoom
        Empty if no recipe is chosen; with its refusal if it cannot be drawn.
    """
    style: Style = inputs.symbols or "nema"
    if not inputs.recipe:
        return _empty(style)
    try:
        drawn = _empty_panel(worked) if inputs.recipe == FOUND else _from_recipe(worked, inputs)
    except CoreError as refused:
        return _empty(style, refused)
    circuit, findings = drawn.circuit, drawn.findings
    circuit = before = replace(circuit, tags=renamed(circuit, inputs.naming or "iec"))
    done = replay(circuit, [edit.as_core() for edit in inputs.edits])
    circuit = done.circuit
    for item in crowded(circuit):
        findings.append(
            fit_finding(
                "crowded",
                "doubt",
                terminal=circuit.said(item.terminal),
                wires=str(item.wires),
                most=str(item.most),
            )
        )
    for terminal in loose_ends(circuit):
        findings.append(fit_finding("loose", "doubt", terminal=circuit.said(terminal)))
    findings += hazard_findings(circuit, drawn.entry, inputs)
    findings += heater_findings(circuit, worked)
    findings += accessory_findings(circuit, worked)
    for edit, reason in done.stale:
        findings.append(fit_finding("stale_edit", "doubt", edit=edit.kind, reason=str(reason)))
    rank = {"refusal": 0, "doubt": 1, "note": 2, "agrees": 3}
    return StarterRoom(
        entry=drawn.entry,
        options=drawn.options,
        used=drawn.used,
        circuit=circuit,
        before=before,
        numbered=number_nets(circuit, inputs.frozen),
        sources=drawn.sources,
        stale=done.stale,
        findings=tuple(sorted(findings, key=lambda item: rank[item.level])),
        refusal=None,
        style=style,
        readings=inputs.readings,
        profile=worked.profile,
        power_size=next(
            (f"{step.shown}" for step in worked.steps if step.id == "conductor_size"), ""
        ),
    )
