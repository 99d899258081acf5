"""A starter drawn for one job, with everything that is derived from its netlist."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from evencoil.base import CoreError, Finding, Message, MissingError, RefusedError
from evencoil.checks import Graph, Hand, Observed, Problem, check_circuit, isolations
from evencoil.circuit import (
    Circuit,
    Difference,
    Edit,
    Material,
    Numbered,
    WireRow,
    differences,
    grounded_nets,
    material,
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
    purposes,
)
from evencoil.starters import (
    CatalogueEntry,
    DeadReadingInput,
    OptionSpec,
    StarterInputs,
    catalogue,
    entry_of,
    options_of,
)

__all__ = ["JobStarter", "no_starter"]


#: a hazard that can be accepted, and the rule that tells of it when the circuit is played
_HAZARD_RULES = {"plugged": "H18"}


@dataclass(frozen=True, kw_only=True)
class JobStarter:
    """A starter drawn for this job.

    Attributes
    ----------
    entry : CatalogueEntry or None
        The standard circuit; None until one is chosen.
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
        As the standard circuit draws it, without anybody's edits.
    profile : Profile
        The works' own rules: colors, control conductor, ferrules.
    power_size : str
        Conductor of the motor circuit from the sizes, empty if not known; ``ground_size``
        its equipment grounding conductor.
    by_hand : set of (str, str)
        Ratings that a person entered: device and parameter.
    accepted : set of str
        Hazards that a person took on by name, with a reason.
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
    ground_size: str = ""
    by_hand: frozenset[tuple[str, str]] = frozenset()
    accepted: frozenset[str] = frozenset()

    def changes(self) -> tuple[Difference, ...]:
        """Return what differs from the circuit as the standard circuit draws it."""
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
            self.circuit,
            self.numbered,
            self.profile,
            self.power_size,
            self._foreign(),
            self.ground_size,
        )

    def _foreign(self) -> set[int]:
        """Return the control nets that stay live with the main switch open."""
        if self.circuit is None or self.numbered is None:
            return set()
        graph = Graph(self.circuit)
        main = next((one for one in isolations(graph) if one.device == "breaker"), None)
        if main is None:
            return set()
        live = {graph.nets[end] for end in main.control}
        separate = graph.of_type("source")
        live |= {graph.net(item.id, "L") for item in separate}
        grounded = grounded_nets(self.circuit, self.numbered)
        # behind a coil or lamp the circuit is the same one, up to its grounded side
        for edge in graph.edges:
            if edge.link.kind in {"coil", "lamp", "load", "input"}:
                ends = {graph.net(edge.device.id, end) for end in (edge.link.a, edge.link.b)}
                if ends & live:
                    live |= ends - grounded
        return live

    def material(self) -> tuple[Material, ...]:
        """Return the bill of material; a rating that nothing stands behind has no value."""
        if self.circuit is None:
            return ()
        return material(
            self.circuit,
            self.is_stated,
        )

    def is_stated(self, device: str, name: str) -> bool:
        """Tell whether a sizing step or a person stands behind a rating of a device."""
        return f"{device}.{name}" in self.sources or (device, name) in self.by_hand

    def holds_back(self, found: Finding) -> bool:
        """Tell whether a finding must be cured or accepted before the starter is done."""
        is_open_hazard = found.level == "doubt" and found.code.startswith("restart.")
        return found.level == "refusal" or is_open_hazard

    @cached_property
    def drawn_problems(self) -> tuple[Problem, ...]:
        """Return what the drawing alone tells to be wrong or in doubt, worst first.

        Headline, step and the list under Checks count these; what playing finds is listed there
        beside them, by itself.
        """
        if self.circuit is None:
            return ()
        found = check_circuit(self.circuit, is_played=False, is_stated=self.is_stated)
        return tuple(one for one in found if one.level != "note")

    def problems(self) -> tuple[Problem, ...]:
        """Return what the checks find on the circuit of this job, played as well, worst first."""
        if self.circuit is None:
            return ()
        found = check_circuit(self.circuit, is_stated=self.is_stated)
        # what somebody took on by name is no longer to be decided
        taken = {_HAZARD_RULES[name] for name in self.accepted if name in _HAZARD_RULES}
        return tuple(
            replace(one, level="note") if one.rule in taken and one.level == "doubt" else one
            for one in found
        )

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

    def board(self) -> Picture:
        """Return panel, door and field with every terminal, to trace wires on."""
        if self.circuit is None or self.numbered is None:
            return Picture(0, 0, (), ())
        return draw_panel(self.circuit, self.numbered, with_field=True)

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

    def nets(self) -> Mapping[str, Message]:
        """Return what every wire number does, by net id."""
        if self.circuit is None or self.numbered is None:
            return {}
        return purposes(self.circuit, self.numbered)

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
                Message("starter.none"),
                field="starter.standard_circuit",
                hint=Message("starter.none.hint"),
            )
        return self.circuit

    def issuable(self) -> Circuit:
        """Return the circuit for paper, file or list, on which every tag is one device's.

        Raises
        ------
        CoreError
            If there is no circuit, or two devices have one tag: on paper their wires would be
            joined.
        """
        circuit = self.required()
        names = [item.id for item in circuit.netlist.devices if item.type != "joint"]
        counted = Counter(circuit.tags.get(name, name) for name in names)
        tag, count = counted.most_common(1)[0]
        if count > 1:
            twins = [name for name in names if circuit.tags.get(name, name) == tag]
            raise RefusedError(
                Message("starter.doubled_tag", {"tag": tag, "devices": ", ".join(twins)}),
                field="starter.edits",
                hint=Message("starter.doubled_tag.hint"),
            )
        return circuit


def no_starter(inputs: StarterInputs, refusal: CoreError | None = None) -> JobStarter:
    """Return a job without a drawn starter, and why there is none if it was refused.

    The circuit that was chosen and its options stay, so that what does not go together can be
    changed.

    Parameters
    ----------
    inputs : StarterInputs
        Standard of the symbols.
    refusal : CoreError, optional
        Why it cannot be drawn.
    """
    entry: CatalogueEntry | None = None
    specs: tuple[OptionSpec, ...] = ()
    if inputs.standard_circuit in catalogue():
        entry = entry_of(inputs.standard_circuit)
        specs = options_of(entry)
    return JobStarter(
        entry=entry,
        options=specs,
        used={spec.name: inputs.options.get(spec.name, spec.default) for spec in specs},
        circuit=None,
        numbered=None,
        sources={},
        stale=(),
        findings=(),
        refusal=refusal,
        style=inputs.symbols or "nema",
    )
