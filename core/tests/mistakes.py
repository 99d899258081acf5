"""Single wiring mistakes of a circuit, one of each class, and what shows each of them.

The classes are those that people make: a wire off, a wire beside its place, contacts exchanged,
and a jumper across whatever protects, stops or starts. The table in ``docs/mistakes.md`` is
written from here and compared by a test.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from circuit_play import circuit_of

from evencoil.base.words import say
from evencoil.checks.check import check_circuit
from evencoil.checks.dead.bench import Bench, agrees
from evencoil.checks.dead.faults import contact_faults, missing_wires, moved_wires
from evencoil.checks.dead.plan import dead_checks
from evencoil.checks.expected import with_expectations
from evencoil.checks.proofs import prove
from evencoil.rehearsal.probes import probes

#: transitions of a search: enough for what one mistake opens
MOST = 200
FAMILIES = ("power_back", "overload_reset", "estop_release", "isolator_back", "stop", "interlock")


@dataclass(frozen=True, slots=True)
class Row:
    """A mistake, and the rules, tests, proofs and readings that show it."""

    mistake: str
    rules: tuple[str, ...]
    tests: tuple[str, ...]
    hazards: tuple[str, ...]
    readings: int
    reason: str = ""

    @property
    def is_shown(self) -> bool:
        """Tell whether anything shows it."""
        return bool(self.rules or self.tests or self.hazards or self.readings)


def classes(circuit) -> Iterator[tuple[str, object]]:
    """Go through one mistake of each class."""
    kinds = {item.id: item for item in circuit.netlist.devices}
    seen = set()
    for fault in contact_faults(circuit):
        if fault.kind == "swapped":
            key = ("swapped", "")
        else:
            bridge = fault.netlist.wires[-1]
            owner, _, end = bridge.start.rpartition(".")
            key = ("jumper", f"{kinds[owner].type} {end[-1:]}")
        if key not in seen:
            seen.add(key)
            yield key[0], fault
    live = {"supply"}
    for kind, faults in (("missing", missing_wires(circuit)), ("moved", moved_wires(circuit))):
        ways = set()
        for fault in faults:
            wire = next(one for one in circuit.netlist.wires if one.id == fault.wire)
            owners = {end.rpartition(".")[0] for end in (wire.start, wire.end)}
            way = "control" if wire.id in circuit.numbers else "power"
            if owners & live or way in ways:
                continue
            ways.add(way)
            yield kind, fault


def _rules(circuit):
    return {(one.rule, say(one.message)) for one in check_circuit(circuit) if one.level != "note"}


def rows(name) -> list[Row]:
    """Return the rows of one circuit of the catalogue."""
    right = replace(circuit_of(name), numbers={})
    drawn = circuit_of(name)
    known = _rules(right)
    sheet = dead_checks(drawn)
    taken = [one.as_drawn for one in sheet.checks]
    held = {one.family for one in probes(with_expectations(right), FAMILIES) if not one.holds}
    met = {one.code for one in prove(right, most=MOST).broken}
    cache, found = {}, []
    for _, fault in classes(drawn):
        wrong = replace(right, netlist=fault.netlist)
        fresh = _rules(wrong) - known
        expecting = with_expectations(wrong)
        tests = {one.family for one in probes(expecting, FAMILIES) if not one.holds} - held
        hazards = {one.code for one in prove(wrong, most=MOST).broken} - met
        reads = Bench(fault.netlist, (), cache).read(taken)
        differ = sum(not agrees(ohms, one.ohms) for ohms, one in zip(reads, taken, strict=True))
        found.append(
            Row(
                mistake=say(fault.message),
                rules=tuple(sorted({rule for rule, _ in fresh})),
                tests=tuple(sorted(tests)),
                hazards=tuple(sorted(hazards)),
                readings=differ,
            )
        )
    return found


def lines(name) -> list[str]:
    """Return the part of the table for one circuit."""
    entry = [
        f"## {name}",
        "",
        "| Mistake | Check | Test | Proof | Dead readings |",
        "|---|---|---|---|---|",
    ]
    for row in rows(name):
        cells = [
            row.mistake,
            ", ".join(row.rules) or "–",
            ", ".join(row.tests).replace("_", " ") or "–",
            ", ".join(row.hazards).replace("_", " ") or "–",
            str(row.readings) if row.readings else "–",
        ]
        entry.append("| " + " | ".join(cells) + " |")
    return [*entry, ""]
