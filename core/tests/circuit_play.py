"""Plays the behavior tables of the catalogue: their words, their edits, their cells."""

import json
from pathlib import Path

from evencoil.circuit.edits import Edit, replay, swap_ends
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action, expand
from evencoil.solver.parts.motors import Motor, motors_of
from evencoil.solver.run import Run
from evencoil.starters.catalogue import catalogue

CASES = Path(__file__).parent / "cases" / "circuits"
SUPPLY = {"lose", "restore", "sag", "swaplines", "dip"}


def tables():
    """Return the tables of every circuit, by its id."""
    found = [json.loads(path.read_text()) for path in sorted(CASES.glob("*.json"))]
    return {body["circuit"]: body for body in found}


def circuit_of(name):
    """Return a circuit as the catalogue draws it."""
    return catalogue()[name].circuit


def terminal(circuit, said):
    """Return ``TAG.terminal`` with the device's id."""
    tag, _, end = said.partition(".")
    return f"{circuit.id_of(tag)}.{end}"


def wire_between(circuit, one, other):
    """Return the id of the wire between two terminals."""
    ends = {terminal(circuit, one), terminal(circuit, other)}
    return next(wire.id for wire in circuit.netlist.wires if {wire.start, wire.end} == ends)


def edits_of(circuit, text, place):
    """Return one line of an edit (remove, add, move, swap, set) as edits."""
    words = text.split()
    name = f"e{place}"
    if words[0] == "remove":
        return [Edit(id=name, kind="remove_wire", wire=wire_between(circuit, *words[1:3]))]
    if words[0] == "add":
        start, end = (terminal(circuit, word) for word in words[1:3])
        return [Edit(id=name, kind="add_wire", start=start, end=end)]
    if words[0] == "move":
        wire = wire_between(circuit, words[1], words[2])
        start, end = terminal(circuit, words[2]), terminal(circuit, words[4])
        return [Edit(id=name, kind="move_end", wire=wire, start=start, end=end)]
    if words[0] == "swap":
        return list(swap_ends(circuit, *(terminal(circuit, word) for word in words[1:3]), name))
    given = dict(word.split("=") for word in words[2:])
    return [Edit(id=name, kind="set", device=circuit.id_of(words[1]), parameters=given)]


def edited(circuit, text):
    """Return a circuit with the edits of a mistake done."""
    for place, line in enumerate(text.split(";")):
        done = replay(circuit, edits_of(circuit, line, place))
        assert not done.stale, done.stale
        circuit = done.circuit
    return circuit


class Player:
    """A run driven by the words of a behavior table; each state is 0.3 s after the act."""

    def __init__(self, circuit):
        self.circuit = circuit
        self.run = Run(compile_plant(circuit.netlist))
        self.at = 0
        self.seen, self.both = set(), False

    def device(self, said):
        """Return the id of a tag, or of a terminal."""
        return terminal(self.circuit, said) if "." in said else self.circuit.id_of(said)

    def part(self, tag):
        """Return a device in the run."""
        return self.run.plant.part_of[self.device(tag)]

    def acts(self, text):
        """Return the actions of one act, and when its state is read."""
        verb, *rest = text.split()
        if verb == "wait":
            return [], self.at + round(float(rest[0]) * 1e6)
        if verb in {"both", "releaseboth"}:
            hand = "press" if verb == "both" else "release"
            found = [Action(self.at, hand, self.device(tag)) for tag in rest]
        elif verb in SUPPLY:
            found = expand(verb, self.at, "", rest[0] if rest else "")
        else:
            found = expand(verb, self.at, self.device(rest[0]), " ".join(rest[1:]))
        return found, found[-1].time + 300_000

    def do(self, text):
        """Do one act and go to where its state is read."""
        self.run.shorted, self.seen, self.both = [], set(), False
        for motor in motors_of(self.run):
            motor.had_gap = False
        actions, until = self.acts(text)
        for action in actions:
            self._to(action.time)
            self.run.act(action)
            self._look()
        self._to(until)
        self.at = until

    def _to(self, time):
        while not self.run.never_settles:
            due = self.run.due()
            if due is None or due > time:
                break
            self.run.advance(due)
            self._look()
        self.run.look(time)

    def _look(self):
        self.both |= any(self.run.are_both_closed(pair) for pair in self.circuit.never_together)
        self.seen |= {name for name, word in self.run.words().items() if word in {"1", "on"}}

    def cell(self, tag):
        """Return what a table's cell says of a device."""
        part = self.part(tag)
        word = part.word(self.run)
        if not isinstance(part, Motor) or word in {"off", "hum"}:
            return word
        speed = f"n={part.now(self.run.time) * 100:.0f}%"
        if word in {"coast", "brake", "hold"}:
            return f"{word} {speed}"
        return f"{word} {part.tells(self.run)['v']}% {speed}"

    def fact(self, said):
        """Return the value of a fact as a table writes it: ``FU3 blown``, ``seen.KX=1``."""
        name, _, value = said.partition("=")
        if said == "SHORT CIRCUIT":
            return "SHORT CIRCUIT" if self.run.shorted else ""
        if not value:
            tag = said.split()[0]
            return f"{tag} {self.cell(tag)}"
        return f"{name}={self.value(name)}"

    def value(self, name):
        """Return the value of a dotted name."""
        head, _, rest = name.partition(".")
        if name in {"both", "short"}:
            return "yes" if (self.both if name == "both" else self.run.shorted) else "no"
        if head == "live":
            return "yes" if self.run.is_live(self.device(rest)) else "no"
        if head == "seen" and rest.endswith(".gap"):
            return self.part(rest[:-4]).tells(self.run)["gap"]
        if head == "seen":
            return "1" if self.device(rest) in self.seen else "0"
        part = self.part(head)
        return part.tells(self.run)[rest] if rest else part.word(self.run)


def same(wanted, got):
    """Compare two cells; speeds may differ by one in a hundred, as tables round them."""
    want, _, speed = wanted.partition(" n=")
    have, _, shown = got.partition(" n=")
    if not speed or not shown:
        return wanted == got
    return want == have and abs(int(speed[:-1]) - int(shown[:-1])) <= 1
