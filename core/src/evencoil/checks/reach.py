"""What can be reached in a netlist: live nets, coils that can pull in, paths to a coil.

Contacts count as closable unless they are opened for the question, or belong to a
coil that itself cannot pull in. That is more than any one moment allows, so that "it
cannot" is certain and "it can" is a path worth showing.

Source: reachability in graphs, least and greatest fixed points (textbook topics).
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Collection, Hashable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import wraps
from itertools import product
from typing import Concatenate, ParamSpec, TypeVar, cast

from evencoil.circuit import (
    CONTACTS,
    TURNED,
    Circuit,
    Device,
    Link,
    links_of,
    primary_taps,
    turns_of,
    type_of,
)

__all__ = [
    "COILED",
    "LINE_ENDS",
    "SWITCHES",
    "Edge",
    "Graph",
    "Place",
    "Reached",
    "once",
    "positions_of",
]

COILED = {"contactor", "relay", "latch", "timer", "sdtimer"}
#: devices with poles that a handle works
SWITCHES = {"cb3", "fdisc", "isolator", "mms", "manual"}
LINE_ENDS = ("L1", "L2", "L3")
#: a link of a device: its id and the link's name
Place = tuple[str, str]
_COMMON = {
    "supply": ("PE", "N"),
    "source": ("N",),
    "xfmr": ("X2",),
    "psu": ("-",),
    "rect": ("-",),
    "drive": ("-",),
}
_MOST_PATHS = 400
_Asked = ParamSpec("_Asked")
_Told = TypeVar("_Told")


@dataclass(frozen=True, slots=True)
class Reached:
    """What has volts and what pulls in.

    ``lines`` are the supply's lines that each net hangs on, ``hot`` the nets with
    volts of any source, ``coils`` the devices that are or can be in.
    """

    lines: dict[int, frozenset[str]]
    hot: frozenset[int]
    coils: frozenset[str]


@dataclass(frozen=True, slots=True)
class Edge:
    """A link between two nets, with its device; ``place`` names it for good."""

    one: int
    other: int
    device: Device
    link: Link
    place: Place


@dataclass(slots=True)
class Graph:
    """A circuit as nets and the links between them.

    ``kept`` holds what was calculated of it once, by the name of the question. ``is_stated``
    tells which ratings stand on a sizing step or a person's entry: device and parameter; None
    where only the library's defaults are known not to be entered.
    """

    circuit: Circuit
    is_stated: Callable[[str, str], bool] | None = None
    nets: Mapping[str, int] = field(init=False)
    edges: list[Edge] = field(init=False)
    beside: dict[int, list[Edge]] = field(init=False)
    kinds: dict[str, Device] = field(init=False)
    wired: frozenset[str] = field(init=False)
    kept: dict[Hashable, object] = field(init=False, repr=False)

    def __post_init__(self) -> None:
        """Lay the graph out once."""
        netlist = self.circuit.netlist
        self.kept = {}
        self.wired = frozenset(end for wire in netlist.wires for end in (wire.start, wire.end))
        self.nets = netlist.nets()
        self.kinds = {item.id: item for item in netlist.devices}
        self.edges = []
        self.beside = defaultdict(list)
        for item in netlist.devices:
            for link in links_of(item):
                ends = [f"{item.id}.{name}" for name in (link.a, link.b)]
                if ends[0] not in self.nets or ends[1] not in self.nets:
                    continue  # a star point inside a motor is no terminal
                nets = (self.nets[ends[0]], self.nets[ends[1]])
                edge = Edge(*nets, item, link, (item.id, link.name))
                self.edges.append(edge)
                self.beside[edge.one].append(edge)
                self.beside[edge.other].append(edge)

    def stated(self, item: Device, name: str) -> float | None:
        """Return a rating that somebody stands behind; None for a default or a missing one."""
        text = item.parameters.get(name, "")
        if not text:
            return None
        if self.is_stated is not None:
            return float(text) if self.is_stated(item.id, name) else None
        known = (one.default for one in type_of(item.type).parameters if one.name == name)
        return None if text == next(known, "") else float(text)

    def of_type(self, *kinds: str) -> list[Device]:
        """Return the devices of some types, in order."""
        return [item for item in self.circuit.netlist.devices if item.type in kinds]

    def net(self, device: str, end: str) -> int:
        """Return the net of a terminal."""
        return self.nets[f"{device}.{end}"]

    def is_wired(self, terminal: str) -> bool:
        """Tell whether any wire ends at a terminal."""
        return terminal in self.wired

    def line_nets(self) -> set[int]:
        """Return the nets of the supply's own line terminals."""
        return {
            self.net(item.id, line)
            for item in self.of_type("supply")
            for line in LINE_ENDS
            if line in item.terminals
        }

    def returns(self) -> set[int]:
        """Return the nets of grounded and common conductors."""
        found = set()
        for item in self.circuit.netlist.devices:
            found |= {
                self.net(item.id, end)
                for end in _COMMON.get(item.type, ())
                if end in item.terminals
            }
        return found

    def closes(
        self, edge: Edge, coils: Collection[str], open_: Collection[Place], turned: dict[str, str]
    ) -> bool:
        """Tell whether a link can conduct with some coils in and some places open."""
        kind = edge.link.kind
        if edge.place in open_ or kind not in {"fuse", "heat", "pole", *CONTACTS}:
            return False
        if edge.device.type in TURNED and edge.device.id in turned:
            return turned[edge.device.id] in edge.link.closes_at.split("+")
        if edge.device.type in SWITCHES and kind.startswith("nc"):
            # a switch is closed here unless its poles are among what is open
            return any(
                (edge.device.id, link.name) in open_
                for link in links_of(edge.device)
                if link.kind == "pole"
            )
        if edge.device.type in COILED:
            needs = kind in {"pole", "no", "no_early", "timed_no"} or edge.device.type == "sdtimer"
            return not needs or edge.device.id in coils
        return True

    def spread(self, seeds: Collection[int], conducts: Callable[[Edge], bool]) -> set[int]:
        """Return every net that conducting links join to some nets."""
        found = set(seeds)
        ring = list(found)
        for net in ring:
            for edge in self.beside[net]:
                far = edge.other if edge.one == net else edge.one
                if far not in found and conducts(edge):
                    found.add(far)
                    ring.append(far)
        return found

    def reached(
        self,
        open_: Collection[Place] = (),
        turned: dict[str, str] | None = None,
        *,
        holds: bool = False,
        inside: Collection[str] | None = None,
        lines_on: bool = True,
    ) -> Reached:
        """Return what has volts and which coils can pull in.

        Parameters
        ----------
        open_ : collection of (str, str)
            Links that are open, whatever else holds.
        turned : dict, optional
            Selector to its position; a selector that is not named counts as any.
        holds : bool
            False for what can pull in from rest; True for what can stay in once in.
        inside : collection of str, optional
            Devices that are in at first; nothing, or everything where it ``holds``.
        lines_on : bool
            False while the supply is off and separate sources are still on.
        """
        turned = turned or {}
        open_ = {*open_, *self._monitors_out(open_, lines_on=lines_on)}
        coils = {item.id for item in self.of_type(*COILED)} if holds else set()
        if inside is not None:
            coils = set(inside)
        while True:
            lines, hot = self._volts(coils, open_, turned, lines_on=lines_on)
            common = self.spread(
                self.returns(),
                lambda edge, coils=coils: self.closes(edge, coils, open_, turned),  # type: ignore[misc]  # mypy does not infer a lambda with a default
            )
            fed = {
                item.id for item in self.of_type(*COILED) if self._is_fed(item, lines, hot, common)
            }
            fresh = coils & fed if holds else coils | fed
            if fresh == coils:
                return Reached(lines, frozenset(hot), frozenset(coils))
            coils = fresh

    def _monitors_out(self, open_: Collection[Place], *, lines_on: bool) -> set[Place]:
        """Return the contacts of phase monitors that no line reaches: they have let go."""
        monitors = self.of_type("phasemon")
        if not monitors:
            return set()
        live = self.spread(
            self.line_nets() if lines_on else set(),
            lambda edge: edge.link.kind in {"pole", "fuse", "heat"} and edge.place not in open_,
        )
        return {
            (item.id, link.name)
            for item in monitors
            for link in links_of(item)
            if link.kind.startswith("no")
            and not all(self.net(item.id, line) in live for line in LINE_ENDS)
        }

    def _volts(
        self,
        coils: set[str],
        open_: Collection[Place],
        turned: dict[str, str],
        *,
        lines_on: bool,
    ) -> tuple[dict[int, frozenset[str]], set[int]]:
        def conducts(edge: Edge) -> bool:
            return self.closes(edge, coils, open_, turned)

        lines: dict[int, set[str]] = defaultdict(set)
        for item in self.of_type("supply") if lines_on else ():
            for line in LINE_ENDS:
                if line in item.terminals:
                    for net in self.spread({self.net(item.id, line)}, conducts):
                        lines[net].add(line)
        hot = set(lines)
        common = self.spread(self.returns(), conducts)
        for item in self.of_type("source"):
            hot |= self.spread({self.net(item.id, "L")}, conducts)
        for _ in range(3):  # a supply unit may hang on a transformer
            for item in self.of_type("xfmr", "psu", "rect", "drive"):
                out = {"xfmr": "X1"}.get(item.type, "+")
                if any(
                    (near in hot and (far in hot or far in common))
                    or (far in hot and near in common)
                    for near, far in self._inputs(item)
                ):
                    hot |= self.spread({self.net(item.id, out)}, conducts)
        return {net: frozenset(found) for net, found in lines.items()}, hot

    def _inputs(self, item: Device) -> list[tuple[int, int]]:
        """Return the pairs of nets between which a supply unit or a transformer is fed."""
        taps = primary_taps(item.parameters) if item.type == "xfmr" else {}
        ends = {
            "xfmr": [("H1", tap) for tap in taps] or [("H1", "H4")],
            "psu": [("L", "N")],
            "rect": [("~1", "~2")],
            "drive": [("L1", "L2"), ("L2", "L3"), ("L3", "L1")],
        }[item.type]
        return [(self.net(item.id, near), self.net(item.id, far)) for near, far in ends]

    def _is_fed(
        self, item: Device, lines: dict[int, frozenset[str]], hot: set[int], common: set[int]
    ) -> bool:
        a, b = self.net(item.id, "A1"), self.net(item.id, "A2")
        if a == b:
            return False
        if (a in hot and b in common) or (b in hot and a in common):
            return True
        one, other = lines.get(a, frozenset()), lines.get(b, frozenset())
        return bool(one) and bool(other) and len(one | other) > 1

    def paths(
        self, start: int, ends: Collection[int], allowed: Callable[[Edge], bool]
    ) -> Iterator[tuple[Edge, ...]]:
        """Go through the ways from a net to others over allowed links, shortest first."""
        found = 0
        ring: list[tuple[int, tuple[Edge, ...], frozenset[int]]] = [(start, (), frozenset({start}))]
        for net, way, seen in ring:
            if net in ends and way:
                yield way
                found += 1
                continue
            if found >= _MOST_PATHS or len(ring) > 20 * _MOST_PATHS:
                return
            for edge in self.beside[net]:
                far = edge.other if edge.one == net else edge.one
                if far not in seen and allowed(edge):
                    ring.append((far, (*way, edge), seen | {far}))


def once(
    question: Callable[Concatenate[Graph, _Asked], _Told],
) -> Callable[Concatenate[Graph, _Asked], _Told]:
    """Return a question to a graph that is calculated once and then remembered.

    Parameters
    ----------
    question : callable
        From a graph, and what can be hashed, to what no one changes.
    """

    @wraps(question)
    def kept(graph: Graph, /, *asked: _Asked.args, **more: _Asked.kwargs) -> _Told:
        key = (question.__qualname__, asked, tuple(more.items()))
        if key not in graph.kept:
            graph.kept[key] = question(graph, *asked, **more)
        return cast("_Told", graph.kept[key])

    return kept


def positions_of(circuit: Circuit) -> list[dict[str, str]]:
    """Return every way in which the selectors of a circuit can stand.

    Parameters
    ----------
    circuit : Circuit
        Its selectors are few; 64 ways at most are returned.
    """
    found = []
    selectors = [item for item in circuit.netlist.devices if item.type in TURNED]
    words = []
    for item in selectors:
        listed = [word for word in item.parameters.get("pos", "").split(",") if word]
        words.append(listed or list(turns_of(item)) or [""])
    for choice in product(*words):
        found.append({item.id: word for item, word in zip(selectors, choice, strict=True)})
        if len(found) >= 64:
            break
    return found
