"""Devices as people ask for them: a stop button has 11-12, a start button 13-14.

Each is a type of the library with its usual contacts. Source: IEC 60947-1 annex L and NEMA ICS
19 (terminal numbers by function), trade practice (names).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from evencoil.circuit.library import type_of

__all__ = ["UsualDevice", "usual_devices"]


@dataclass(frozen=True, slots=True, kw_only=True)
class UsualDevice:
    """A device by its trade name.

    Attributes
    ----------
    key : str
        Of its name: ``usual.KEY``.
    type : str
        Of the library.
    letters : str
        Of its tag.
    parameters : mapping
        Usual contacts and legend.
    """

    key: str
    type: str
    letters: str
    parameters: Mapping[str, str]


_USUAL: tuple[tuple[str, str, dict[str, str]], ...] = (
    ("contactor", "contactor", {"aux": "13-14,21-22"}),
    ("overload", "olr", {}),
    ("stop_button", "pb", {"c": "11-12", "legend": "STOP"}),
    ("start_button", "pb", {"c": "13-14", "legend": "START"}),
    ("double_button", "pb", {"c": "13-14,21-22"}),
    ("jog_button", "pb", {"c": "13-14", "legend": "JOG"}),
    ("reset_button", "pb", {"c": "13-14", "legend": "RESET"}),
    ("emergency_stop", "estop", {"c": "11-12", "legend": "E-STOP"}),
    ("off_on", "sel", {"pos": "OFF,ON", "c": "13-14:ON"}),
    ("hand_off_auto", "sel", {"pos": "HAND,OFF,AUTO", "init": "OFF", "c": "13-14:HAND,23-24:AUTO"}),
    ("run_jog", "sel", {"pos": "RUN,JOG", "c": "13-14:RUN"}),
    ("pressure_switch", "pilot", {"c": "13-14", "senses": "pressure"}),
    ("float_switch", "pilot", {"c": "13-14", "senses": "level"}),
    ("flow_switch", "pilot", {"c": "13-14", "senses": "flow"}),
    ("limit_switch", "pilot", {"c": "11-12", "senses": "travel"}),
    ("cut_out", "pilot", {"c": "11-12", "senses": "pressure"}),
    ("control_relay", "relay", {"aux": "13-14,21-22"}),
    ("on_delay_timer", "timer", {"fn": "on", "aux": "15-16-18"}),
    ("off_delay_timer", "timer", {"fn": "off", "aux": "15-16-18"}),
    ("wye_delta_timer", "sdtimer", {}),
    ("control_transformer", "xfmr", {}),
    ("fuse", "fuse", {}),
    ("pilot_light", "lamp", {}),
    ("push_to_test", "lamp", {"ptt": "1"}),
    ("disconnect", "isolator", {"init": "off"}),
    ("fused_disconnect", "fdisc", {}),
    ("breaker", "cb3", {}),
    ("terminal_block", "tb", {"n": "10"}),
)


def usual_devices() -> tuple[UsualDevice, ...]:
    """Return the devices that a motor control panel usually has, most common first."""
    return tuple(
        UsualDevice(key=key, type=kind, letters=type_of(kind).letter_iec, parameters=given)
        for key, kind, given in _USUAL
    )
