"""Sensors that watch a motor: elements, thermistors, monitors, and what a pair of leads is.

Knows nothing of netlists or jobs.
"""

from evencoil.sensors.elements import ELEMENTS, Element, ElementName, celsius_of, ohms_of
from evencoil.sensors.leads import LeadReadings, element_ohms
from evencoil.sensors.monitor import OPEN_C, SHORT_C, Channel, Monitor, MonitorState
from evencoil.sensors.shaft import BearingEnd, loop_flows
from evencoil.sensors.thermistor import (
    RESET_OHM,
    SHORT_OHM,
    TRIP_OHM,
    ThermistorRelay,
    thermistor_ohms,
)
from evencoil.sensors.what import Fit, Told, what_is_it

__all__ = [
    "ELEMENTS",
    "OPEN_C",
    "RESET_OHM",
    "SHORT_C",
    "SHORT_OHM",
    "TRIP_OHM",
    "BearingEnd",
    "Channel",
    "Element",
    "ElementName",
    "Fit",
    "LeadReadings",
    "Monitor",
    "MonitorState",
    "ThermistorRelay",
    "Told",
    "celsius_of",
    "element_ohms",
    "loop_flows",
    "ohms_of",
    "thermistor_ohms",
    "what_is_it",
]
