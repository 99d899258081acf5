"""The trade's tables of trouble: odds, symptoms, beliefs, faults that are not played, readings.

All of it is judgment of the trade, marked so in each file; the plant's closed hunts weigh in.
"""

from __future__ import annotations

import csv
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal, get_args

__all__ = [
    "AGES",
    "Age",
    "Belief",
    "Judged",
    "Odds",
    "Symptom",
    "Unplayed",
    "beliefs",
    "judged",
    "odds_table",
    "symptoms",
    "unplayed",
]

#: first year or just after work, one to ten years, older
Age = Literal["y0", "y1", "y2"]
AGES: tuple[Age, ...] = get_args(Age)


@dataclass(frozen=True, slots=True, kw_only=True)
class Odds:
    """A kind of fault at a kind of place, with its relative odds by age of the panel."""

    id: str
    kind: str
    place: str
    odds: Mapping[Age, float]
    note: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Symptom:
    """What people say of a machine, and the general order where there is no netlist."""

    id: str
    name: str
    wording: str
    causes: tuple[str, ...]
    first_question: str
    first_dead: str
    first_live: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Belief:
    """A common belief, the truth in a sentence, and where it comes up."""

    id: str
    belief: str
    truth: str
    where: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Unplayed:
    """A fault that goes by odds alone: what must be there for it, and what it shows."""

    row: str
    needs: frozenset[str]
    symptoms: frozenset[str]


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """A reading that is not solved: what a sound part shows, and what a faulty one does."""

    id: str
    cost: str
    needs: frozenset[str]
    sound: str
    faulty: str
    rows: frozenset[str]


def _rows(name: str) -> Sequence[Mapping[str, str]]:
    text = files("evencoil.trouble").joinpath(f"tables/{name}.csv").read_text("utf-8")
    return list(csv.DictReader(line for line in text.splitlines() if not line.startswith("#")))


@cache
def odds_table() -> Mapping[str, Odds]:
    """Return the odds by id."""
    return {
        row["id"]: Odds(
            id=row["id"],
            kind=row["fault_kind"],
            place=row["place"],
            odds={age: float(row[f"odds_{age}"]) for age in AGES},
            note=row["note"],
        )
        for row in _rows("priors")
    }


@cache
def symptoms() -> Mapping[str, Symptom]:
    """Return the symptoms by id, in the order of the table."""
    return {
        row["id"]: Symptom(
            id=row["id"],
            name=row["symptom"],
            wording=row["trade_wording"].strip('"'),
            causes=tuple(part.strip() for part in row["typical_causes_ranked"].split(";")),
            first_question=row["first_question"],
            first_dead=row["first_dead_reading"],
            first_live=row["first_live_reading"],
        )
        for row in _rows("symptoms")
    }


@cache
def beliefs() -> Mapping[str, Belief]:
    """Return the beliefs by id."""
    return {
        row["id"]: Belief(
            id=row["id"],
            belief=row["belief"],
            truth=row["truth"],
            where=row["where_it_comes_up"],
        )
        for row in _rows("beliefs")
    }


@cache
def unplayed() -> tuple[Unplayed, ...]:
    """Return the faults that are not played."""
    return tuple(
        Unplayed(
            row=row["row"],
            needs=frozenset(row["needs"].split()),
            symptoms=frozenset(row["symptoms"].split(";")),
        )
        for row in _rows("unplayed")
    )


@cache
def judged() -> tuple[Judged, ...]:
    """Return the readings that are not solved."""
    return tuple(
        Judged(
            id=row["reading"],
            cost=row["cost"],
            needs=frozenset(row["needs"].split()),
            sound=row["sound"],
            faulty=row["faulty"],
            rows=frozenset(row["rows"].split(";")),
        )
        for row in _rows("judged")
    )
