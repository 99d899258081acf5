"""Least squares: the nearest minimum from a start, by damped Gauss-Newton steps.

Source: the method of Levenberg and Marquardt (numerical textbooks).
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

__all__ = ["descend"]

#: of a slope, and tries of a round before it is given up
_ASIDE, _TRIES = 1e-5, 8


def descend(
    residuals: Callable[[np.ndarray], np.ndarray],
    start: np.ndarray,
    *,
    rounds: int,
    most_step: float,
    settled: tuple[float, float],
) -> tuple[float, np.ndarray]:
    """Return cost and place of a minimum near a start.

    Parameters
    ----------
    residuals : callable
        What is to be small, of a place.
    start : array
        Where to begin; it is not changed.
    rounds : int
        At most so many steps.
    most_step : float
        No part of the place moves further in one step.
    settled : tuple of float
        It ends where a step gains less than this part of the cost, and this much.
    """
    here, damping = start, 1e-2
    now = residuals(here)
    for _ in range(rounds):
        slope = np.empty((len(now), len(here)))
        for column in range(len(here)):
            aside = here.copy()
            aside[column] += _ASIDE
            slope[:, column] = (residuals(aside) - now) / _ASIDE
        square, pull = slope.T @ slope, slope.T @ now
        before = now @ now
        for _ in range(_TRIES):
            step = np.linalg.solve(square + damping * np.diag(np.diag(square) + 1e-12), -pull)
            there = here + np.clip(step, -most_step, most_step)
            then = residuals(there)
            if then @ then < before:
                here, now, damping = there, then, max(damping / 5, 1e-9)
                break
            damping *= 4
        else:
            break
        if before - now @ now < settled[0] * before + settled[1]:
            break
    return float(now @ now), here
