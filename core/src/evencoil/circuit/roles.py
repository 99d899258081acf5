"""What a device is for by the words on it: a jog, an OFF position.

Source: NFPA 79 and IEC 60204-1 in their subject (jog and stop functions), trade practice.
"""

from __future__ import annotations

from evencoil.circuit.netlist import Device

__all__ = ["has_two_speeds", "is_jog", "is_jog_word", "is_off_word"]

_OFF = {"OFF", "0", "STOP"}
_JOG = ("JOG", "INCH")


def has_two_speeds(item: Device) -> bool:
    """Tell whether a motor has two speeds: what it draws at each is on its plate alone.

    Parameters
    ----------
    item : Device
        A motor, or any device.
    """
    return item.type.startswith("motor2") or item.parameters.get("kind", "").startswith("2-speed")


def is_off_word(word: str) -> bool:
    """Tell whether a selector's position means that nothing runs.

    Parameters
    ----------
    word : str
        As on the legend.
    """
    return word.upper() in _OFF


def is_jog_word(word: str) -> bool:
    """Tell whether a selector's position means that the motor runs only while a button is held.

    Parameters
    ----------
    word : str
        As on the legend.
    """
    return word.upper() in _JOG


def is_jog(item: Device) -> bool:
    """Tell whether a button is there to jog: by its legend or its role.

    Parameters
    ----------
    item : Device
        A push button.
    """
    said = f"{item.id} {item.parameters.get('legend', '')}".upper()
    return item.type == "pb" and any(word in said for word in _JOG)
