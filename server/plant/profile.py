"""The plant rules of a plant as the core takes them."""

from __future__ import annotations

from api.build import build
from evencoil.base import __version__
from evencoil.codebook import Profile, edition_of
from evencoil.job import FileProfile
from people.models import Works

__all__ = ["profile_of", "rules_of"]


def profile_of(works: Works) -> Profile:
    """Return the plant's own rules."""
    said = FileProfile.model_validate(
        {
            "edition": edition_of(works.edition),
            "rating_rule": works.rating_rule,
            "swap_lines": works.swap_lines,
            "twist_on": works.twist_on,
            "twist_on_largest": works.twist_on_largest,
            "rating_rule_reason": works.rating_rule_reason,
            "wire_colors": works.wire_colors,
            "phase_colors": works.phase_colors,
            "control_wire": works.control_wire,
            "ferrules": works.ferrules,
            "device_names": works.device_names,
            "trade_terms": works.trade_terms,
            "line_names": works.line_names,
            "amendments": works.amendments,
        }
    )
    return said.as_core()


def rules_of(works: Works) -> str:
    """Return what decides every answer of a plant: the code and the plant rules."""
    return f"{__version__} {build()} {profile_of(works)!r}"
