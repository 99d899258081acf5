"""Every setting of every device at its limits: refused by name, or everything still works.

What the library takes must be drawn, numbered, checked, listed and rehearsed; what it does not
take is refused as a CoreError that names the setting and what it takes. Nothing else may happen.
"""

from dataclasses import replace
from functools import cache

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base import CoreError
from evencoil.checks.check import check_circuit
from evencoil.checks.restarts import restarts_of
from evencoil.circuit import links_of, material, number_nets, types, wire_rows
from evencoil.circuit.library import device
from evencoil.circuit.netlist import Wire
from evencoil.codebook import Profile
from evencoil.drawing import draw_ladder, draw_panel, draw_power
from evencoil.rehearsal.stage import Stage
from evencoil.starters.catalogue import catalogue

EDGES = (
    "",
    " ",
    "0",
    "-1",
    "1",
    "1.5",
    "40",
    "41",
    "1e9",
    "1e-9",
    "nan",
    "inf",
    "1_000",
    "１２",
    "x",
    "0x10",
    "ON",
    "OFF,ON",
    "OFF,OFF",
    ",",
    "13-14",
    "13-13",
    "13-14,13-14",
    "13-14-15",
    "13",
    "-",
    "A1-A2",
    "13-14:",
    "13-14:ON",
    ":ON",
    "50,65,80",
    "65,50",
    "100",
    "208,240,480",
    "motor",
    "nowhere",
    "\x00",
    "é" * 40,
    "a" * 400,
)
#: what takes any text is tried with less: nothing calculates with it
FEW = ("", "1.5", "motor", "\x00", "a" * 400)
SETTINGS = [(kind.name, one.name, one.form) for kind in types().values() for one in kind.parameters]


@cache
def base():
    """Return the three-wire starter, into which a device is put."""
    return catalogue()["3A"].circuit


def with_device(item):
    """Return a circuit with one more device, its first two terminals in the control circuit."""
    circuit = base()
    ends = [f"{item.id}.{name}" for name in item.terminals]
    wires = circuit.netlist.wires
    if len(ends) > 1 and item.type != "supply":
        wires = (
            *wires,
            Wire("more.1", "control_fuse.2", ends[0]),
            Wire("more.2", ends[1], "control_transformer.X2"),
        )
    netlist = replace(circuit.netlist, devices=(*circuit.netlist.devices, item), wires=wires)
    return replace(circuit, netlist=netlist, tags={**circuit.tags, item.id: "NEW1"})


def everything(circuit):
    """Draw, number, list, check and start it."""
    numbered = number_nets(circuit)
    draw_ladder(circuit, numbered)
    draw_power(circuit, numbered)
    draw_panel(circuit, numbered)
    wire_rows(circuit, numbered, Profile())
    material(circuit)
    for item in circuit.netlist.devices:
        links_of(item)
    restarts_of(circuit)
    check_circuit(circuit)
    stage = Stage(circuit)
    stage.play([], until_us=100_000)


def put(kind, name, value):
    """Return a device with one setting, or None where it is refused by name."""
    try:
        return device(kind, "new", {name: value})
    except CoreError as refused:
        assert str(refused)
        assert refused.hint is not None
        assert str(refused.hint)
        return None


@pytest.mark.many
@pytest.mark.parametrize(("kind", "name", "form"), SETTINGS)
def test_a_setting_at_its_limits_is_refused_or_works(kind, name, form):
    """Every boundary value on its own."""
    for value in FEW if form in {"text", "tag"} else EDGES:
        item = put(kind, name, value)
        if item is not None:
            everything(with_device(item))


@pytest.mark.many
@settings(max_examples=40, deadline=None)
@given(data=st.data())
def test_several_settings_at_once_are_refused_or_work(data):
    """Settings that are right one by one may not go together."""
    kind = data.draw(st.sampled_from(sorted(types())))
    names = [one.name for one in types()[kind].parameters]
    chosen = data.draw(
        st.dictionaries(
            st.sampled_from(names or ["none"]), st.sampled_from(EDGES) | st.text(max_size=12)
        )
    )
    try:
        item = device(kind, "new", chosen)
    except CoreError:
        return
    everything(with_device(item))


#: known breakers, with what the refusal must say
BREAKERS = [
    ("tb", {"n": "1.5"}, "whole number from 1 to 40"),
    ("thermostat", {"c": "13"}, "one pair of terminals"),
    ("thermostat", {"c": "13-14,15-16"}, "one pair of terminals"),
    ("contactor", {"coil": "0"}, "number from 0.1"),
    ("lamp", {"v": "0"}, "number from 0.1"),
    ("supply", {"fault_ka": "0"}, "number from 0.01"),
    ("sel", {"pos": "OFF,OFF"}, "none blank or twice"),
    ("sel", {"pos": "OFF,ON", "init": "AUTO"}, "OFF, ON"),
    ("autox", {"taps": "65,150"}, "1 to 99"),
]


@pytest.mark.parametrize(("kind", "chosen", "says"), BREAKERS)
def test_what_cannot_be_is_refused_with_what_can(kind, chosen, says):
    with pytest.raises(CoreError) as caught:
        device(kind, "new", chosen)
    assert says in str(caught.value.hint)


def test_a_blank_setting_is_the_librarys_own():
    """A blank coil is no coil of 0 V: it is the library's, which is not this job's figure."""
    assert device("contactor", "new", {"coil": ""}).parameters["coil"] == "120"
    assert device("thermostat", "new", {"c": ""}).terminals == ("P1", "P2")
