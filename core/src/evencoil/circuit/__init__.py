"""The one netlist of a job: devices, wires, edits, wire numbers, wire list.

Knows the codebook for wire sizes; not how a device behaves nor which starter it is.
"""

from evencoil.circuit.compare import Difference, differences
from evencoil.circuit.devices.drives import DRIVE_INPUTS, DRIVE_LINES, DRIVE_OUTPUT
from evencoil.circuit.devices.logic import commons_of, points_of, program_of
from evencoil.circuit.devices.motors import ALIASES, coils_of, winding_of_type
from evencoil.circuit.devices.sources import line_phasors, primary_taps, taps_of
from evencoil.circuit.editor import CircuitEditor
from evencoil.circuit.edits import Edit, EditKind, Replayed, move_ends, replay, swap_ends
from evencoil.circuit.fingerprint import netlist_fingerprint
from evencoil.circuit.io_map import io_map
from evencoil.circuit.library import (
    CONTACTS,
    TURNED,
    Link,
    device,
    links_of,
    turns_of,
    type_of,
    types,
)
from evencoil.circuit.nearest import Near, nearest
from evencoil.circuit.netfile import read_netlist, write_netlist
from evencoil.circuit.netlist import Device, Netlist, Wire
from evencoil.circuit.numbering import Numbered, number_nets
from evencoil.circuit.roles import has_two_speeds, is_jog, is_jog_word, is_off_word
from evencoil.circuit.tags import renamed
from evencoil.circuit.text import Circuit, read_circuit, said_end, wire_id
from evencoil.circuit.tracing import TracedWire, read_trace
from evencoil.circuit.usual import UsualDevice, usual_devices
from evencoil.circuit.wirelist import (
    Crowded,
    Material,
    WireRow,
    crowded,
    grounded_nets,
    loose_ends,
    material,
    wire_rows,
)

__all__ = [
    "ALIASES",
    "CONTACTS",
    "DRIVE_INPUTS",
    "DRIVE_LINES",
    "DRIVE_OUTPUT",
    "TURNED",
    "Circuit",
    "CircuitEditor",
    "Crowded",
    "Device",
    "Difference",
    "Edit",
    "EditKind",
    "Link",
    "Material",
    "Near",
    "Netlist",
    "Numbered",
    "Replayed",
    "TracedWire",
    "UsualDevice",
    "Wire",
    "WireRow",
    "coils_of",
    "commons_of",
    "crowded",
    "device",
    "differences",
    "grounded_nets",
    "has_two_speeds",
    "io_map",
    "is_jog",
    "is_jog_word",
    "is_off_word",
    "line_phasors",
    "links_of",
    "loose_ends",
    "material",
    "move_ends",
    "nearest",
    "netlist_fingerprint",
    "number_nets",
    "points_of",
    "primary_taps",
    "program_of",
    "read_circuit",
    "read_netlist",
    "read_trace",
    "renamed",
    "replay",
    "said_end",
    "swap_ends",
    "taps_of",
    "turns_of",
    "type_of",
    "types",
    "usual_devices",
    "winding_of_type",
    "wire_id",
    "wire_rows",
    "write_netlist",
]
