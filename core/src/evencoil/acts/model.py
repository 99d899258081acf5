"""What people did at the panel, as entries that are only ever added, and what they are about.

An entry says who did what to what, and which entries its device had seen before:
that, not a clock, is the order of things. What the entries are about (sources, wires, rows,
stages) comes from the netlist, one `Work` for each of its revisions.

Units: values are texts with their unit beside them; waits [s].
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

__all__ = ["Entry", "Role", "Row", "Rules", "Source", "Stage", "Wire", "Work"]

Role = Literal["other", "apprentice", "electrician", "reviewer"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """One thing that was done.

    Attributes
    ----------
    id : str
        Given by the device; the same id is the same entry, whatever it was sent how often.
    by, role : str
        The person, and the role when it was received.
    device : str
        Where it was made.
    rev : int
        Revision of the netlist that the device had.
    about, body : mapping
        Stable ids of what it is about; values of its kind.
    based_on : tuple of str
        Newest entries the device had seen.
    at, received_at : str
        Clocks of device and server; shown, never compared.
    clock_off_s : float
        How far the device's clock was off when it was received. [s]
    is_online : bool
        Made and answered over the network at once.
    """

    id: str
    kind: str
    by: str
    role: Role
    device: str
    rev: int
    about: Mapping[str, Any] = field(default_factory=dict)
    body: Mapping[str, Any] = field(default_factory=dict)
    based_on: tuple[str, ...] = ()
    at: str = ""
    received_at: str = ""
    clock_off_s: float = 0.0
    is_online: bool = False

    def content(self) -> tuple[object, ...]:
        """Return what makes it the same entry when it is sent again."""
        return (
            self.kind,
            self.by,
            self.device,
            self.rev,
            _plain(self.about),
            _plain(self.body),
            tuple(sorted(self.based_on)),
        )


def _plain(value: Any) -> object:
    """Return a value as something that can be compared."""
    if isinstance(value, Mapping):
        return tuple(sorted((key, _plain(one)) for key, one in value.items()))
    if isinstance(value, (list, tuple)):
        return tuple(_plain(one) for one in value)
    return value


@dataclass(frozen=True, slots=True, kw_only=True)
class Source:
    """Something that can make the panel live: its isolator, and where it is proven dead.

    ``wait_s`` is how long stored energy has to go before a reading counts. [s]
    """

    kind: str
    isolator: str
    points: tuple[str, ...]
    wait_s: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Wire:
    """A wire of the netlist: both terminals, and ``power`` or ``control``."""

    ends: tuple[str, str]
    scope: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """An ohm reading of the dead check: its wires, and what it should be.

    Bounds in ohms; None is no bound; an open circuit is above every maximum.
    """

    wires: tuple[str, ...]
    least: str | None
    most: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """A step of energizing: which isolators are closed in it, which wires it tests, its results."""

    live: tuple[str, ...]
    scope: tuple[str, ...]
    needs: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rules:
    """What the plant asks for.

    Attributes
    ----------
    dead_limit_v : str
        A reading above it is live. [V]
    two_person, torque : frozenset of str
        Wires whose landing a second person checks, whose screws are torqued.
    two_sign : bool
        Who worked at the panel does not sign for it.
    has_license : bool
        A license number is asked for.
    is_rehearsed : bool
        The circuit was rehearsed as it is drawn.
    """

    dead_limit_v: str = "1.0"
    two_person: frozenset[str] = frozenset()
    torque: frozenset[str] = frozenset()
    two_sign: bool = True
    has_license: bool = True
    is_rehearsed: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """Everything that entries can be about, of one revision of the netlist.

    Attributes
    ----------
    items : tuple of str
        Insulation groups and ground paths that are read dead.
    expect : mapping
        Unit and bounds of each item and of each kind of live reading.
    stages : mapping
        In their order.
    """

    sources: Mapping[str, Source]
    wires: Mapping[str, Wire]
    rows: Mapping[str, Row]
    items: tuple[str, ...]
    expect: Mapping[str, Mapping[str, Any]]
    stages: Mapping[str, Stage]
    rules: Rules = field(default_factory=Rules)
