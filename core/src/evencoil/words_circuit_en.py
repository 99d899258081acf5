"""The sentences about circuits, starters and rehearsals, in English."""

from __future__ import annotations

__all__ = ["CIRCUIT_SENTENCES"]

CIRCUIT_SENTENCES: dict[str, str] = {
    # library and netlist text
    "device.no_type": "{type} is no device of the library.",
    "device.no_type.hint": "Known: {types}.",
    "device.no_parameter": "{type} has nothing called {name} to set.",
    "device.no_parameter.hint": "It has: {names}.",
    "device.wrong_value": "{name} cannot be {value}.",
    "device.wrong_value.hint": "It takes: {form}.",
    "netlist.device": "Line {line}: “{text}” is no device line.",
    "netlist.device.hint": "Write TAG TYPE name=value, for example S1 pb c=11-12.",
    "netlist.twice": "Line {line}: there is already a device {tag}.",
    "netlist.twice.hint": "Give each device its own tag.",
    "netlist.wire": "Line {line}: “{text}” is no wire.",
    "netlist.wire.hint": "Write two terminals with “ - ” between, for example S1.12 - S2.13.",
    "netlist.terminal": "Line {line}: there is no terminal {terminal}.",
    "netlist.terminal.hint": "Check the tag and the terminal number.",
    "netlist.too_many": "More than {most} wires.",
    "netlist.too_many.hint": "Split the installation into several jobs.",
    # edits
    "edit.no_terminal": "There is no terminal {terminal} any more.",
    "edit.no_wire": "There is no wire {wire} any more.",
    "edit.other_end": "The wire {wire} does not end at {terminal} any more.",
    "edit.no_device": "There is no device {device} any more.",
    "edit.still_wired": "A wire still ends there: {wire}.",
    # starters
    "starter.unknown": "{id} is no circuit of the catalogue.",
    "starter.unknown.hint": "Known: {ids}.",
    "starter.no_option": "{id} has no option {name}.",
    "starter.no_option.hint": "It has: {names}.",
    "starter.option": "{name} cannot be {value}.",
    "starter.option.hint": "It takes: {choices}.",
    "starter.clash": "{name} does not go with the other options: {missing} is not there.",
    "starter.clash.hint": "Take one of the two back.",
    # rehearsal
    "constants.unknown": "There is no set of constants called {name}.",
    "constants.unknown.hint": "Known: {names}.",
    "scenario.cannot": "{device} cannot do “{verb} {word}”.",
    "scenario.cannot.hint": "It can: {verbs}.",
}
