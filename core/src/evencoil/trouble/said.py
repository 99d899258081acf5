"""A hunt in words: what is left, where the probes go, what each shows, what proves a repair."""

from __future__ import annotations

from dataclasses import dataclass

from evencoil.base import Message, say
from evencoil.checks import OPEN_OHM, ZERO_OHM, said_hand
from evencoil.circuit import Circuit
from evencoil.trouble.faults import Fault, kinds_of
from evencoil.trouble.field import Field, word_at
from evencoil.trouble.hunt import Answer, Case, Hunt, Offer
from evencoil.trouble.readings import Reading
from evencoil.trouble.tables import Belief, beliefs, judged, odds_table, symptoms

__all__ = [
    "SaidGroup",
    "SaidHunt",
    "SaidOffer",
    "said_answer_of",
    "said_fault",
    "said_held",
    "said_hunt",
    "said_reading",
    "said_value",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidGroup:
    """Faults that no reading parts, with their odds and what the next reading would show."""

    faults: tuple[str, ...]
    ids: tuple[str, ...]
    rows: tuple[str, ...]
    percent: float
    shows: str
    devices: tuple[str, ...]
    wires: tuple[str, ...]
    is_played: bool
    contradicted: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidWord:
    """A word that answers a reading, and how it is said."""

    word: str
    said: str


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidSplit:
    """What a reading may show, and what part of the odds lies there."""

    shows: str
    percent: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidOffer:
    """A reading as people take it."""

    id: str
    kind: str
    cost: str
    said: str
    hold: tuple[str, ...]
    start: str
    end: str
    words: tuple[SaidWord, ...]
    minutes: float
    bits: float
    splits: tuple[SaidSplit, ...]
    caution: str
    is_live: bool
    is_refuting: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SaidHunt:
    """How a hunt stands, in words."""

    state: str
    symptom: str
    wording: str
    groups: tuple[SaidGroup, ...]
    others_percent: float
    offer: SaidOffer | None
    instead: str
    doubts: tuple[str, ...]
    repair: str
    prove: tuple[str, ...]
    not_excluded: tuple[str, ...]
    candidates: int
    unplayed: tuple[str, ...]
    is_shown: bool
    note: str
    beliefs: tuple[Belief, ...]


def said_fault(one: Fault) -> str:
    """Return what is wrong, in words; of a pair the cause first.

    Parameters
    ----------
    one : Fault
        Of a circuit.
    """
    first = say(one.said).rstrip(".")
    return first if one.also is None else f"{first}; {say(one.also).rstrip('.')}"


def said_reading(one: Reading, circuit: Circuit) -> tuple[str, tuple[str, ...]]:
    """Return what to do, and what to hold.

    Parameters
    ----------
    one : Reading
        Of that circuit.
    circuit : Circuit
        For the tags.
    """
    return say(one.said), tuple(said_hand(circuit, hand) for hand in one.hands)


def said_held(one: Reading, circuit: Circuit) -> str:
    """Return what to do with what to hold, in one line.

    Parameters
    ----------
    one : Reading
        Of that circuit.
    circuit : Circuit
        For the tags.
    """
    said, hold = said_reading(one, circuit)
    return f"{said.rstrip('.')} ({'; '.join(hold)})" if hold else said


def said_word(one: Reading, word: str) -> str:
    """Return a word that answers a reading, as people read it.

    Parameters
    ----------
    one : Reading
        That it answers.
    word : str
        One of its words.
    """
    if one.id.startswith("judged|"):
        row = next(item for item in judged() if item.id == one.id.partition("|")[2])
        return row.sound if word == "sound" else row.faulty
    return say(Message(f"trouble.word.{word}"))


def said_value(one: Reading, value: float) -> str:
    """Return what a meter would show.

    Parameters
    ----------
    one : Reading
        That it is of.
    value : float
        As the table has it.
    """
    if one.kind == "word":
        return said_word(one, word_at(one, value))
    least, key, ends = _SHOWN[one.kind]
    if one.kind == "ohm" and one.floor > ZERO_OHM:
        least, ends = one.floor * 1.01, "conducts"
    if value <= least:
        return say(Message(f"trouble.shows.{ends}"))
    if one.kind == "ohm" and value >= OPEN_OHM * 0.99:
        return say(Message("trouble.shows.open"))
    return say(Message(f"trouble.shows.{key}", {"value": _plain(value)}))


#: least value of a kind that is told as a figure, and the words for less
_SHOWN = {
    "ohm": (1.01, "ohm", "zero"),
    "volt": (3.01, "volt", "dead"),
    "amp": (0.31, "amp", "none"),
}


def _plain(value: float) -> str:
    """Return a figure with two digits that count."""
    return f"{float(f'{value:.2g}'):g}" if value < 1000 else f"{float(f'{value:.2g}'):.0f}"


def said_answer_of(one: Reading, answer: Answer) -> str:
    """Return an answer in words.

    Parameters
    ----------
    one : Reading
        That it answers.
    answer : Answer
        What was given.
    """
    if answer.how == "cannot":
        return ""
    if one.kind == "word":
        return said_word(one, answer.word)
    if answer.value is None or (answer.value >= OPEN_OHM and one.kind == "ohm"):
        return say(Message("trouble.shows.open"))
    return f"{answer.value:g} {({'ohm': 'Ω', 'volt': 'V', 'amp': 'A'})[one.kind]}"


def _offer(one: Offer, field: Field) -> SaidOffer:
    said, hold = said_reading(one.reading, field.circuit)
    setup = one.reading.setup
    return SaidOffer(
        id=one.reading.id,
        kind=one.reading.kind,
        cost=one.reading.cost,
        said=said,
        hold=hold,
        start=field.circuit.said(one.reading.start) if one.reading.start else "",
        end=field.circuit.said(one.reading.end) if one.reading.end else "",
        words=tuple(
            SaidWord(word=word, said=said_word(one.reading, word)) for word in one.reading.words
        ),
        minutes=round(one.minutes, 1),
        bits=round(one.bits, 2),
        splits=tuple(
            SaidSplit(shows=said_value(one.reading, value), percent=round(100 * share, 1))
            for value, share in one.splits
        ),
        caution=say(Message(f"trouble.{setup}")) if setup else "",
        is_live=setup == "live",
        is_refuting=one.is_refuting,
    )


def said_hunt(field: Field, case: Case, stands: Hunt) -> SaidHunt:
    """Return a hunt in words.

    Parameters
    ----------
    field : Field
        The circuit, its faults and readings.
    case : Case
        What was said of it.
    stands : Hunt
        Where it stands.
    """
    reading_of = {one.id: one for one in field.readings}
    offered = reading_of[stands.offer.reading.id] if stands.offer else None
    groups = tuple(
        SaidGroup(
            faults=tuple(said_fault(fault) for fault in one.faults[:6]),
            ids=tuple(fault.id for fault in one.faults),
            rows=tuple(dict.fromkeys(fault.row for fault in one.faults)),
            percent=round(100 * one.odds, 1),
            shows=said_value(offered, one.shows)
            if offered is not None and one.shows is not None
            else "",
            devices=tuple(sorted({device for fault in one.faults for device in fault.on})),
            wires=tuple(sorted({fault.wire for fault in one.faults if fault.wire})),
            is_played=all(fault.is_played for fault in one.faults),
            contradicted=one.fits < 0.5,
        )
        for one in stands.groups
    )
    top = stands.groups[0] if stands.groups else None
    doubts: tuple[str, ...] = ()
    if stands.state in {"doubt", "none"}:
        again = reading_of.get(stands.again)
        doubts = tuple(
            say(
                Message(
                    f"trouble.doubt.{key}",
                    {"said": said_held(again, field.circuit)} if key == "again" and again else {},
                )
            )
            for key in ("meter", "probe", "held", "again", "drawing", "two", "none")
            if key != "again" or again is not None
        )
    symptom = symptoms()[case.symptom]
    is_shown = any(case.symptom in shows for shows in field.shows)
    found = stands.state == "found" and top is not None
    failed = reading_of.get(stands.failed)
    prove = []
    if found:
        if failed is not None:
            prove.append(
                say(Message("trouble.prove.reading", {"said": said_held(failed, field.circuit)}))
            )
        prove += [say(Message(f"trouble.prove.{key}")) for key in ("play", "guards", "amps", "one")]
    instead = ""
    if stands.instead is not None:
        params = {
            "steps": str(stands.dead_steps),
            "said": said_held(stands.instead.reading, field.circuit),
        }
        instead = say(Message("trouble.instead", params))
    shown = sum(one.odds for one in stands.groups)
    return SaidHunt(
        state=stands.state,
        symptom=symptom.name,
        wording=symptom.wording,
        groups=groups,
        others_percent=round(100 * max(0.0, 1 - shown), 1),
        offer=_offer(stands.offer, field) if stands.offer else None,
        instead=instead,
        doubts=doubts,
        repair=say(Message(f"trouble.repair.{top.faults[0].repair}")) if found and top else "",
        prove=tuple(prove),
        not_excluded=tuple(
            said_fault(one.faults[0]) for one in stands.groups[1:6] if found and one.odds > 0.001
        ),
        candidates=stands.candidates,
        unplayed=tuple(
            dict.fromkeys(
                f"{odds_table()[one.row].kind}, {odds_table()[one.row].place}"
                for one in field.faults
                if not one.is_played
            )
        ),
        is_shown=is_shown,
        note="" if is_shown else say(Message("trouble.not_shown", {"symptom": symptom.name})),
        beliefs=tuple(_beliefs_at(case, field, offered)),
    )


def _beliefs_at(case: Case, field: Field, offered: Reading | None) -> list[Belief]:
    """Return the common beliefs that come up with a symptom or a reading."""
    table = beliefs()
    wanted = list(_BY_SYMPTOM.get(case.symptom, ()))
    if any("motor1" in kinds_of(item) for item in field.circuit.netlist.devices):
        wanted = ["B37", "B36"] if offered and "capacitor" in offered.id else ["B01"]
    if offered is not None:
        if offered.id.startswith("fuse|") or offered.kind == "volt":
            wanted.append("B11")
        if offered.hands and offered.hands[0].verb == "push_in":
            wanted.append("B30")
        if offered.kind == "ohm":
            wanted += ["B12", "B13"]
    return [table[one] for one in dict.fromkeys(wanted) if one in table][:2]


_BY_SYMPTOM = {
    **dict.fromkeys(("hums", "one_direction_hums", "runs_rough", "runs_hot"), ("B10", "B08")),
    "trips_later": ("B17", "B18"),
    "blows_fuse": ("B03",),
    "reverses_without_stop": ("B28", "B27"),
}
