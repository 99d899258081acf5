"""What a plant has settled: code edition, rating_rule, smallest conductors.

Units: none. Rules: the editions differ in section numbers and in few figures;
the rating rules differ where a limit may be stepped up (NEC 430.52).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.base import LineNames, Names, TradeTerms
from evencoil.codebook.amendments import Amendment
from evencoil.codebook.editions import Edition

__all__ = [
    "DeviceNames",
    "Ferrules",
    "PhaseColors",
    "Profile",
    "RatingRule",
    "Swap",
    "TwistOn",
    "WireColors",
]

RatingRule = Literal["main_rule", "next_size_up"]
TwistOn = Literal["never", "building", "anywhere"]
Swap = Literal["L1-L2", "L2-L3", "L1-L3"]
WireColors = Literal["nfpa79", "iec60204"]
#: colors of the lines of a power circuit, L1 to L3
PhaseColors = Literal[
    "plain", "brown_orange_yellow", "black_red_blue", "brown_black_gray", "red_yellow_blue"
]
#: letters of the tags: KM1 or K1 by IEC practice, M in North America
DeviceNames = Literal["iec", "iec_k", "nema"]
Ferrules = Literal["number", "number_terminal", "far_end"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Profile:
    """The works' own rules, used wherever a job does not say otherwise.

    ``swap_lines`` is the plant's habit: which two lines are exchanged for the
    other direction. ``twist_on`` is its rule on twist-on connectors:
    never, only in the building's own wiring and not on machines, or anywhere
    they are listed for; and up to which conductor. ``rating_rule_reason`` is why the plant
    chose its rating rule; ``wire_colors`` are those of NFPA 79 or of IEC 60204-1;
    ``phase_colors`` those of the lines, one color for all unless the plant has its own;
    ``control_wire`` is its usual control conductor; ``ferrules`` what stands on the end
    of a wire: its number, number and terminal, or number and where the other end is;
    ``device_names`` are the letters of its tags, ``trade_terms`` its words for things and
    ``line_names`` those of the three lines; ``amendments`` are what the place asks for
    beyond the code.
    """

    edition: Edition = 2023
    rating_rule: RatingRule = "next_size_up"
    swap_lines: Swap = "L1-L3"
    twist_on: TwistOn = "building"
    twist_on_largest: str = "10"
    rating_rule_reason: str = ""
    wire_colors: WireColors = "nfpa79"
    phase_colors: PhaseColors = "plain"
    control_wire: str = "14"
    ferrules: Ferrules = "number"
    device_names: DeviceNames = "iec"
    trade_terms: TradeTerms = "american"
    line_names: LineNames = "L1-L2-L3"
    amendments: tuple[Amendment, ...] = ()

    @property
    def names(self) -> Names:
        """Return the plant's words for things and names of lines."""
        return Names(self.trade_terms, self.line_names)
