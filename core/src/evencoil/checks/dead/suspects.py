"""Which single faults explain the readings that were taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from evencoil.base import Message
from evencoil.checks.dead.bench import Bench, Hand, Observed, agrees, can_be_read, fuses_of
from evencoil.checks.dead.faults import FaultKind, wiring_faults
from evencoil.circuit import Circuit

__all__ = ["Suspect", "ohms_read", "readings_hold", "suspects"]

#: how common each is on a bench, most first
_COMMON: tuple[FaultKind, ...] = ("missing", "moved", "swapped", "jumper")


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspect:
    """A single fault, how many of the readings it explains, and how to say it."""

    kind: FaultKind
    explains: int
    of: int
    message: Message
    wire: str = ""


def suspects(circuit: Circuit, observed: Sequence[Observed], most: int = 8) -> tuple[Suspect, ...]:
    """Return the single faults that explain readings, best first.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    observed : sequence of Observed
        Every reading that was taken, right ones too: they rule faults out.
    most : int
        How many to return.

    Returns
    -------
    tuple of Suspect
        Empty while no reading differs from the drawing.
    """
    if not observed:
        return ()
    pulled = fuses_of(circuit)
    readings = [one for one in observed if can_be_read(circuit, one)]

    known_hands: dict[tuple[Hand, ...], list[float]] = {}

    def explained(solved: Sequence[float]) -> int:
        return sum(map(agrees, solved, (one.ohms for one in readings)))

    base = circuit.netlist
    read = Bench(base, pulled, known_hands).reader(readings)
    if not readings or explained(read(None)) == len(readings):
        return ()
    found = []
    for fault in wiring_faults(circuit):
        if fault.base is not base:
            base = fault.base
            read = Bench(base, pulled, known_hands).reader(readings)
        count = explained(read(fault.joint))
        if count:
            found.append(
                Suspect(
                    kind=fault.kind,
                    explains=count,
                    of=len(readings),
                    message=fault.message,
                    wire=fault.wire,
                )
            )
    found.sort(key=lambda one: (-one.explains, _COMMON.index(one.kind)))
    best = found[0].explains if found else 0
    return tuple(one for one in found if one.explains == best)[:most]


def readings_hold(circuit: Circuit, observed: Sequence[Observed]) -> tuple[bool | None, ...]:
    """Tell of each reading whether the circuit as drawn gives it; None if its ends are gone.

    Parameters
    ----------
    circuit : Circuit
        As it is drawn.
    observed : sequence of Observed
        Readings that were taken.
    """
    here = [can_be_read(circuit, one) for one in observed]
    bench = Bench(circuit.netlist, fuses_of(circuit))
    solved = iter(bench.read([one for one, is_here in zip(observed, here, strict=True) if is_here]))
    return tuple(
        agrees(next(solved), one.ohms) if is_here else None
        for one, is_here in zip(observed, here, strict=True)
    )


def ohms_read(circuit: Circuit, observed: Sequence[Observed]) -> tuple[float, ...]:
    """Return what a meter reads at each place of a circuit as drawn [ohm].

    Parameters
    ----------
    circuit : Circuit
        As it is drawn; coils with their own ohms where these are set.
    observed : sequence of Observed
        Places and what is held; their own ohms are not looked at.
    """
    return tuple(Bench(circuit.netlist, fuses_of(circuit)).read(list(observed)))
