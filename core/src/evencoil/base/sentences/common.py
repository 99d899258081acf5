"""The sentences about numbers, texts and what people enter."""

from __future__ import annotations

__all__ = ["SENTENCES"]

SENTENCES: dict[str, str] = {
    "number.two_ways": "{text} can be read as {large} or as {small}.",
    "number.two_ways.hint": "Type it without the comma, or with a point.",
    "number.unread": "“{text}” is not a number.",
    "number.unread.hint": "Use digits with a comma or a point, like 38.6.",
    "number.too_large": "{text} is larger than any motor figure.",
    "text.control": "Character {place} is {sign}, which cannot be typed.",
    "text.control.hint": "Delete it, or paste the text again without formatting.",
    "count.range": "{count} is outside {low} to {high}.",
    "count.range.hint": "Count again; most motors and raceways have few.",
    "assumed.conductor_material": "Copper or aluminum not entered; {value} assumed.",
    "assumed.insulation": "Insulation not entered; {value}, 75 °C, assumed.",
    "assumed.ambient_c": "Ambient temperature not entered; {value} °C assumed.",
    "assumed.current_carrying": "Current-carrying conductors not entered; {value} assumed.",
    "assumed.protection_kind": "Fuse or breaker not chosen; {value} assumed.",
    "given.conductor_material": "{value}, as entered.",
    "given.insulation": "{value}, as entered.",
    "given.ambient_c": "{value} °C ambient, as entered.",
    "given.current_carrying": "{value} current-carrying conductors, as entered.",
    "given.termination_c": "All terminals marked {value} °C, as entered.",
    "given.protection_kind": "{value}, as entered.",
    "given.value": "{value} {unit}, as entered.",
    "given.duty": "{value}; why the machine cannot run continuously was not stated.",
    "given.duty_reason": "{value}: {reason}",
    "given.no_start": "Will not start on less: {value} ({by}).",
    "given.maker_limit": "{value} A, printed by the maker: {source}.",
    "given.run_length_ft": "One way, as measured: {value} ft.",
    "mark.check_the_book": "Check this cell in the printed code ({source}): {why}.",
    "mark.check_the_book_other": "Check this cell in the printed code ({source}): {why}. It may read {other}.",
    "part.conductor": "{size} carries {holds} A at {degrees} °C; {needed} A is needed.",
    "own.size": "{value}, entered with its source: {source}",
}
