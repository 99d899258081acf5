"""Which column of a schedule means which field: guessed from its head, or told by a person.

A unit in the head counts where the head alone would not say: ``Power (kW)``. Nothing is guessed
twice: of two columns that could be one field the first has it, the other is left out and told.

Source: ``columns.csv``, judgment of the trade.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from evencoil.base import Message, OutOfRangeError

__all__ = ["FIELDS", "Mapped", "map_columns"]

_UNIT = re.compile(r"[\[(]\s*([^\])]*?)\s*[\])]")
_NOT_WORDS = re.compile(r"[^a-z0-9/]+")
#: heads that leave the unit to the brackets or to the cells, and what they are by the unit
_BY_UNIT = {
    "power": {"hp": "power_hp", "kw": "power_kw"},
    "fault": {"ka": "fault_ka", "a": "fault_a", "amps": "fault_a"},
}


@cache
def _names() -> Mapping[str, str]:
    """Return the field of every known head."""
    text = files("evencoil.schedule").joinpath("tables/columns.csv").read_text("utf-8")
    rows = csv.DictReader(line for line in text.splitlines() if not line.startswith("#"))
    return {name: row["field"] for row in rows for name in row["names"].split("|")}


FIELDS: tuple[str, ...] = tuple(dict.fromkeys(_names().values()))


@dataclass(frozen=True, slots=True)
class Mapped:
    """The columns of a sheet by field, and what was left out.

    Attributes
    ----------
    place_of : mapping
        Field to the place of its column.
    left : tuple of int
        Places that mean nothing here.
    doubled : tuple of (int, str)
        Places left out because an earlier column has their field.
    """

    place_of: Mapping[str, int]
    left: tuple[int, ...]
    doubled: tuple[tuple[int, str], ...]


def _plain(head: str) -> str:
    return _NOT_WORDS.sub(" ", head.lower().replace(".", "").replace("#", " no ")).strip()


def _field_of(head: str) -> str:
    """Return the field of a head; empty where nothing is known of it."""
    units = [_plain(unit) for unit in _UNIT.findall(head)]
    name = _plain(_UNIT.sub(" ", head)).replace("'", "")
    found = _names().get(name, "")
    # a unit alone in its brackets is one of power
    by_unit = _BY_UNIT.get(found if name else "power", {})
    return next((by_unit[unit] for unit in units if unit in by_unit), found)


def map_columns(heads: Sequence[str], told: Mapping[str, str] | None = None) -> Mapped:
    """Return which column means which field.

    Parameters
    ----------
    heads : sequence of str
        Of the sheet.
    told : mapping, optional
        Field to the head that means it, as a person says; it wins over every guess. An empty
        head means that the sheet has no such column.

    Raises
    ------
    OutOfRangeError
        For a field that there is not, or a head that the sheet has not.
    """
    place_of: dict[str, int] = {}
    for field, head in (told or {}).items():
        if field not in FIELDS:
            raise OutOfRangeError(
                Message("schedule.no_field", {"field": field[:30]}),
                field="map",
                hint=Message("schedule.no_field.hint", {"fields": ", ".join(FIELDS)}),
            )
        if not head:
            continue
        if head not in heads:
            raise OutOfRangeError(
                Message("schedule.no_head", {"head": head[:60]}),
                field="map",
                hint=Message("schedule.no_head.hint", {"heads": ", ".join(heads)[:300]}),
            )
        place_of[field] = list(heads).index(head)
    doubled: list[tuple[int, str]] = []
    left: list[int] = []
    for place, head in enumerate(heads):
        if place in place_of.values():
            continue
        field = _field_of(head)
        if not field or field in (told or {}):
            left.append(place)
        elif field in place_of:
            doubled.append((place, field))
        else:
            place_of[field] = place
    return Mapped(place_of, tuple(left), tuple(doubled))
