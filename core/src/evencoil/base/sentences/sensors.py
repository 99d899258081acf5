"""Sentences of the sensors that watch a motor."""

from __future__ import annotations

__all__ = ["SENTENCES"]

SENTENCES: dict[str, str] = {
    "sensor.no_element": "{name} is no element that is known here.",
    "sensor.no_element.hint": "Known are {names}.",
    "sensor.temperature": "{name} at {value} °C: its table goes from {least} to {most} °C.",
    "sensor.temperature.hint": "Take a temperature within it.",
    "sensor.ohms": "{name} never has {value} ohm: it goes from {least} to {most} ohm.",
    "sensor.ohms.hint": "Look at the unit, at the leads left in, and whether it is another element.",
    "sensor.reading": "The reading {name} is missing: without it the leads cannot be taken off.",
    "sensor.reading.hint": "Read between those two leads as well.",
    "sensor.no_figure": "{value} is no reading.",
    "sensor.no_figure.hint": "Type ohms with a point, or OL.",
    "sensor.negative": "{value} is no resistance.",
    "sensor.nothing_fits": "No kind that is known here reads so at this temperature: look at the leads, then at the meter.",
    "sensor.warm": "Warm it by hand or with a lamp and read again: a Pt100 rises by 0.39 ohm a kelvin, an Ni120 by 0.7, a thermistor hardly, a heater not at all.",
    "sensor.like_wires": "Look for a third and fourth lead: like wires of an element read near zero between each other.",
    "sensor.heater_figures": "A space heater has volts and watts stamped near its leads, and its ohms are volts squared by watts.",
    "sensor.heater_unknown": "If a space heater is fitted, type its volts and watts: it can read like an element.",
}
