"""What a wire does, told from the drawing: worked by hand on a three-wire starter."""

import pytest
from circuit_play import circuit_of

from evencoil.base.words import say
from evencoil.circuit.numbering import number_nets
from evencoil.drawing.ladder import draw_ladder
from evencoil.drawing.panel import draw_panel, draw_strip
from evencoil.drawing.power import draw_power
from evencoil.drawing.purpose import purposes
from evencoil.drawing.upright import draw_rungs
from evencoil.starters.catalogue import catalogue


def said_at(circuit, terminal):
    """Return what the net at a terminal does."""
    numbered = number_nets(circuit)
    return say(purposes(circuit, numbered)[numbered.id_at(terminal)])


def test_wires_of_a_three_wire_starter_say_what_they_do():
    """STOP S1 11-12 feeds START S2 13-14, KM1 seals it in; OL1 opens the return of the coil."""
    circuit = circuit_of("3A")
    after_stop = said_at(circuit, "stop.12")
    assert "S1 11-12" in after_stop
    assert after_stop.endswith("Feeds KM1.")
    assert "KM1" in said_at(circuit, "start.14")
    assert "S2 13-14" in said_at(circuit, "start.14")
    assert said_at(circuit, "overload.95").startswith("Return of KM1 through OL1 95-96")
    assert said_at(circuit, "supply.L2") == "L2 as the supply brings it."
    assert said_at(circuit, "overload.4T2").startswith("L2 through ")
    assert said_at(circuit, "overload.4T2").endswith("KM1, OL1.")


@pytest.mark.parametrize("name", list(catalogue()))
def test_every_wired_net_of_every_circuit_says_what_it_does(name):
    """No net is left without words, and none without a way is said to have one."""
    circuit = circuit_of(name)
    numbered = number_nets(circuit)
    told = purposes(circuit, numbered)
    ends = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    assert set(told) == {numbered.id_at(end) for end in ends}
    # a standard circuit has no wire that leads from nowhere
    lost = [net for net, does in told.items() if does.id == "net.unreached"]
    assert lost == [], name


@pytest.mark.parametrize("name", list(catalogue()))
def test_a_terminal_is_touched_once_and_inside_each_sheet(name):
    """Every place to touch names a terminal that is there, none twice, all on the sheet."""
    circuit = circuit_of(name)
    numbered = number_nets(circuit)
    known = {f"{item.id}.{end}" for item in circuit.netlist.devices for end in item.terminals}
    ladder = draw_ladder(circuit, numbered)
    sheets = [
        ladder.picture,
        draw_power(circuit, numbered),
        draw_panel(circuit, numbered, with_field=True),
        draw_strip(circuit, numbered),
        *draw_rungs(ladder, circuit, numbered),
    ]
    for sheet in sheets:
        names = [touch.terminal for touch in sheet.touches]
        assert set(names) <= known
        assert len(names) == len(set(names))
        for touch in sheet.touches:
            assert 0 <= touch.x <= sheet.width, touch
            assert 0 <= touch.y <= sheet.height, touch
    drawn = {touch.terminal for touch in (*sheets[0].touches, *sheets[2].touches)}
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    assert wired <= drawn
