"""What people give, step by step: the models that are stored and exchanged.

Empty means: nobody said it. What is worked out never stands here. Units are in
the names. Numbers travel as decimal strings, so that no float comes near them.
"""

from __future__ import annotations

from typing import Literal

from evencoil.base import DecimalText
from evencoil.sizing import OwnSizeInput, SizeInputs

__all__ = ["STEPS", "DecimalText", "OwnSizeInput", "SizeInputs", "StepName"]

StepName = Literal["supply", "leads", "bench", "trust", "replace", "joints", "size", "starter"]
STEPS: tuple[StepName, ...] = (
    "supply",
    "leads",
    "bench",
    "trust",
    "replace",
    "joints",
    "size",
    "starter",
)
