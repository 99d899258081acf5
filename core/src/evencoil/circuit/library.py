"""What a device is: its terminals and the paths between them, as data.

A device type is a function from parameters to terminals and links. A link is
one path inside the device between two of its terminals: a pole, a contact, a
coil, a heater. Ladder, wire list, checks, ohms and rehearsal all read links;
how a device behaves in time stands in `evencoil.solver.parts`.

Terminal numbering: IEC 60947-1 annex L (the last digit tells the function, the
first the position), NEMA ICS 19 and IEC 60617 for the symbols drawn.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from evencoil.base import CoreError, Message, NotInTableError, OutOfRangeError, say
from evencoil.circuit.netlist import Device

__all__ = [
    "CONTACTS",
    "TURNED",
    "DeviceType",
    "Link",
    "LinkKind",
    "Parameter",
    "Parameters",
    "contacts",
    "device",
    "links_of",
    "register",
    "turns_of",
    "type_of",
    "types",
]

LinkKind = Literal[
    "pole",
    "no",
    "nc",
    "no_early",
    "nc_late",
    "timed_no",
    "timed_nc",
    "coil",
    "lamp",
    "load",
    "heat",
    "fuse",
    "winding",
    "primary",
    "secondary",
    "sensor",
    "input",
    "source",
    "rectifier",
    "resistor",
    "drive",
]
#: what an operator turns to a position: selectors, and switches that carry the motor's current
TURNED = ("sel", "drum")
CONTACTS = ("no", "nc", "no_early", "nc_late", "timed_no", "timed_nc")
Parameters = Mapping[str, str]


@dataclass(frozen=True, slots=True)
class Link:
    """One path inside a device, from terminal to terminal.

    ``name`` tells it from the others of the device; ``closes_at`` is the
    selector position or other word at which a contact is closed.
    """

    kind: LinkKind
    a: str
    b: str
    name: str = ""
    closes_at: str = ""


@dataclass(frozen=True, slots=True)
class Parameter:
    """One thing that can be set on a device.

    ``form`` is ``number``, ``count`` (a whole number), ``numbers`` (whole ones between commas),
    ``words`` (positions between commas), ``contact`` (one pair of terminals), ``contacts``,
    ``text``, ``tag`` (another device) or a list of words separated by ``|``. What a number may
    be follows from its unit unless ``least`` and ``most`` say otherwise.
    """

    name: str
    form: str
    default: str = ""
    unit: str = ""
    least: float | None = None
    most: float | None = None

    @property
    def limits(self) -> tuple[float, float]:
        """Return the least and the most that a number may be, in its unit."""
        least, most = _LIMITS.get(self.unit, (-1e9, 1e9))
        return (
            least if self.least is None else self.least,
            most if self.most is None else self.most,
        )


#: by unit: above nothing for whatever must be there, no colder than a winter night
_LIMITS: Mapping[str, tuple[float, float]] = {
    "A": (0.001, 100_000),
    "V": (0.1, 50_000),
    "VA": (0.01, 1_000_000),
    "Ω": (1e-6, 1e9),
    "kA": (0.01, 1000),
    "hp": (0.001, 100_000),
    "s": (0, 86_400),
    "°C": (-60, 400),
    "%": (1, 99),
}
_NUMBER = re.compile(r"[+-]?\d{1,9}(\.\d{1,9})?([eE][+-]?\d{1,2})?", re.ASCII)
_MOST_LISTED = 24


def _nothing(parameters: Parameters) -> CoreError | None:
    del parameters
    return None


@dataclass(frozen=True, slots=True)
class DeviceType:
    """A kind of device.

    Attributes
    ----------
    name : str
        As written in a netlist.
    letter_iec, letter_nema : str
        Tag letters in the two styles of naming.
    ways : str
        ``power`` if it belongs in the power diagram, ``control`` in the ladder,
        ``both`` for a contactor or an overload relay.
    most_wires : int
        How many wires a terminal takes.
    refused : callable
        Returns what is wrong with parameters that each have their form; None if nothing.
    """

    name: str
    letter_iec: str
    letter_nema: str
    ways: Literal["power", "control", "both"]
    parameters: tuple[Parameter, ...]
    terminals: Callable[[Parameters], tuple[str, ...]]
    links: Callable[[Parameters], tuple[Link, ...]]
    most_wires: int = 2
    refused: Callable[[Parameters], CoreError | None] = _nothing


_TYPES: dict[str, DeviceType] = {}


def register(*found: DeviceType) -> None:
    """Add device types to the library.

    Raises
    ------
    ValueError
        If a name is taken: a bug.
    """
    for one in found:
        if one.name in _TYPES:
            raise ValueError(f"device type {one.name!r} is registered twice")
        _TYPES[one.name] = one


def types() -> Mapping[str, DeviceType]:
    """Return every device type by name."""
    return _TYPES


def type_of(name: str) -> DeviceType:
    """Return a device type.

    Raises
    ------
    NotInTableError
        If the library has none of that name.
    """
    if name not in _TYPES:
        raise NotInTableError(
            Message("device.no_type", {"type": name[:40]}),
            field="type",
            hint=Message("device.no_type.hint", {"types": ", ".join(sorted(_TYPES))}),
        )
    return _TYPES[name]


def _checked(kind: DeviceType, given: Mapping[str, str], where: str) -> dict[str, str]:
    known = {parameter.name: parameter for parameter in kind.parameters}
    kept = {name: item.default for name, item in known.items() if item.default}
    for name, value in given.items():
        if name not in known:
            raise OutOfRangeError(
                Message("device.no_parameter", {"type": kind.name, "name": name[:40]}),
                field=where,
                hint=Message("device.no_parameter.hint", {"names": ", ".join(known) or "—"}),
            )
        _check_form(known[name], value, where)
        if value or not known[name].default or known[name].form == "contacts":
            kept[name] = value
    _check_place(kept, where)
    return kept


def _check_place(kept: Mapping[str, str], where: str) -> None:
    """Refuse a switch that stands at a position it does not have."""
    places = kept.get("pos", "").split(",")
    if kept.get("pos") and kept.get("init", "") not in {"", *places}:
        raise OutOfRangeError(
            Message("device.wrong_value", {"name": "init", "value": kept["init"][:40]}),
            field=where,
            hint=Message("device.wrong_value.hint", {"form": ", ".join(places)[:200]}),
        )


def _is_number(parameter: Parameter, value: str) -> bool:
    least, most = parameter.limits
    return bool(_NUMBER.fullmatch(value)) and least <= float(value) <= most


def _is_listed(parameter: Parameter, value: str) -> bool:
    """Tell whether a list between commas holds what it may: no blanks, none twice, not too many."""
    parts = [part.strip() for part in value.split(",")]
    if len(parts) > _MOST_LISTED or len(set(parts)) < len(parts):
        return False
    if parameter.form == "numbers":
        return all(
            part.isascii() and part.isdigit() and _is_number(parameter, part) for part in parts
        )
    return all(parts)


def _said_form(parameter: Parameter) -> str:
    """Return what a parameter takes, in words."""
    if parameter.form in {"number", "count", "numbers"}:
        least, most = parameter.limits
        return say(
            Message(
                f"device.form.{parameter.form}",
                {"least": f"{least:g}", "most": f"{most:g}", "unit": parameter.unit},
            )
        ).strip()
    if parameter.form in {"contact", "contacts", "words"}:
        return say(Message(f"device.form.{parameter.form}"))
    return parameter.form.replace("|", ", ")


_IS_RIGHT: Mapping[str, Callable[[Parameter, str], bool]] = {
    "number": _is_number,
    "count": lambda parameter, value: (
        value.isascii() and value.isdigit() and _is_number(parameter, value)
    ),
    "numbers": _is_listed,
    "words": _is_listed,
    "contact": lambda parameter, value: "," not in value and _is_contact(value),
    "contacts": lambda parameter, value: _are_contacts(value),
}


def _check_form(parameter: Parameter, value: str, where: str) -> None:
    form = parameter.form
    if "|" in form:
        is_right = value in form.split("|")
    else:
        # blank is what the library has, or nothing where it has nothing
        is_right = not value or form not in _IS_RIGHT or _IS_RIGHT[form](parameter, value)
    if not is_right:
        raise OutOfRangeError(
            Message("device.wrong_value", {"name": parameter.name, "value": value[:40]}),
            field=where,
            hint=Message("device.wrong_value.hint", {"form": _said_form(parameter)}),
        )


def _are_contacts(value: str) -> bool:
    """Tell whether a list holds contacts only, and no terminal name stands for two of them."""
    listed = [item for item in value.split(",") if item]
    if len(listed) > _MOST_LISTED or not all(_is_contact(item) for item in listed):
        return False
    bodies = [item.split(":", maxsplit=1)[0] for item in listed]
    return len(set(bodies)) == len(bodies)


def _is_contact(text: str) -> bool:
    body = text.split(":", maxsplit=1)[0]
    parts = body.split("-")
    return (
        2 <= len(parts) <= 3
        and len(set(parts)) == len(parts)
        and all(part.isascii() and part.isalnum() and len(part) <= 4 for part in parts)
    )


def device(type_name: str, device_id: str, given: Mapping[str, str] | None = None) -> Device:
    """Return a device of a type with its parameters checked.

    Parameters
    ----------
    type_name : str
        A name of the library.
    device_id : str
        Its lasting id.
    given : mapping, optional
        Parameters; defaults fill the rest.

    Returns
    -------
    Device
        With the terminals that the parameters give it.

    Raises
    ------
    CoreError
        If there is no such type, or a parameter is unknown or has no such value.
    """
    kind = type_of(type_name)
    parameters = _checked(kind, given or {}, device_id)
    wrong = kind.refused(parameters)
    if wrong is not None:
        raise wrong
    return Device(device_id, kind.name, kind.terminals(parameters), parameters)


def links_of(item: Device) -> tuple[Link, ...]:
    """Return the paths inside a device; none for a joint or a terminal block."""
    return _links(item.type, tuple(item.parameters.items()))


@lru_cache(maxsize=4096)
def _links(type_name: str, parameters: tuple[tuple[str, str], ...]) -> tuple[Link, ...]:
    kind = _TYPES.get(type_name)
    return () if kind is None else kind.links(dict(parameters))


def turns_of(item: Device) -> tuple[str, ...]:
    """Return the positions that a selector can be turned to from where it stands at first."""
    words = [word for word in item.parameters.get("pos", "").split(",") if word]
    first = item.parameters.get("init") or (words or [""])[0]
    return tuple(word for word in words if word != first)


def contacts(listed: str) -> tuple[Link, ...]:
    """Return the contacts that a list of terminal numbers means.

    Parameters
    ----------
    listed : str
        For example ``13-14,21-22`` or ``15-16-18`` or ``13-14:AUTO``; the last
        digits tell what it is: 1-2 opens, 3-4 closes, 5-6 opens late, 7-8
        closes early, three numbers change over.

    Returns
    -------
    tuple of Link
        One for each pair; letters count as opening contacts.

    Examples
    --------
    >>> [(link.kind, link.a, link.b) for link in contacts("13-14,21-22")]
    [('no', '13', '14'), ('nc', '21', '22')]
    """
    found: list[Link] = []
    for item in listed.split(","):
        if not item:
            continue
        body, _, word = item.partition(":")
        ends = body.split("-")
        if len(ends) == 3:
            common, rest, work = ends
            timed = common.endswith("5")
            found += [
                Link("timed_nc" if timed else "nc", common, rest, f"{common}-{rest}", word),
                Link("timed_no" if timed else "no", common, work, f"{common}-{work}", word),
            ]
            continue
        a, b = ends
        kind: LinkKind = {"1": "nc", "3": "no", "5": "nc_late", "7": "no_early"}.get(a[-1], "nc")  # type: ignore[assignment]  # literals of the table above
        found.append(Link(kind, a, b, body, word))
    return tuple(found)
