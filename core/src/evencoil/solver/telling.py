"""Which reading tells candidates apart: odds, information, and what was read.

A table of what each candidate would show, candidate by reading, is cut into bands that a meter
tells apart. Odds follow Bayes' rule with a small chance that a reading is wrong.

Units: information [bit].
Source: entropy and Bayes' rule (textbook topics); cost and error model are the caller's.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

__all__ = ["Telling"]

_LEAST = 1e-12
_UNKNOWN = -1


class Telling:
    """What candidates would show, in bands; none of it changes.

    Parameters
    ----------
    values : sequence of sequence of float
        Candidate by reading, all above zero.
    ratios : sequence of float
        Of each reading: values next to each other within it are one band.
    wrong : float
        Chance that a reading is wrong.
    """

    def __init__(
        self, values: Sequence[Sequence[float]], ratios: Sequence[float], wrong: float
    ) -> None:
        self.values: NDArray[np.float32] = np.log(np.array(values, dtype=np.float32))
        self.gaps: NDArray[np.float32] = np.log(np.array(ratios, dtype=np.float32))
        order = np.argsort(self.values, axis=0, kind="stable")
        ranked = np.take_along_axis(self.values, order, axis=0)
        steps = np.zeros(ranked.shape, dtype=np.int32)
        steps[1:] = np.diff(ranked, axis=0) > self.gaps
        bands = np.cumsum(steps, axis=0)
        self.bands: NDArray[np.int16] = np.empty(bands.shape, dtype=np.int16)
        np.put_along_axis(self.bands, order, bands, axis=0)
        self.wrong = wrong
        self.counts: NDArray[np.int16] = self.bands.max(axis=0) + np.int16(1)

    def telling(self) -> list[int]:
        """Return the readings that are not the same for every candidate."""
        return [int(place) for place in np.flatnonzero(self.counts > 1)]

    def only(self, readings: Sequence[int]) -> Telling:
        """Return the same with some of the readings, in their order.

        Parameters
        ----------
        readings : sequence of int
            Their places.
        """
        part = Telling.__new__(Telling)
        places = list(readings)
        part.values = self.values[:, places].copy()
        part.bands = self.bands[:, places].copy()
        part.gaps, part.counts = self.gaps[places], self.counts[places]
        part.wrong = self.wrong
        return part

    def band_of(self, reading: int, value: float) -> int:
        """Return the band a value belongs to; -1 where it fits none.

        Parameters
        ----------
        reading : int
            Its place.
        value : float
            As read, above zero.
        """
        column, told = self.values[:, reading], float(np.log(max(value, _LEAST)))
        away = np.abs(column - told)
        near = int(np.argmin(away))
        # as far as the band is wide, and half a gap more on each side
        return int(self.bands[near, reading]) if away[near] <= self.gaps[reading] else _UNKNOWN

    def groups(self, readings: Sequence[int]) -> list[int]:
        """Return the group of each candidate: alike in all of some readings.

        Parameters
        ----------
        readings : sequence of int
            Those that may be taken.
        """
        seen: dict[bytes, int] = {}
        part = np.ascontiguousarray(self.bands[:, list(readings)])
        return [seen.setdefault(row.tobytes(), len(seen)) for row in part]

    def odds(
        self, prior: Sequence[float], read: Sequence[tuple[int, int, float]]
    ) -> tuple[list[float], list[float]]:
        """Return the odds after some readings, and how well each candidate explains them.

        Parameters
        ----------
        prior : sequence of float
            Before any.
        read : sequence of (int, int, float)
            Reading, band, and its weight: 1 for sure, 0.5 for unsure.

        Returns
        -------
        list of float
            They add up to one.
        list of float
            The chance of these readings, beside that of a candidate that fits them all.
        """
        size = len(prior)
        fits = np.zeros(size)
        for reading, band, weight in read:
            others = max(1, int(self.counts[reading]) - 1)
            is_band = self.bands[:, reading] == band
            miss = self.wrong / others if band != _UNKNOWN else self.wrong / (others + 1)
            fits += weight * np.where(is_band, 0.0, np.log(miss / (1 - self.wrong)))
        weights = np.log(np.maximum(np.array(prior, dtype=np.float64), _LEAST)) + fits
        weights -= weights.max()
        found = np.exp(weights)
        return [float(one) for one in found / found.sum()], [float(one) for one in np.exp(fits)]

    def information(self, odds: Sequence[float], readings: Sequence[int]) -> list[float]:
        """Return what each reading is expected to tell [bit].

        Parameters
        ----------
        odds : sequence of float
            Of the candidates, adding up to one.
        readings : sequence of int
            Which.
        """
        weights = np.array(odds, dtype=np.float64)
        part = self.bands[:, list(readings)]
        found = np.zeros(part.shape[1])
        for band in range(int(self.counts[list(readings)].max(initial=0))):
            share = weights @ (part == band)
            found -= np.where(share > 0, share * np.log2(np.maximum(share, _LEAST)), 0.0)
        return [float(one) for one in found]

    def shares(self, odds: Sequence[float], reading: int) -> Mapping[int, float]:
        """Return what part of the odds lies in each band of a reading.

        Parameters
        ----------
        odds : sequence of float
            Of the candidates.
        reading : int
            Which.
        """
        found: dict[int, float] = {}
        for band, share in zip(self.bands[:, reading], odds, strict=True):
            found[int(band)] = found.get(int(band), 0.0) + share
        return found

    def value_in(self, reading: int, band: int) -> float:
        """Return a value of a band of a reading: that of the first candidate in it."""
        row = int(np.argmax(self.bands[:, reading] == band))
        return self.value_at(row, reading)

    def band_at(self, candidate: int, reading: int) -> int:
        """Return the band that a candidate shows at a reading."""
        return int(self.bands[candidate, reading])

    def value_at(self, candidate: int, reading: int) -> float:
        """Return what a candidate shows at a reading."""
        return float(np.exp(self.values[candidate, reading]))
