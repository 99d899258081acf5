"""Netlists as text: devices with their parameters, wires with their numbers.

One device a line: ``TAG [ROLE] TYPE name=value ...``. Wires as
``A.1 - B.2 ; B.2 - C.3``, in the control part with their wire number before a
colon. The tag is a label; the role, or else the tag, is the lasting id.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from evencoil.base import FileFormatError, Message, line_said
from evencoil.circuit import devices as _library
from evencoil.circuit.library import device
from evencoil.circuit.netlist import Device, Netlist, Wire

__all__ = ["Circuit", "read_circuit", "said_end", "wire_id"]

_FILLED = _library  # importing it fills the library
MOST_WIRES = 10_000
_LINE_ENDS = {"L1", "L2", "L3"}


@dataclass(frozen=True, slots=True)
class Circuit:
    """A netlist with its labels, which stand apart from it.

    Attributes
    ----------
    tags : mapping
        Device id to the tag that people read.
    numbers : mapping
        Wire id to the wire number it was given, where one was.
    never_together : tuple of frozenset
        Ids of contactors that must never be closed together.
    makers : frozenset of str
        Ids of links that the maker fitted: verified, never landed.
    drops : mapping
        Contact, as device and name, to the contactors that must drop out when it opens;
        derived from the netlist by `evencoil.checks.with_expectations`, empty until then.
    """

    netlist: Netlist
    tags: Mapping[str, str]
    numbers: Mapping[str, str] = field(default_factory=dict)
    never_together: tuple[frozenset[str], ...] = ()
    makers: frozenset[str] = frozenset()
    drops: Mapping[tuple[str, str], frozenset[str]] = field(default_factory=dict)

    def id_of(self, name: str) -> str | None:
        """Return the device id for an id or a tag, None if there is none."""
        if any(item.id == name for item in self.netlist.devices):
            return name
        return next((key for key, tag in self.tags.items() if tag == name), None)

    def said(self, terminal: str) -> str:
        """Return a terminal as people read it, ``TAG.terminal``, a line by the plant's name."""
        owner, _, end = terminal.rpartition(".")
        if end in _LINE_ENDS and any(
            item.id == owner and item.type in {"supply", "joint"} for item in self.netlist.devices
        ):
            end = line_said(end)
        return f"{self.tags.get(owner, owner)}.{said_end(end)}"

    def named(self, place: str) -> str:
        """Return a device by its tag, or a terminal as people read it."""
        return self.said(place) if "." in place else self.tags.get(place, place)


def said_end(end: str) -> str:
    """Return a terminal's own name as people read it.

    Parameters
    ----------
    end : str
        As ``A1``; both ends of an output are ``Q1_1`` and read as Q1.1.
    """
    return end.replace("_", ".")


def wire_id(start: str, end: str) -> str:
    """Return the role of a standard circuit's wire: its two ends as first drawn.

    Parameters
    ----------
    start : str
        A terminal as ``device.terminal``.
    end : str
        The other end.
    """
    return f"{start}~{end}"


def _wrong(message: str, line: int, where: str, **params: str) -> FileFormatError:
    return FileFormatError(
        Message(f"netlist.{message}", {"line": str(line), **params}),
        field=f"{where}.{line}",
        hint=Message(f"netlist.{message}.hint"),
    )


def _lines(text: str) -> Iterator[tuple[int, str]]:
    for number, line in enumerate(text.splitlines(), start=1):
        bare = line.split("#", maxsplit=1)[0].strip()
        if bare:
            yield number, bare


def _devices(text: str) -> tuple[list[Device], dict[str, str]]:
    found: list[Device] = []
    ids: dict[str, str] = {}
    for number, line in _lines(text):
        words = line.split()
        if len(words) > 2 and "=" not in words[2]:
            tag, role, kind, rest = words[0], words[1], words[2], words[3:]
        elif len(words) > 1 and "=" not in words[1]:
            tag, role, kind, rest = words[0], words[0], words[1], words[2:]
        else:
            raise _wrong("device", number, "devices", text=line[:60])
        if tag in ids or role in ids.values():
            raise _wrong("twice", number, "devices", tag=tag[:40])
        given = dict(part.partition("=")[::2] for part in rest)
        found.append(device(kind, role, given))
        ids[tag] = role
    return found, ids


def _wires(
    text: str, where: str, ids: Mapping[str, str], known: set[str]
) -> Iterator[tuple[Wire, str]]:
    for number, line in _lines(text):
        label, colon, body = line.partition(":")
        if not colon:
            label, body = "", line
        for part in body.split(";"):
            if not part.strip():
                continue
            ends = [end.strip() for end in part.split(" - ")]
            if len(ends) != 2:
                raise _wrong("wire", number, where, text=part.strip()[:60])
            full = []
            for end in ends:
                tag, _, terminal = end.partition(".")
                name = f"{ids.get(tag, tag)}.{terminal}"
                if name not in known:
                    # Q1.1 of a programmable relay is one terminal
                    name = f"{ids.get(tag, tag)}.{terminal.replace('.', '_')}"
                if name not in known:
                    raise _wrong("terminal", number, where, terminal=end[:60])
                full.append(name)
            yield Wire(wire_id(full[0], full[1]), full[0], full[1]), label.strip()


def read_circuit(
    devices: str,
    power: str = "",
    control: str = "",
    never_together: str = "",
    programs: Mapping[str, str] = MappingProxyType({}),
) -> Circuit:
    r"""Read a circuit from its text.

    Parameters
    ----------
    devices : str
        One device a line.
    power : str
        Wires without numbers.
    control : str
        Wires, each line with its number before a colon.
    never_together : str
        For example ``KF + KR, KY + KD``.
    programs : mapping
        Tag of a programmable relay to its program.

    Returns
    -------
    Circuit
        Netlist and labels.

    Raises
    ------
    CoreError
        Naming the part and the line of what is wrong; nothing is taken over.

    Examples
    --------
    >>> made = read_circuit("S1 stop pb c=11-12\\nH1 lamp_run lamp", "", "1: S1.12 - H1.X1")
    >>> made.netlist.wires[0].id, made.tags["stop"]
    ('stop.12~lamp_run.X1', 'S1')
    """
    found, ids = _devices(devices)
    given_to = {ids.get(tag, tag): text for tag, text in programs.items()}
    found = [
        device(item.type, item.id, {**item.parameters, "program": given_to[item.id]})
        if item.id in given_to
        else item
        for item in found
    ]
    known = {f"{item.id}.{terminal}" for item in found for terminal in item.terminals}
    wires: list[Wire] = []
    numbers: dict[str, str] = {}
    seen: set[str] = set()
    for where, text in (("power", power), ("control", control)):
        for wire, label in _wires(text, where, ids, known):
            if len(wires) >= MOST_WIRES:
                raise _wrong("too_many", len(wires), where, most=str(MOST_WIRES))
            if wire.id in seen:
                continue
            seen.add(wire.id)
            wires.append(wire)
            if label:
                numbers[wire.id] = label
    # a mechanical interlock or a watched motor is given by tag and kept by id
    kept = []
    for item in found:
        given = dict(item.parameters)
        for name in ("mech", "motor"):
            if given.get(name):
                given[name] = "+".join(ids.get(tag, tag) for tag in given[name].split("+"))
        kept.append(Device(item.id, item.type, item.terminals, given))
    pairs = tuple(
        frozenset(ids.get(tag.strip(), tag.strip()) for tag in pair.split("+"))
        for pair in never_together.split(",")
        if pair.strip()
    )
    return Circuit(
        Netlist(tuple(kept), tuple(wires)),
        {role: tag for tag, role in ids.items()},
        numbers,
        pairs,
    )
