"""Drawings: every element once, geometry inside its sheet, words for every rung."""

import pytest
from circuit_play import circuit_of
from hypothesis import given, settings
from random_edits import BASE, EDITS

from evencoil.base.words import Message, say
from evencoil.circuit.edits import replay
from evencoil.circuit.library import links_of, types
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.tags import renamed
from evencoil.circuit.wirelist import material
from evencoil.drawing.ladder import draw_ladder
from evencoil.drawing.panel import draw_panel, draw_strip, strip_rows, where_of
from evencoil.drawing.power import draw_power
from evencoil.drawing.rungs import control_elements
from evencoil.drawing.svg import to_svg
from evencoil.drawing.upright import draw_rungs
from evencoil.starters.catalogue import catalogue
from evencoil.starters.standard_circuit import draw, options_of

CONTROL = ("coil", "lamp", "load", "no", "nc", "timed_no", "timed_nc", "nc_late", "no_early")


def drawn(circuit, style="nema"):
    """Return ladder and power diagram."""
    numbered = number_nets(circuit)
    return draw_ladder(circuit, numbered, style), draw_power(circuit, numbered, style), numbered


@pytest.mark.parametrize("style", ["nema", "iec"])
@pytest.mark.parametrize("name", list(catalogue()))
def test_every_wired_element_is_drawn_exactly_once(name, style):
    """Nothing is left out of the ladder, nothing stands twice; all of it on the sheet."""
    circuit = circuit_of(name)
    ladder, power, numbered = drawn(circuit, style)
    wanted = {element.key for element in control_elements(circuit, numbered.net_of)}
    assert set(ladder.row_of) == wanted
    tags = [shape for shape in ladder.picture.shapes if shape.role == "tag"]
    assert len(tags) == len(wanted)
    for picture in (ladder.picture, power):
        for shape in picture.shapes:
            for x, y in shape.points:
                assert -1 <= x <= picture.width + 1, (name, shape)
                assert -1 <= y <= picture.height + 1, (name, shape)
    assert len(ladder.picture.twin) == (max(ladder.row_of.values()) if wanted else 0)


@pytest.mark.parametrize("name", list(catalogue()))
def test_lines_of_two_nets_never_lie_on_each_other(name):
    """A stretch of line belongs to one net only, in both drawings."""
    ladder, power, _ = drawn(circuit_of(name))
    for picture in (ladder.picture, power):
        spans = []
        for shape in picture.shapes:
            if shape.kind == "line" and shape.net and not shape.link:
                (x1, y1), (x2, y2) = shape.points
                is_upright = abs(x1 - x2) < 0.01
                along = sorted((y1, y2)) if is_upright else sorted((x1, x2))
                spans.append((is_upright, round(x1 if is_upright else y1, 1), *along, shape.net))
        for place, (up, at, low, high, net) in enumerate(spans):
            for other_up, other_at, other_low, other_high, other in spans[place + 1 :]:
                if net != other and up == other_up and at == other_at:
                    assert min(high, other_high) - max(low, other_low) < 1, (net, other, at)


def test_the_three_wire_ladder_reads_as_an_electrician_draws_it():
    """Stop, start with the seal-in beside it, coil, overload; lamps below; uses beside the coil."""
    ladder, power, _ = drawn(BASE)
    assert ladder.picture.twin[0] == (
        "1: 1 – [S1 11-12 nc] – 2 – [S2 13-14 no] – 3 – [KM1 A1-A2 coil] – 4 – [OL1 95-96 nc] – X2"
    )
    assert ladder.picture.twin[1] == "2: 2 – [KM1 13-14 no] – 3"
    uses = [shape.text for shape in ladder.picture.shapes if shape.role == "use"]
    assert uses == ["2", "4", "3"]
    assert any("KM1: 1L1=101 3L2=201 5L3=301 → 2T1=" in line for line in power.twin)


@settings(max_examples=40, deadline=None)
@given(EDITS)
def test_any_wiring_can_be_drawn(edits):
    """Right or wrong, with loose ends or loops: both drawings come out, as SVG too."""
    circuit = replay(BASE, edits).circuit
    ladder, power, numbered = drawn(circuit)
    wanted = {element.key for element in control_elements(circuit, numbered.net_of)}
    assert set(ladder.row_of) <= wanted
    assert to_svg(power, "power").startswith("<svg")


def test_tags_follow_the_style_and_ids_never_do():
    """NEMA letters on the drawing; the netlist underneath is the same."""
    for name in catalogue():
        circuit = circuit_of(name)
        tags = renamed(circuit, "nema")
        assert len(set(tags.values())) == len(circuit.netlist.devices), name
        assert set(tags) == {item.id for item in circuit.netlist.devices}
    assert renamed(circuit_of("3A"), "nema")["main"] == "M"
    assert renamed(circuit_of("3A"), "iec")["main"] == "KM1"


def test_direct_current_control_is_drawn_between_its_own_rails():
    """With a 24 V supply the rails are plus and minus, coils and lamps take 24 V."""
    circuit = draw("3A", {"control_source": "dc_24"}).circuit
    ladder, _, _ = drawn(circuit)
    assert ladder.row_of["main:A1-A2"] == 1
    main = circuit.netlist.device("main")
    assert (main.parameters["coil"], main.parameters["coil_kind"]) == ("24", "dc")
    assert any(link.kind == "coil" for link in links_of(main))


def test_every_word_of_the_catalogue_can_be_said():
    """Groups, options and their words, kinds of device, ratings: none lacks its sentence."""
    for entry in catalogue().values():
        assert say(Message(f"group.{entry.group}"))
        for spec in options_of(entry):
            assert say(Message(f"option.{spec.name}"))
            for word in spec.choices:
                if not word[:1].isdigit() and not word.startswith("L"):
                    assert say(Message(f"option.{spec.name}.{word}"))
    for kind, found in types().items():
        assert say(Message(f"type.{kind}"))
        for parameter in found.parameters:
            assert say(Message(f"setting.{parameter.name}"))
    for row in material(BASE):
        for name, _, _ in row.ratings:
            assert say(Message(f"rating.{name}"))


def boxes(picture):
    """Return the outlines of devices on a panel, without the frames around them."""
    return [
        (*shape.points[0], *shape.points[1])
        for shape in picture.shapes
        if shape.kind == "rect" and shape.device
    ]


@pytest.mark.parametrize("name", list(catalogue()))
def test_every_device_has_a_place_and_none_lies_on_another(name):
    """Panel and door: each device once, inside the sheet, its wired terminals with their numbers."""
    entry = catalogue()[name]
    chosen = {
        spec.name: spec.choices[-1] for spec in options_of(entry) if spec.name in {"lamps", "estop"}
    }
    circuit = draw(name, chosen).circuit
    numbered = number_nets(circuit)
    picture = draw_panel(circuit, numbered)
    seated = {item.id for item in circuit.netlist.devices if where_of(item) != "field"}
    assert {shape.device for shape in picture.shapes if shape.kind == "rect"} - {""} == seated
    found = boxes(picture)
    for place, (x, y, x2, y2) in enumerate(found):
        assert 0 <= x < x2 <= picture.width
        assert 0 <= y < y2 <= picture.height
        for ox, oy, ox2, oy2 in found[place + 1 :]:
            assert x2 <= ox or ox2 <= x or y2 <= oy or oy2 <= y
    assert len(picture.twin) == len(seated)


@pytest.mark.parametrize("name", list(catalogue()))
def test_the_strip_has_one_terminal_for_each_net_that_leaves_the_panel(name):
    """A net with ends inside and outside is on it, one that stays inside is not."""
    circuit = circuit_of(name)
    numbered = number_nets(circuit)
    kinds = {item.id: item for item in circuit.netlist.devices}
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    places = {}
    for terminal in wired:
        owner = kinds[terminal.rpartition(".")[0]]
        if owner.type != "supply":
            places.setdefault(numbered.net_of[terminal], set()).add(where_of(owner))
    crossing = {numbered.number_of[net] for net, where in places.items() if len(where) > 1}
    rows = strip_rows(circuit, numbered)
    assert {row.number for row in rows} == crossing
    assert len(rows) == len(crossing)
    assert len(draw_strip(circuit, numbered).twin) == len(rows)


@pytest.mark.parametrize("name", list(catalogue()))
def test_each_rung_by_itself_fits_a_narrow_screen(name):
    """As many as the ladder has, with all its elements, no wider than 300."""
    circuit = circuit_of(name)
    numbered = number_nets(circuit)
    ladder = draw_ladder(circuit, numbered)
    rungs = draw_rungs(ladder, circuit, numbered)
    assert len(rungs) == len(ladder.picture.twin)
    tags = [shape for rung in rungs for shape in rung.shapes if shape.role == "tag"]
    assert len(tags) == len(ladder.row_of)
    for rung in rungs:
        assert all(
            -1 <= x <= 301 and -1 <= y <= rung.height
            for shape in rung.shapes
            for x, y in shape.points
        )
