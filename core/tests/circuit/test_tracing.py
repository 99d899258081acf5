"""Wires as they are called out at a panel, and devices by their trade names."""

import pytest
from circuit_play import circuit_of
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.circuit.library import device
from evencoil.circuit.text import read_circuit
from evencoil.circuit.tracing import read_trace
from evencoil.circuit.usual import usual_devices

PANEL = read_circuit("M contactor aux=13-14\nPS1 pilot\nS2 pb\nRUN-1 lamp")


@pytest.mark.parametrize(
    ("line", "wires"),
    [
        ("M A1 - PS1 14", [("M.A1", "PS1.14", "")]),
        ("m.a1 to ps1.14", [("M.A1", "PS1.14", "")]),
        ("M:A1 -> PS1:14", [("M.A1", "PS1.14", "")]),
        ("3: M A1 - S2 14", [("M.A1", "S2.14", "3")]),
        ("wire 12A: M A1 – S2 14", [("M.A1", "S2.14", "12A")]),
        # three places are two wires, each on from the last
        ("M A1 - PS1 14 - S2 13", [("M.A1", "PS1.14", ""), ("PS1.14", "S2.13", "")]),
        # a tag may hold a hyphen of its own
        ("RUN-1 X1 - M 14", [("RUN-1.X1", "M.14", "")]),
    ],
)
def test_a_line_is_read_as_it_is_said(line, wires):
    """Space, point or colon between tag and terminal; dash, arrow or *to* between places."""
    assert [(one.start, one.end, one.number) for one in read_trace(PANEL, line)] == wires


@pytest.mark.parametrize(
    ("line", "says", "do"),
    [
        ("M A1 - PS9 14", "No device here is called PS9.", "M, PS1, RUN-1, S2"),
        ("M A1 - PS1 15", "PS1 has no terminal 15.", "It has: 13, 14."),
        ("M A1", "1 are named", "M A1 - PS1 14 - S2 13"),
        ("M A1 - PS1", "names no terminal", "tag and terminal"),
        ("M A1 - M A1", "Both ends are M.A1.", "two terminals"),
    ],
)
def test_what_is_wrong_is_named_with_what_is_there(line, says, do):
    """The device, the terminal, the count; and the next thing to do."""
    with pytest.raises(CoreError) as caught:
        read_trace(PANEL, line)
    assert says in str(caught.value)
    assert do in say(caught.value.hint)
    assert caught.value.field == "line"


@given(st.data())
def test_every_wire_of_a_circuit_can_be_called_out(data):
    """Whatever is drawn is said in one line and read back."""
    circuit = circuit_of(data.draw(st.sampled_from(["3A", "6A", "7A", "14C"])))
    wire = data.draw(st.sampled_from(circuit.netlist.wires))
    ends = [circuit.said(end).replace(".", " ") for end in (wire.start, wire.end)]
    (found,) = read_trace(circuit, " - ".join(ends))
    assert (found.start, found.end) == (wire.start, wire.end)


@given(st.text(max_size=60))
def test_any_text_is_read_or_refused(text):
    """Nonsense is an error of the core, never another."""
    try:
        read_trace(PANEL, text)
    except CoreError as wrong:
        assert wrong.field == "line"


def test_usual_devices_have_the_terminals_of_the_trade():
    """A stop button opens 11-12, a start button closes 13-14; each can be put in as it is."""
    made = {one.key: device(one.type, "x", one.parameters) for one in usual_devices()}
    assert made["stop_button"].terminals == ("11", "12")
    assert made["start_button"].terminals == ("13", "14")
    assert made["limit_switch"].terminals == ("11", "12")
    assert set(made["overload"].terminals) >= {"95", "96", "97", "98"}
    assert made["hand_off_auto"].parameters["pos"] == "HAND,OFF,AUTO"
    for one in usual_devices():
        assert one.type not in say_of(one.key).split()


def say_of(key):
    from evencoil.base import Message

    return say(Message(f"usual.{key}")) if key not in PLAIN else ""


#: types whose name is the trade's own word
PLAIN = {
    "contactor",
    "fuse",
    "on_delay_timer",
    "off_delay_timer",
    "wye_delta_timer",
    "control_relay",
}
