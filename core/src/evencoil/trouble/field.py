"""Everything that can be wrong with a circuit, and what each reading would show of each of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from evencoil.checks import OPEN_OHM, Bench, Hand, Observed, spots_of
from evencoil.circuit import Circuit
from evencoil.solver import Telling, compile_plant
from evencoil.trouble.faults import Fault, faults_of
from evencoil.trouble.played import Look, Script, Seen, play, script_of
from evencoil.trouble.readings import Reading, prepared_hands, readings_of
from evencoil.trouble.tables import judged
from evencoil.trouble.told import symptoms_of

__all__ = ["WRONG_READING", "Field", "field_of", "word_at", "word_value"]

#: a reading may be wrong: probe, hand, or typed. The trade says one in twenty; taken harsher, so
#: that what condemns a part stands on more than one
WRONG_READING = 0.08
_LEAST_V, _LEAST_A = 3.0, 0.3
#: words that a reading can be answered with stand far apart
_STEP = 100.0


@dataclass(frozen=True)
class Field:
    """A circuit's faults, its readings, and the table of what each shows.

    Attributes
    ----------
    circuit : Circuit
        As drawn or as found.
    script : Script
        How it is tried.
    faults : tuple of Fault
        Every one; the sound circuit is the last row of the table and no fault.
    readings : tuple of Reading
        In the order of the table's columns.
    shows : tuple of frozenset of str
        Symptoms of each fault.
    telling : Telling
        The table, in bands; a reading that is the same whatever is wrong is not in it.
    """

    circuit: Circuit
    script: Script
    faults: tuple[Fault, ...]
    readings: tuple[Reading, ...]
    shows: tuple[frozenset[str], ...]
    telling: Telling

    @cached_property
    def place_of(self) -> Mapping[str, int]:
        """Return the column of each reading by its id."""
        return {one.id: place for place, one in enumerate(self.readings)}

    @cached_property
    def row_of(self) -> Mapping[str, int]:
        """Return the row of each fault by its id."""
        return {one.id: row for row, one in enumerate(self.faults)}

    @property
    def sound_row(self) -> int:
        """Return the row of the circuit as it should be."""
        return len(self.faults)


@dataclass
class _Table:
    """Rows of values, made one fault at a time."""

    circuit: Circuit
    readings: Sequence[Reading]
    apart: tuple[Hand, ...]
    ohms: list[Reading] = field(init=False)
    known: dict[tuple[Hand, ...], list[float]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.ohms = [one for one in self.readings if one.kind == "ohm"]
        nets = self.circuit.netlist.nets()
        self.earth = next((end for end in nets if end.endswith(".PE")), "")
        self.at = [
            Observed(start=one.start, end=one.end, hands=(*self.apart, *one.hands), ohms=0.0)
            for one in self.ohms
        ]
        self.terminals, self.pairs, self.column = spots_of(self.at)
        self.states = list(dict.fromkeys(one.hands for one in self.at))
        self.cells = [
            (self.states.index(one.hands), self.column[one.start, one.end]) for one in self.at
        ]

    def dead(self, fault: Fault | None, seen: Seen) -> list[float]:
        """Return the ohms that a dead circuit shows with a fault."""
        if not self.at:
            return []
        netlist = self.circuit.netlist if fault is None else fault.netlist
        puts = () if fault is None else fault.puts
        trips = [
            ("trip", item.id, "")
            for item in self.circuit.netlist.devices
            if item.type == "olr" and _ever(seen, item.id, "tripped")
        ]
        before = tuple(
            Hand(verb, device, word)
            for verb, device, word in dict.fromkeys((*puts, *trips))
            if verb not in {"lose", "sag", "swaplines", "jam", "load", "close", "ground"}
        )
        joints = () if fault is None else fault.joints
        known = self.known if not (before or joints) else {}
        bench = Bench(netlist, (), known, joints=joints, before=before)
        # what touches ground is one more wire, to the grounding terminal
        to_ground = next((put[1] for put in puts if put[0] == "ground"), "")
        joint = (to_ground, self.earth) if to_ground and self.earth else None
        read = bench.positions(self.states, self.terminals, self.pairs).ohms(
            range(len(self.states)), joint
        )
        return [
            min(max(float(read[state, pair]), one.floor), OPEN_OHM)
            for one, (state, pair) in zip(self.ohms, self.cells, strict=True)
        ]

    def row(self, fault: Fault | None, seen: Seen) -> list[float]:
        """Return what each reading shows."""
        ohms = iter(self.dead(fault, seen))
        found = []
        for one in self.readings:
            if one.kind == "ohm":
                found.append(next(ohms))
            elif one.kind == "volt":
                found.append(_volts(one, seen))
            elif one.kind == "amp":
                found.append(_amps(one, seen))
            else:
                found.append(word_value(one.words.index(_word(one, fault, seen))))
        return found


def _ever(seen: Seen, device: str, word: str) -> bool:
    return any(look.words.get(device) == word for look in seen.looks.values())


def _volts(one: Reading, seen: Seen) -> float:
    look = seen.looks.get(one.phase)
    if look is None or look.volts is None or seen.plant is None:
        return _LEAST_V
    nodes = seen.plant.node_of
    return max(abs(look.volts[nodes[one.start]] - look.volts[nodes[one.end]]), _LEAST_V)


def _amps(one: Reading, seen: Seen) -> float:
    look = seen.looks.get(one.phase)
    place = int(one.id.rpartition("|")[2])
    if look is None or place >= len(look.amps):
        return _LEAST_A
    return max(look.amps[place], _LEAST_A)


def _word(one: Reading, fault: Fault | None, seen: Seen) -> str:
    """Return the word that a reading would be answered with."""
    what, _, rest = one.id.partition("|")
    puts = () if fault is None else fault.puts
    if what == "judged":
        rows = next(item.rows for item in judged() if item.id == rest)
        return "faulty" if fault is not None and fault.row in rows else "sound"
    if what == "fuse":
        device, _, pole = rest.partition("|")
        is_put = any(put[:2] == ("blow", device) and put[2] in {"", pole} for put in puts)
        is_other = any(put[:2] == ("blow", device) for put in puts)
        went = _ever(seen, device, "blown") and not is_other
        return "fuse_open" if is_put or went else "fuse_whole"
    if what in {"sequence", "armature"}:
        verb, device = ("swaplines", "") if what == "sequence" else ("hold_out", rest)
        is_so = any(put[0] == verb and device in {"", put[1]} for put in puts)
        return one.words[1] if is_so else one.words[0]
    if what == "flag":
        return _flag(one, fault, seen)
    look = seen.looks.get(one.phase)
    if look is None:
        return one.words[-1] if one.words[0] != "in" else "out"
    return _seen_word(one, look, one.id.rpartition("|")[2], seen)


def _flag(one: Reading, fault: Fault | None, seen: Seen) -> str:
    device = one.id.rpartition("|")[2]
    left = set() if fault is None else fault.left
    puts = set() if fault is None else {put[:2] for put in fault.puts}
    if one.words[0] == "flag_out":
        return "flag_in" if ("press", device) in puts else "flag_out"
    if "flag_tripped" in one.words and (_ever(seen, device, "tripped") or ("trip", device) in puts):
        return "flag_tripped"
    if one.words[0] == "flag_ok":
        return "flag_ok"
    return "flag_off" if device in left else "flag_on"


def _seen_word(one: Reading, look: Look, device: str, seen: Seen) -> str:
    word, is_turning = look.words.get(device, ""), device in look.turning
    if one.words[0] == "turns":
        if word in {"hum", "fwd", "rev", "sp", "both"} and not is_turning:
            # it has volts and stands; what has just started turns a little later
            is_late = word in {"hum", "both"} or one.phase.startswith(("runs", "later"))
            return "hums" if is_late else "turns"
        return "turns" if word in {"fwd", "rev", "sp", "plug"} or is_turning else "still"
    if one.words[0] == "lit":
        return {"on": "lit", "dim": "dim", "over": "lit"}.get(word, "dark")
    if device in seen.chatters and word not in {"0", "1"}:
        return "chatters"
    silent = {"buzz": "out", "chatter": "out"} if device in seen.silent else {}
    heard = {"1": "in", "buzz": "growls", "chatter": "chatters", "welded": "in"}
    return {**heard, **silent}.get(word, "out")


def field_of(circuit: Circuit, *, with_work: bool = True) -> Field:
    """Return every fault of a circuit with what each would show.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    with_work : bool
        Also what only a hand does.

    Raises
    ------
    CoreError
        If the circuit cannot be played.
    """
    script = script_of(circuit)
    plant = compile_plant(circuit.netlist)
    sound = play(circuit, script, None, plant)
    readings = readings_of(circuit, script, sound)
    table = _Table(circuit, readings, prepared_hands(circuit))
    faults = faults_of(circuit, with_work=with_work)
    rows, shows = [], []
    right = table.row(None, sound)
    for one in faults:
        if one.is_played:
            seen = play(circuit, script, one, plant, sound)
            rows.append(table.row(one, seen))
            shows.append(symptoms_of(circuit, seen, sound) | one.shows)
        else:
            rows.append(
                [
                    word_value(item.words.index(_word(item, one, sound)))
                    if item.id.startswith("judged|")
                    else value
                    for item, value in zip(readings, right, strict=True)
                ]
            )
            shows.append(one.shows)
    rows.append(right)
    whole = Telling(rows, [one.ratio for one in readings], WRONG_READING)
    # what reads the same whatever is wrong is no reading; a fault's netlist has served
    told = whole.telling()
    return Field(
        circuit=circuit,
        script=script,
        faults=tuple(replace(one, netlist=circuit.netlist) for one in faults),
        readings=tuple(readings[place] for place in told),
        shows=tuple(shows),
        telling=whole.only(told),
    )


def word_value(place: int) -> float:
    """Return how the table keeps a word: by its place among those that can be answered.

    Parameters
    ----------
    place : int
        From 0.
    """
    return float(_STEP ** (1 + place))


def word_at(reading: Reading, value: float) -> str:
    """Return the word that a value of the table stands for.

    Parameters
    ----------
    reading : Reading
        One that is answered with a word.
    value : float
        As the table has it.
    """
    places = range(len(reading.words))
    return reading.words[min(places, key=lambda one: abs(word_value(one) / value - 1))]
