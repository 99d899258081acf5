"""What an audit looks at, in the order of what hurts most, and which figures belong to what.

A figure or verdict of the Size sheet belongs to one topic; a new one is given its topic here, or
a test fails. The order is judgment: the supply comes first, for much of the rest follows from it;
what can start by itself or burst comes before what runs hot over years.
"""

from __future__ import annotations

import re
from typing import Literal, get_args

__all__ = ["STATES", "TOPICS", "AuditState", "Topic", "topic_of"]

Topic = Literal[
    "supply",
    "leads",
    "starter",
    "fault",
    "overload",
    "device",
    "wire",
    "disconnect",
    "control",
    "drive",
    "nameplate",
]
#: worst first
TOPICS: tuple[Topic, ...] = get_args(Topic)

#: ``fails`` by what was entered or read, ``fails_if`` the assumed facts that it stands on are
#: true; ``doubt`` a person has to look; ``unknown`` a figure cannot be found; ``not_recorded``
#: nobody entered what is there, so nothing was held against anything; ``guess`` it holds on
#: assumed facts; ``holds`` on entered ones alone
AuditState = Literal["fails", "fails_if", "doubt", "unknown", "not_recorded", "guess", "holds"]
#: worst first
STATES: tuple[AuditState, ...] = get_args(AuditState)

_FIGURES: dict[Topic, tuple[str, ...]] = {
    "fault": ("device_interrupting", "starter_short_circuit", "device_volts"),
    "overload": (
        "overload_setting_a",
        "overload_a",
        "overload_ceiling_a",
        "overload_units",
        "relay_setting_a",
        "relay_dial",
        "trip_class",
        "protector",
        "heater_code",
        "heater_there_a",
        "existing_heaters",
    ),
    "device": ("device_a", "protection_device_a", "protection_limit_a", "existing_device"),
    "wire": (
        "conductor_size",
        "grounding_conductor_size",
        "grounding_size",
        "voltage_drop_percent",
        "total_drop_percent",
        "raceway_size",
        "existing_cable",
        "there_other_loads",
        "secondary_conductor_size",
        "resistor_conductor_size",
    ),
    "disconnect": (
        "disconnect_switch_a",
        "controller_disconnect_place",
        "motor_disconnect_place",
        "controller_rating",
        "disconnect_kind",
        "disconnect_rating",
        "existing_plug",
    ),
    "control": (
        "transformer_va",
        "transformer_without_fuse",
        "primary_fuse_a",
        "secondary_fuse_a",
        "secondary_by_primary",
        "control_conductor",
        "control_device_most_a",
    ),
    "drive": ("drive_conductor_size", "drive_disconnect_a", "drive_overload_a", "drive_output"),
    "nameplate": (
        "table_flc_a",
        "full_load_torque_lbft",
        "slip_percent",
        "line_start_a",
        "start_torque_percent",
        "locked_rotor_measured_a",
        "code_letter_measured",
    ),
}
_TOPIC_OF: dict[str, Topic] = {name: topic for topic, names in _FIGURES.items() for name in names}
#: a motor of several speeds, and one in star-delta, has figures for each part
_PART = re.compile(r"^(speed_\d|leg|half|run)_")


def topic_of(name: str) -> Topic | None:
    """Return the topic of a figure or verdict, None for one that only sums others up.

    Parameters
    ----------
    name : str
        Id of its step.
    """
    return _TOPIC_OF.get(_PART.sub("", name))
