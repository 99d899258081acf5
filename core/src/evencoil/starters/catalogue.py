"""The catalogue: one file a circuit, as devices and wires with their numbers.

Each file carries where it comes from. Reading is cached: the files never
change while the program runs.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from evencoil.base import Message, NotInTableError, say
from evencoil.circuit import Circuit, read_circuit

__all__ = ["FOUND", "CatalogueEntry", "catalogue", "entry_of", "found_entry"]

#: the standard circuit of a starter that was there before the job: nothing is drawn for it
FOUND = "found"

_HEADER = ("# title:", "# source:")


@dataclass(frozen=True, slots=True)
class CatalogueEntry:
    """One circuit of the catalogue, with what it is for.

    Attributes
    ----------
    id : str
        For example ``3A``.
    group : str
        Family, for the choice by what it must do.
    purpose, use, avoid, interlocks : str
        What it does, where it is used and where not, what must be in it.
    """

    id: str
    group: str
    title: str
    purpose: str
    use: str
    avoid: str
    interlocks: str
    circuit: Circuit


def _order(name: str) -> tuple[int, str]:
    digits = "".join(sign for sign in name if sign.isdigit())
    return int(digits), name


@cache
def catalogue() -> Mapping[str, CatalogueEntry]:
    """Return every circuit by its id, in the catalogue's order.

    Raises
    ------
    ValueError
        If a file lacks its header: a bug.
    """
    found = {}
    folder = files("evencoil.starters").joinpath("circuits")
    for file in folder.iterdir():
        if not file.name.endswith(".toml"):
            continue
        text = file.read_text("utf-8")
        if not all(f"\n{mark}" in f"\n{text}" for mark in _HEADER):
            raise ValueError(f"{file.name} lacks one of {_HEADER}")
        body = tomllib.loads(text)
        found[body["id"]] = CatalogueEntry(
            id=body["id"],
            group=body["group"],
            title=body["title"],
            purpose=body["purpose"],
            use=body["use"],
            avoid=body["avoid"],
            interlocks=body["interlocks"],
            circuit=read_circuit(
                body["devices"],
                body["power"],
                body.get("control", ""),
                body.get("never_together", ""),
                body.get("programs", {}),
            ),
        )
    return {name: found[name] for name in sorted(found, key=_order)}


@cache
def found_entry() -> CatalogueEntry:
    """Return the empty panel: a supply and a motor, and nothing yet between them."""

    def said(name: str) -> str:
        return say(Message(f"found.{name}"))

    return CatalogueEntry(
        id=FOUND,
        group=FOUND,
        title=said("title"),
        purpose=said("purpose"),
        use=said("use"),
        avoid=said("avoid"),
        interlocks=said("interlocks"),
        circuit=read_circuit("SUP supply supply v=480\nM1 motor motor3"),
    )


def entry_of(circuit_id: str) -> CatalogueEntry:
    """Return a circuit of the catalogue.

    Raises
    ------
    NotInTableError
        If there is none of that id.
    """
    known = catalogue()
    if circuit_id not in known:
        raise NotInTableError(
            Message("starter.unknown", {"id": circuit_id[:20]}),
            field="starter.standard_circuit",
            hint=Message("starter.unknown.hint", {"ids": ", ".join(known)}),
        )
    return known[circuit_id]
