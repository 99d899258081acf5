"""What a rehearsal did: frames, events, hazards."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from evencoil.rehearsal.hazards import Hazard
from evencoil.solver import Event

__all__ = ["DriveFrame", "Frame", "MotorFrame", "ProgramFrame", "Trace"]


@dataclass(frozen=True, slots=True, kw_only=True)
class MotorFrame:
    """A motor at an instant: its word, volts and speed in percent, amps of a coil.

    What only a motor calculated from its nameplate has is None for others: speed [rpm], torque
    [N m], the most current in a conductor to its box [A], its hottest coil [C].
    """

    word: str
    volts_percent: float
    speed_percent: float
    coil_amps_a: float
    field: str
    speed_rpm: float | None = None
    torque_nm: float | None = None
    lead_amps_a: float | None = None
    hottest_c: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ProgramFrame:
    """What a program shows, as far as it differs from the frame before; all of it in the first.

    Attributes
    ----------
    is_running : bool
        It has scanned since its supply came; else nothing of it is worth anything.
    values : mapping of str to str
        What names are worth, as a program writes values; 1 and 0 for on and off.
    flows : mapping of int to str
        How the contacts of a network stand, by its place: as `LiveProgram.flows` gives them.
    """

    is_running: bool
    values: Mapping[str, str]
    flows: Mapping[int, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveFrame:
    """A drive at an instant.

    Attributes
    ----------
    hz, set_hz : float
        What it gives out, backward below zero, and what it is set to. [Hz]
    out_v, bus_v : float
        Between lines of its output, and of its bus. [V]
    is_bus_live : bool
        The volts of its bus can hurt.
    amps_a : float
        The most in a leg of its output. [A]
    heat_percent : float
        Of its overload, 100 where it trips.
    fault : str
        Why it tripped; empty if it did not.
    """

    hz: float
    set_hz: float
    out_v: float
    bus_v: float
    is_bus_live: bool
    amps_a: float
    heat_percent: float
    fault: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Frame:
    """The whole installation at one instant.

    ``closed``, ``nets`` and ``live`` are None in a light frame, which only moves speeds
    and heats on. ``nets`` holds volts to ground by net id, ``live`` the ids of the nets
    whose volts can hurt.
    """

    time_us: int
    words: Mapping[str, str] | None
    closed: tuple[str, ...] | None
    nets: Mapping[str, float] | None
    live: tuple[str, ...] | None
    motors: Mapping[str, MotorFrame]
    heats: Mapping[str, float]
    snapshot: int | None
    drives: Mapping[str, DriveFrame] = field(default_factory=dict)
    #: by relay, those that differ from the frame before; empty unless asked for
    programs: Mapping[str, ProgramFrame] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class Trace:
    """What a rehearsal did.

    Attributes
    ----------
    set_name : str
        Constant set.
    fingerprint : str
        Of the netlist.
    until_us : int
        How far it reaches. [us]
    snapshots : tuple of dict
        States to go on from, in time.
    never_settles : bool
        True if it was broken off because contacts go on changing for ever.
    is_cut : bool
        True if it ends at ``until_us`` before what was asked for, with too much to tell: its
        last snapshot goes on from there.
    effects : frozenset of int
        Numbers of the acts that did something: a coil, a motor, a trip or a fuse changed by them.
    """

    set_name: str
    fingerprint: str
    start_us: int
    until_us: int
    frames: tuple[Frame, ...]
    events: tuple[Event, ...]
    hazards: tuple[Hazard, ...]
    snapshots: tuple[Mapping[str, Any], ...]
    never_settles: bool
    is_cut: bool = False
    effects: frozenset[int] = frozenset()

    def words_at(self, time_us: int) -> Mapping[str, str]:
        """Return the words of every device in the newest full picture up to an instant.

        Parameters
        ----------
        time_us : int
            The instant. [us]
        """
        found: Mapping[str, str] = {}
        for frame in self.frames:
            if frame.time_us > time_us:
                break
            if frame.words is not None:
                found = frame.words
        return found
