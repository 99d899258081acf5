"""Hunt a fault: odds after what was read, the next best reading, when to doubt, when to stop.

Odds, not proof. A reading is worth what it is expected to tell for its minutes and its risk: dead
before live, near before far. Nothing goes to zero on one reading. It stops when one group is left
that fits everything and a reading fails now that will pass after the repair.

Source: Bayes' rule, entropy (textbook topics); costs, error of a reading and bounds are judgment.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, OutOfRangeError
from evencoil.checks import OPEN_OHM
from evencoil.trouble.faults import Fault, weights_of
from evencoil.trouble.field import Field, word_at, word_value
from evencoil.trouble.readings import RISK, SETUP_MIN, Reading
from evencoil.trouble.tables import Age, Symptom, symptoms

__all__ = [
    "Answer",
    "Case",
    "Group",
    "Hunt",
    "Offer",
    "answer_at",
    "hunt",
    "known_symptom",
    "value_of",
]

#: a candidate whose simulated symptom is another one
_NEAR, _SILENT = 1 / 50, 1 / 2000
#: what is not among the candidates at all
_NONE = 0.002
_DOUBT = 1 / 50
_SURE = 0.9
#: a group that fits everything and still has this much is not left behind unread
_LEFT = 0.001
_MUCH_LEFT = 0.08
#: one reading of those taken speaks against it
_SMALL = 0.5
_LIKE = 0.9
_UNSURE = 0.5
_MOST_SHOWN = 14
_MOST_TRIED = 12
#: questions that cost nothing but patience
_MOST_ASKED = 3
#: what tells less is worth less than reading something once more
_LITTLE_BIT = 0.05
#: and what tells nothing is not worth a step
_NOTHING_BIT = 0.003
#: a motor that stalls is not started again to be listened to
_NO_RESTART = {
    "hums",
    "one_direction_hums",
    "one_speed_hums_or_is_rough",
    "clicks_but_does_not_run",
}
#: the power alone would start it, or bring back what tripped: nothing live at all
_NO_POWER = {
    "trips_at_once",
    "blows_fuse",
    "trips_when_the_other_button_is_pressed",
    "starts_by_itself",
    "will_not_stop",
    "stops_slowly_or_re_closes",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What a reading gave.

    Attributes
    ----------
    reading : str
        Its id.
    how : str
        ``read``, ``unsure``, or ``cannot`` where it cannot be reached.
    value : float, optional
        Ohms, volts or amps; infinite for open.
    word : str
        Where it is answered with a word.
    """

    reading: str
    how: Literal["read", "unsure", "cannot"] = "read"
    value: float | None = None
    word: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Case:
    """What people say of it.

    Attributes
    ----------
    symptom : str
        Of the table.
    age : str
        Of the panel.
    after_work : bool
        It began after someone worked on it.
    is_locked : bool
        What has to be done once for dead readings is done.
    counted : mapping
        Row of odds to how often the plant's closed hunts ended there.
    """

    symptom: str
    age: Age = "y1"
    after_work: bool = False
    is_locked: bool = False
    counted: Mapping[str, float] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Group:
    """Faults that no reading left can part."""

    faults: tuple[Fault, ...]
    odds: float
    fits: float
    #: what the offered reading would show, as a value; None without an offer
    shows: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """A reading to take next, and why.

    Attributes
    ----------
    reading : Reading
        What to do.
    bits : float
        What it is expected to tell. [bit]
    minutes : float
        With what has to be set up for it. [min]
    splits : tuple of (float, float)
        What it may show, and the part of the odds that lies there.
    is_refuting : bool
        One group is left: this one would refute it.
    """

    reading: Reading
    bits: float
    minutes: float
    splits: tuple[tuple[float, float], ...]
    is_refuting: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Hunt:
    """How a hunt stands.

    Attributes
    ----------
    state : str
        ``hunting``, ``found``, ``doubt``, ``none`` (nothing of the circuit fits), ``stuck``
        (nothing that could be read parts what is left).
    groups : tuple of Group
        Most likely first.
    offer : Offer, optional
        What to read next.
    instead : Offer, optional
        A dead reading in its place, where it is live.
    dead_steps : int
        How many dead readings in its place.
    failed : str
        Id of the reading that fails now and will pass after the repair; empty for none.
    again : str
        With a doubt: id of the reading that weighs most.
    candidates : int
        Faults that were weighed.
    unplayed : int
        Of these, those that go by odds alone.
    """

    state: Literal["hunting", "found", "doubt", "none", "stuck"]
    groups: tuple[Group, ...]
    offer: Offer | None
    instead: Offer | None
    dead_steps: int
    failed: str
    again: str
    candidates: int
    unplayed: int


def hunt(field: Field, case: Case, answers: Sequence[Answer] = ()) -> Hunt:
    """Return how a hunt stands after some answers.

    Parameters
    ----------
    field : Field
        The circuit, its faults and readings.
    case : Case
        What is said of it.
    answers : sequence of Answer
        In their order; a reading taken twice counts twice. What names a reading that this
        circuit does not have is passed over: its net changed.

    Raises
    ------
    OutOfRangeError
        For a symptom that the table does not have, or a value that is none.
    """
    return _Hunt(field, case, answers).stands()


def known_symptom(symptom: str) -> Symptom:
    """Return a symptom of the table.

    Parameters
    ----------
    symptom : str
        Its id.

    Raises
    ------
    OutOfRangeError
        If there is none such.
    """
    if symptom not in symptoms():
        raise OutOfRangeError(
            Message("trouble.no_symptom", {"symptom": symptom[:40]}),
            field="symptom",
            hint=Message("trouble.no_symptom.hint"),
        )
    return symptoms()[symptom]


class _Hunt:
    def __init__(self, field: Field, case: Case, answers: Sequence[Answer]) -> None:
        known_symptom(case.symptom)
        self.field = field
        self.case = case
        known = field.place_of
        self.answers = [one for one in answers if one.reading in known]
        self.prior = self._prior()
        self.read = [
            (known[one.reading], self._band(one), _UNSURE if one.how == "unsure" else 1.0)
            for one in self.answers
            if one.how != "cannot"
        ]
        self.odds, self.fits = field.telling.odds(self.prior, self.read)
        self.allowed = self._allowed()
        self.group_of = field.telling.groups([*self.allowed, *(place for place, _, _ in self.read)])

    def _prior(self) -> list[float]:
        field, case = self.field, self.case
        age: Age = "y0" if case.after_work else case.age
        weights = weights_of(field.faults, age, case.counted)
        found = []
        for weight, shows in zip(weights, field.shows, strict=True):
            part = 1.0 if case.symptom in shows else _NEAR if shows else _SILENT
            found.append(weight * part)
        whole = sum(found) or 1.0
        return [*found, whole * _NONE]

    def _band(self, one: Answer) -> int:
        place = self.field.place_of[one.reading]
        reading = self.field.readings[place]
        return self.field.telling.band_of(place, value_of(reading, one))

    def _allowed(self) -> list[int]:
        """Return the readings that may be offered."""
        lost = frozenset[str]().union(
            *(
                self.field.readings[self.field.place_of[one.reading]].at
                for one in self.answers
                if one.how == "cannot"
            )
        )
        taken = Counter(one.reading for one in self.answers)
        self.again_allowed = [
            self.field.place_of[one]
            for one, count in taken.items()
            if count == 1
            and not self.field.readings[self.field.place_of[one]].at & lost
            and not one.startswith("seen|")
        ]
        asked = sum(one.startswith("seen|") for one in taken)
        return [
            place
            for place, one in enumerate(self.field.readings)
            if one.id not in taken
            and not one.at & lost
            and self._may(one)
            and (asked < _MOST_ASKED or not one.id.startswith("seen|"))
        ]

    def _may(self, one: Reading) -> bool:
        """Tell whether a reading may be proposed: never a start of what stalls or trips."""
        if one.setup != "live":
            return True
        if self.case.symptom in _NO_POWER:
            return False
        if one.phase == "rest":
            return True
        if self.case.symptom in _NO_RESTART:
            return False
        # what trips later is measured under load once something dead was read
        is_dead_read = any(self.field.readings[place].setup == "dead" for place, _, _ in self.read)
        return self.case.symptom != "trips_later" or is_dead_read

    # odds by group

    def groups(self) -> list[Group]:
        gathered: dict[int, list[int]] = {}
        for place, group in enumerate(self.group_of[:-1]):
            gathered.setdefault(group, []).append(place)
        found = [
            Group(
                faults=tuple(
                    self.field.faults[place]
                    for place in sorted(places, key=lambda one: -self.odds[one])
                ),
                odds=sum(self.odds[place] for place in places),
                fits=max(self.fits[place] for place in places),
            )
            for places in gathered.values()
        ]
        return sorted(found, key=lambda one: -one.odds)

    # what to read next

    def minutes(self, one: Reading) -> float:
        """Return what a reading costs now, risk and set-up included."""
        paid = {self.field.readings[place].setup for place, _, _ in self.read}
        if self.case.is_locked:
            paid.add("dead")
        setup = 0.0 if one.setup in paid else SETUP_MIN.get(one.setup, 0.0)
        return one.minutes + RISK.get(one.cost, 0.0) + setup

    def offers(self, places: Sequence[int]) -> list[Offer]:
        """Return the best readings first: bits for minutes, then the safer and the nearer."""
        telling = self.field.telling
        if not places:
            return []
        bits = telling.information(self.odds, places)
        ranked = sorted(
            (
                (bit / self.minutes(self.field.readings[place]), bit, place)
                for bit, place in zip(bits, places, strict=True)
                if bit > 1e-6
            ),
            reverse=True,
        )
        if not ranked:
            return []
        best = ranked[0][0]
        near = [one for one in ranked if one[0] >= _LIKE * best]
        rest = [one for one in ranked if one[0] < _LIKE * best]
        near.sort(key=lambda one: self._order(self.field.readings[one[2]], one[0]))
        return [self._offer(place, bit) for _, bit, place in [*near, *rest][:_MOST_TRIED]]

    def _order(self, one: Reading, worth: float) -> tuple[object, ...]:
        risk = {"look": 0, "dead_door": 1, "dead_inside": 2, "disconnect": 3}.get(one.cost, 4)
        return (risk > 3, risk, one.kind == "word", -worth, one.minutes)

    def _offer(self, place: int, bits: float, *, is_refuting: bool = False) -> Offer:
        reading, telling = self.field.readings[place], self.field.telling
        shares = telling.shares(self.odds, place)
        splits = sorted(
            (
                (telling.value_in(place, band), share)
                for band, share in shares.items()
                if share > 0.005
            ),
            key=lambda one: -one[1],
        )
        return Offer(
            reading=reading,
            bits=bits,
            minutes=self.minutes(reading),
            splits=tuple(splits),
            is_refuting=is_refuting,
        )

    # where it stands

    def stands(self) -> Hunt:
        groups = self.groups()
        top = groups[0]
        none = self.odds[-1]
        failed = self._failed(top)
        rivals = [
            one
            for one in groups[1:]
            if (one.fits > _SMALL and one.odds > _LEFT and self._shows(one))
            or one.odds > _MUCH_LEFT
        ]
        state: Literal["hunting", "found", "doubt", "none", "stuck"] = "hunting"
        offer = None
        best = max(self.fits)
        if self.read and best < _DOUBT:
            state = "doubt"
        elif none > max(top.odds, 0.5):
            state = "none"
        elif top.odds > _SURE and not rivals and len(failed) > 1:
            state = "found"
        offers = self.offers(self.allowed) if state != "found" else []
        if state in {"hunting", "doubt"}:
            is_one = top.odds > _SURE and not rivals
            offer = self._next(offers, top if is_one else None)
            if offer is None and state == "hunting":
                state = "found" if is_one or top.odds > _SURE else "stuck"
        instead, steps = None, 0
        if offer is not None and offer.reading.setup == "live":
            dead = [one for one in offers if one.reading.setup != "live"]
            if dead:
                instead = dead[0]
                steps = max(1, round(offer.bits / max(instead.bits, 1e-3) + 0.5))
        unplayed = sum(not one.is_played for one in self.field.faults)
        return Hunt(
            state=state,
            groups=tuple(self._with_shown(groups, offer)),
            offer=offer,
            instead=instead,
            dead_steps=steps,
            failed=failed[0] if failed else "",
            again=self._again() if state == "doubt" else "",
            candidates=len(self.field.faults),
            unplayed=unplayed,
        )

    def _next(self, offers: Sequence[Offer], one: Group | None) -> Offer | None:
        """Return the best reading: a new one, one taken once more, or what would refute."""
        offer = offers[0] if offers else None
        if offer is None or offer.bits < _LITTLE_BIT:
            again = self.offers(self.again_allowed)
            if again and (offer is None or again[0].bits > 2 * offer.bits):
                offer = again[0]
        if offer is not None and offer.bits < _NOTHING_BIT:
            offer = None
        # what condemns a part is read a second time, by another way if there is one
        return (self._refuting(one) or offer) if one is not None else offer

    def _shows(self, group: Group) -> bool:
        return any(
            self.case.symptom in self.field.shows[self.field.row_of[one.id]] for one in group.faults
        )

    def _with_shown(self, groups: Sequence[Group], offer: Offer | None) -> list[Group]:
        shown = groups[:_MOST_SHOWN]
        if offer is None:
            return list(shown)
        place = self.field.place_of[offer.reading.id]
        return [
            Group(
                faults=one.faults,
                odds=one.odds,
                fits=one.fits,
                shows=self.field.telling.value_at(self.field.row_of[one.faults[0].id], place),
            )
            for one in shown
        ]

    def _failed(self, top: Group) -> list[str]:
        """Return the readings that are as the group would have them and not as a sound one."""
        telling, sound = self.field.telling, self.field.sound_row
        row = self.field.row_of[top.faults[0].id]
        found = []
        for place, band, _ in self.read:
            reading = self.field.readings[place]
            if reading.id.startswith("seen|"):
                continue
            if band == telling.band_at(row, place) != telling.band_at(sound, place):
                found.append(reading.id)
        return found

    def _refuting(self, top: Group) -> Offer | None:
        """Return the cheapest reading that this group alone would fail."""
        telling, sound = self.field.telling, self.field.sound_row
        row = self.field.row_of[top.faults[0].id]
        able = [
            place
            for place in (*self.allowed, *self.again_allowed)
            if telling.band_at(row, place) != telling.band_at(sound, place)
            and not self.field.readings[place].id.startswith("seen|")
        ]
        if not able:
            return None
        place = min(able, key=lambda one: self.minutes(self.field.readings[one]))
        bits = telling.information(self.odds, [place])[0]
        return self._offer(place, bits, is_refuting=True)

    def _again(self) -> str:
        """Return the reading without which what was read would fit best."""
        best, found = 0.0, ""
        for skipped, (place, _, _) in enumerate(self.read):
            rest = [one for number, one in enumerate(self.read) if number != skipped]
            _, fits = self.field.telling.odds(self.prior, rest)
            weighed = max(fit * prior for fit, prior in zip(fits, self.prior, strict=True))
            if weighed > best:
                best, found = weighed, self.field.readings[place].id
        return found


def value_of(reading: Reading, one: Answer) -> float:
    """Return an answer as the table has it.

    Parameters
    ----------
    reading : Reading
        That was taken.
    one : Answer
        What it gave.

    Raises
    ------
    OutOfRangeError
        If it is no answer to that reading.
    """
    if reading.kind == "word":
        if one.word not in reading.words:
            raise OutOfRangeError(
                Message("trouble.word", {"word": one.word[:40]}),
                field="answer.word",
                hint=Message("trouble.word.hint"),
            )
        return word_value(reading.words.index(one.word))
    if one.value is None or not one.value >= 0:
        raise OutOfRangeError(
            Message("trouble.value"), field="answer.value", hint=Message("trouble.value.hint")
        )
    least = {"ohm": reading.floor, "volt": 3.0, "amp": 0.3}[reading.kind]
    most = OPEN_OHM if reading.kind == "ohm" else 1e6
    return min(max(one.value, least), most)


def answer_at(field: Field, fault: str, reading: str) -> Answer:
    """Return what a reading gives where one fault is there.

    Parameters
    ----------
    field : Field
        The circuit, its faults and readings.
    fault : str
        Id of the fault.
    reading : str
        Id of the reading.
    """
    place = field.place_of[reading]
    one, value = field.readings[place], field.telling.value_at(field.row_of[fault], place)
    if one.kind == "word":
        return Answer(reading=reading, word=word_at(one, value))
    return Answer(reading=reading, value=value)
