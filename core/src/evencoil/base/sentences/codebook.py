"""The sentences about the code book: editions and local amendments."""

from __future__ import annotations

__all__ = ["SENTENCES"]

SENTENCES: dict[str, str] = {
    "edition.unknown": "The tables of the {year} edition are not included.",
    "edition.unknown.hint": "Use 2017, 2020 or 2023.",
    "amendment.smallest_conductor": "Smallest conductor",
    "amendment.conductor_percent": "Conductors at least, percent of full-load current",
    "amendment.disconnect_percent": "Disconnect at least, percent of full-load current",
    "amendment.device_percent": "Fuse / breaker at most, percent of full-load current",
    "amendment.no_next_size_up": "No next size up",
    "amendment.yes": "yes",
    "amendment.holds": "Local amendment, {name}: {value} {unit}. {author}: {reason}",
    "amendment.author": "This amendment has no author.",
    "amendment.reason": "No reason is given for this amendment.",
    "amendment.who.hint": "Name the authority or person who requires it, and why.",
    "amendment.looser": "{value} is outside {low} to {high}; a local amendment may only be stricter.",
    "amendment.looser.hint": "Less than the code needs the authority's own document and the engineer in charge.",
}
