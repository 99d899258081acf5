"""How many readings a hunt takes beside the best strategy there is, searched for exhaustively.

On small cases: seven faults of one symptom, drawn at random. The best strategy is found by going
through every order of readings (dynamic programming over what is left), for the least expected
number until one group of faults is left; the hunt is counted to the same point. It chooses by
minutes and risk as well, so it need not take the fewest.

Call: ``.venv/bin/python benchmarks/optimum.py [cases]``. Figures stand in ``docs/benchmarks.md``.
"""

from __future__ import annotations

import random
import statistics
import sys
from collections.abc import Sequence
from dataclasses import replace
from functools import cache

from evencoil.solver import Telling
from evencoil.starters import draw
from evencoil.trouble import Answer, Case, Field, answer_at, field_of, hunt, weights_of

CIRCUITS = ("3A", "6C", "8A", "14A", "15A")
_FAULTS = 7
_MOST = 40


def small(field: Field, rows: Sequence[int]) -> Field:
    """Return the field with some of its faults, and the readings that tell any of them apart."""
    kept = [*rows, field.sound_row]
    places = range(len(field.readings))
    values = [[field.telling.value_at(row, place) for place in places] for row in kept]
    whole = Telling(values, [one.ratio for one in field.readings], field.telling.wrong)
    told = whole.telling()
    return replace(
        field,
        faults=tuple(field.faults[row] for row in rows),
        readings=tuple(field.readings[place] for place in told),
        shows=tuple(field.shows[row] for row in rows),
        telling=whole.only(told),
    )


def best(field: Field, odds: Sequence[float], groups: Sequence[int]) -> float:
    """Return the least expected number of readings until one group is left."""
    size = len(field.faults)
    columns = {
        tuple(field.telling.band_at(row, place) for row in range(size))
        for place, one in enumerate(field.readings)
        if one.setup != "live"
    }

    @cache
    def least(left: tuple[int, ...]) -> float:
        if len({groups[row] for row in left}) < 2:
            return 0.0
        whole = sum(odds[row] for row in left)
        found = float("inf")
        for column in columns:
            parts: dict[int, list[int]] = {}
            for row in left:
                parts.setdefault(column[row], []).append(row)
            if len(parts) < 2:
                continue
            rest = sum(
                sum(odds[row] for row in part) * least(tuple(part)) for part in parts.values()
            )
            found = min(found, 1 + rest / whole)
        return found

    return least(tuple(range(size)))


def taken(field: Field, symptom: str, truth: int, groups: Sequence[int]) -> tuple[int, int]:
    """Return how many readings the hunt takes until one group is left, and until it is found."""
    answers: list[Answer] = []
    apart = 0
    for _ in range(_MOST):
        left = [
            row
            for row in range(len(field.faults))
            if all(
                field.telling.band_at(row, field.place_of[one.reading])
                == field.telling.band_at(truth, field.place_of[one.reading])
                for one in answers
            )
        ]
        if len({groups[row] for row in left}) > 1:
            apart = len(answers) + 1
        stands = hunt(field, Case(symptom=symptom), answers)
        if stands.state != "hunting" or stands.offer is None:
            break
        answers.append(answer_at(field, field.faults[truth].id, stands.offer.reading.id))
    return min(apart, len(answers)), len(answers)


def main(cases: int) -> None:
    """Print the ratio for each circuit and for all."""
    ratios: list[float] = []
    for name in CIRCUITS:
        field = field_of(draw(name).circuit, with_work=False)
        rng = random.Random(name)  # noqa: S311 - no secret
        own, ours, theirs, ends = [], 0.0, 0.0, 0.0
        while len(own) < cases:
            symptom = rng.choice(sorted({one for shows in field.shows for one in shows}))
            able = [row for row, shows in enumerate(field.shows) if symptom in shows]
            if len(able) < _FAULTS:
                continue
            part = small(field, rng.sample(able, _FAULTS))
            dead = [place for place, one in enumerate(part.readings) if one.setup != "live"]
            groups = part.telling.groups(dead)[:_FAULTS]
            weights = weights_of(part.faults, "y1")
            odds = [one / sum(weights) for one in weights]
            least = best(part, odds, groups)
            if least == 0:
                continue
            counts = [taken(part, symptom, row, groups) for row in range(_FAULTS)]
            expected = sum(share * count for share, (count, _) in zip(odds, counts, strict=True))
            ends += sum(share * count for share, (_, count) in zip(odds, counts, strict=True))
            own.append(expected / least)
            ours, theirs = ours + expected, theirs + least
        ratios += own
        print(
            f"{name}: {ours / cases:.2f} readings beside {theirs / cases:.2f} at best, ratio of "
            f"the means {ours / theirs:.2f}, median {statistics.median(own):.2f}, found after "
            f"{ends / cases:.2f}"
        )
    print(f"all: mean ratio {statistics.mean(ratios):.2f}, median {statistics.median(ratios):.2f}")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 40)
