"""What plant and run ask of every device: its branches, its due times, its state.

Parts implement it; plant and run know only this, so imports go one way: events, behavior,
network, sparse, plant, run, parts, compile.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, ClassVar, Protocol

from evencoil.circuit import Device, Link

__all__ = ["Behavior", "Calculated", "Converter", "Fed"]


class Behavior(Protocol):
    """One device in a run. ``run`` is the `Run` that asks."""

    verbs: ClassVar[tuple[str, ...]]
    is_quiet: ClassVar[bool]
    id: str
    device: Device

    @property
    def links(self) -> Sequence[Link]:
        """Return the links inside the device."""

    @property
    def branches(self) -> dict[str, int]:
        """Return link names with their branch numbers."""

    failed: dict[str, str]
    meant: dict[str, bool]

    def fail(self, run: Any, word: str) -> bool:
        """Let a contact or pole fail, or mend it; False if it has no such link."""

    def take_off(self, run: Any, *, is_off: bool) -> bool:
        """Take a plug-in device or a sensor off its wires, or put it back."""

    def begin(self) -> None:
        """Set the state of the first instant."""

    def rest(self, run: Any) -> None:
        """Put the branches of the first instant."""

    def due(self) -> int | None:
        """Return when something of its own happens next [us], None if nothing does."""

    def phase(self) -> tuple[Any, ...]:
        """Return what tells two of its states apart, whatever the clock says."""

    def fire(self, run: Any) -> None:
        """Do what is due now."""

    def observe(self, run: Any) -> None:
        """Look at the solved network."""

    def act(self, run: Any, verb: str, word: str) -> bool:
        """Do what an operator or a fault does; False if it cannot be done to this."""

    def word(self, run: Any) -> str:
        """Return its state in one word, empty if it has none."""

    def tells(self, run: Any) -> dict[str, str]:
        """Return further states by name."""

    def is_closed(self, run: Any, name: str) -> bool:
        """Tell whether a link conducts."""

    def save(self) -> list[Any]:
        """Return its state as plain values."""

    def load(self, values: list[Any]) -> None:
        """Take a state back."""


class Calculated(Protocol):
    """A motor whose coils are coupled through the air gap."""

    def network_volts(self, run: Any) -> list[complex]:
        """Return the volts of every node of the network with it [V]."""


class Converter(Protocol):
    """What feeds motors at a frequency of its own: ``hz`` is signed, 0 while it gives nothing."""

    hz: float
    base_hz: float

    @property
    def is_stopping(self) -> bool:
        """Tell whether it brings what it feeds to rest."""

    @property
    def volts_part(self) -> float:
        """Return the part of its volts at which a motor has its full flux."""

    def reached(self, run: Any) -> frozenset[int]:
        """Return every node that its output reaches by what conducts, windings left out."""

    def touched(self, run: Any) -> frozenset[int]:
        """Return every node that its output reaches, also through windings."""


class Fed(Protocol):
    """A motor that may be fed at another frequency than the lines'."""

    def see_frequency(self, run: Any) -> None:
        """Take the frequency of what feeds it."""
