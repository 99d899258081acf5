"""Leads in the box that are no winding: heater, thermostat, thermistor, RTD.

Told apart by wire count and ohms at room temperature. They are never joined to
line or winding.

Units: resistance [ohm].
Source: platinum and nickel resistance sensors, IEC 60751 and common practice;
thermistors by IEC 60034-11 (a cold chain stays below 750 ohm); a heater by
volts squared over watts. The ranges are practice, not limits of a standard.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.base import Message, OutOfRangeError, plain

__all__ = ["AccessoryKind", "Told", "tell_accessory"]

AccessoryKind = Literal[
    "space_heater",
    "thermostat",
    "thermistor",
    "rtd",
    "protector",
    "capacitor",
    "start_switch",
    "relay",
    "unknown",
]
_MOST_OHM = Decimal(10_000_000)
#: least and most ohms at 0 to 40 C, by kind and number of wires
_RANGES: tuple[tuple[AccessoryKind, frozenset[int], Decimal, Decimal], ...] = (
    ("thermostat", frozenset({2}), Decimal(0), Decimal(2)),
    ("protector", frozenset({2, 3}), Decimal(0), Decimal(2)),
    ("rtd", frozenset({2, 3, 4}), Decimal(9), Decimal(13)),
    ("rtd", frozenset({2, 3, 4}), Decimal(100), Decimal(150)),
    ("thermistor", frozenset({2}), Decimal(30), Decimal(750)),
    ("space_heater", frozenset({2}), Decimal(15), Decimal(3000)),
)
#: what else lies in the box of a single-phase motor
_SINGLE_RANGES: tuple[tuple[AccessoryKind, frozenset[int], Decimal, Decimal], ...] = (
    ("start_switch", frozenset({2}), Decimal(0), Decimal(2)),
    ("relay", frozenset({2, 3}), Decimal(1000), Decimal(30_000)),
)
_SETTLES = {
    frozenset({"thermostat", "protector", "start_switch"}): "accessory.settle.switch",
    frozenset({"thermostat", "protector"}): "accessory.settle.thermostat",
    frozenset({"thermistor", "space_heater"}): "accessory.settle.heater",
    frozenset({"rtd", "thermistor", "space_heater"}): "accessory.settle.rtd",
}


@dataclass(frozen=True, slots=True)
class Told:
    """What some leads can be, and the reading that settles it.

    ``kinds`` holds one kind where it is settled.
    """

    kinds: tuple[AccessoryKind, ...]
    message: Message
    settles: Message | None


def tell_accessory(
    wires: int, ohms: Decimal | None, *, to_winding: bool = False, is_single: bool = False
) -> Told:
    """Return what leads that belong to no coil can be.

    Parameters
    ----------
    wires : int
        Leads that ring together, 1 to 6.
    ohms : Decimal or None
        Between two of them that are not alike, cold; None for open. [ohm]
    to_winding : bool
        Whether they ring to a winding lead as well.
    is_single : bool
        Whether the motor is single-phase: capacitors, start switch and relay
        may then be among them.

    Returns
    -------
    Told
        Every kind that fits, and what to read next.

    Raises
    ------
    OutOfRangeError
        If the count or the reading cannot be.
    """
    if not 1 <= wires <= 6:
        raise OutOfRangeError(
            Message("accessory.wires", {"wires": str(wires)}),
            field="leads.accessories",
            hint=Message("accessory.wires.hint"),
        )
    if ohms is not None and not 0 <= ohms <= _MOST_OHM:
        raise OutOfRangeError(
            Message("accessory.ohms", {"ohms": plain(ohms)}),
            field="leads.accessories",
            hint=Message("accessory.ohms.hint"),
        )
    params = {"wires": str(wires), "ohms": "open" if ohms is None else f"{plain(ohms)} Ω"}
    if to_winding:
        return Told((), Message("accessory.winding", params), Message("accessory.winding.hint"))
    if ohms is None and is_single:
        return Told(
            ("capacitor", "relay", "protector", "unknown"),
            Message("accessory.open_single", params),
            Message("accessory.settle.open_single"),
        )
    if ohms is None:
        return Told(
            ("thermostat", "unknown"),
            Message("accessory.open", params),
            Message("accessory.settle.open"),
        )
    fits = tuple(
        dict.fromkeys(
            kind
            for kind, counts, low, high in (*_RANGES, *(_SINGLE_RANGES if is_single else ()))
            if wires in counts and low <= ohms <= high
        )
    )
    params["kinds"] = ", ".join(str(Message(f"accessory.{kind}")) for kind in fits)
    if not fits:
        return Told(
            ("unknown",), Message("accessory.none", params), Message("accessory.settle.none")
        )
    if len(fits) == 1:
        return Told(fits, Message("accessory.told", params), None)
    settle = _SETTLES.get(frozenset(fits), "accessory.settle.rtd")
    return Told(fits, Message("accessory.several", params), Message(settle))
