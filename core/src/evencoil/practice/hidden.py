"""Hunt a hidden fault: readings cost minutes, and the panel answers as it would.

Source: the field of `evencoil.trouble`; costs are judgment of the trade.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from evencoil.base import Message, OutOfRangeError
from evencoil.starters import catalogue, draw
from evencoil.trouble import SETUP_MIN, Fault, Field, field_of, said_held, said_value

__all__ = ["HiddenHunt", "hidden_hunt", "hideable"]

_CIRCUITS = ("3A", "6C", "8A")


@lru_cache(maxsize=4)
def _field(circuit: str) -> Field:
    return field_of(draw(circuit).circuit, with_work=False)


@dataclass(frozen=True)
class HiddenHunt:
    """A circuit with a fault that is not told.

    Attributes
    ----------
    circuit : str
        Of the catalogue.
    symptom : str
        What people say of it.
    field : Field
        Its faults and readings.
    truth : Fault
        What is wrong.
    """

    circuit: str
    symptom: str
    field: Field
    truth: Fault

    def shows(self, reading: str) -> str:
        """Return what a reading shows, in words.

        Parameters
        ----------
        reading : str
            Its id.

        Raises
        ------
        OutOfRangeError
            If this circuit has none such.
        """
        place = self._place(reading)
        row = self.field.row_of[self.truth.id]
        return said_value(self.field.readings[place], self.field.telling.value_at(row, place))

    def said(self, reading: str) -> str:
        """Return what a reading is, with what is held for it.

        Parameters
        ----------
        reading : str
            Its id.

        Raises
        ------
        OutOfRangeError
            If this circuit has none such.
        """
        return said_held(self.field.readings[self._place(reading)], self.field.circuit)

    def _place(self, reading: str) -> int:
        place = self.field.place_of.get(reading)
        if place is None:
            raise OutOfRangeError(
                Message("practice.no_reading", {"reading": reading[:60]}),
                field="reading",
                hint=Message("practice.no_reading.hint"),
            )
        return place

    def minutes(self, taken: Sequence[str]) -> float:
        """Return what some readings cost, with what is set up once for them [min]."""
        places = [self.field.place_of[one] for one in taken if one in self.field.place_of]
        used = [self.field.readings[place] for place in places]
        setups = {one.setup for one in used if one.setup}
        return sum(one.minutes for one in used) + sum(SETUP_MIN[one] for one in setups)

    def is_found(self, fault: str) -> bool:
        """Tell whether a fault is the one, or one that no reading parts from it."""
        row, other = self.field.row_of.get(fault), self.field.row_of[self.truth.id]
        if row is None:
            return False
        groups = self.field.telling.groups(range(len(self.field.readings)))
        return groups[row] == groups[other]


def hideable(circuit: str) -> tuple[Fault, ...]:
    """Return the faults of a circuit that can be hidden: those that are played and seen.

    Parameters
    ----------
    circuit : str
        Of the catalogue.

    Raises
    ------
    OutOfRangeError
        If the catalogue has none such.
    """
    field = _known(circuit)
    return tuple(field.faults[row] for row in _able(field))


def _known(circuit: str) -> Field:
    if circuit not in catalogue():
        raise OutOfRangeError(
            Message("practice.no_circuit", {"circuit": circuit[:20]}),
            field="circuit",
            hint=Message("practice.no_circuit.hint"),
        )
    return _field(circuit)


def _able(field: Field) -> list[int]:
    return [
        row
        for row, shows in enumerate(field.shows)
        if shows and field.faults[row].is_played and field.faults[row].also is None
    ]


def hidden_hunt(seed: int, circuit: str = "", fault: str = "") -> HiddenHunt:
    """Return a circuit with a hidden fault.

    Parameters
    ----------
    seed : int
        The same seed hides the same fault.
    circuit : str
        Of the catalogue; drawn from three usual ones if empty.
    fault : str
        By its id, as a colleague hid it; by chance if empty.

    Raises
    ------
    OutOfRangeError
        If the catalogue has no such circuit, or the circuit no such fault.
    """
    rng = random.Random(f"hidden {seed}")  # noqa: S311 - a drill is no secret
    circuit = circuit or rng.choice(_CIRCUITS)
    field = _known(circuit)
    able = _able(field)
    if fault:
        if field.row_of.get(fault) not in able:
            raise OutOfRangeError(
                Message("practice.no_fault", {"circuit": circuit}),
                field="fault",
                hint=Message("practice.no_fault.hint"),
            )
        row = field.row_of[fault]
    else:
        row = rng.choice(able)
    return HiddenHunt(
        circuit=circuit,
        symptom=rng.choice(sorted(field.shows[row])),
        field=field,
        truth=field.faults[row],
    )
