"""What a works has settled: code edition, school, smallest conductors.

Units: none. Rules: the editions differ in section numbers and in few figures;
the schools differ where a limit may be stepped up (NEC 430.52).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.editions import Edition

__all__ = ["Profile", "School"]

School = Literal["exam", "field"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Profile:
    """The works' own rules, used wherever a job does not say otherwise."""

    edition: Edition = 2023
    school: School = "field"
