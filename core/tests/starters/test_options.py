"""Options laid over every circuit: tags, trip lamps, wire numbers; control power by the supply."""

from collections import Counter
from itertools import product

import pytest

from evencoil.base import CoreError
from evencoil.base.words import say
from evencoil.circuit import number_nets
from evencoil.job import JobInputs, work_out
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.starters import StarterInputs, catalogue, draw, options_of

CIRCUITS = list(catalogue())
NINE = "10 HP 208-230/460 V 28-26/13 A 1760 RPM 60 HZ 3 PH SF 1.15 9 LEADS"


def words_of(circuit):
    """Return the words of every option of a circuit."""
    return {spec.name: spec.choices or (spec.default,) for spec in options_of(catalogue()[circuit])}


@pytest.mark.parametrize("circuit", CIRCUITS)
def test_no_two_devices_have_one_tag(circuit):
    """Every option by itself, and the main switch with every isolator at the motor."""
    words = words_of(circuit)
    chosen = [{name: word} for name, several in words.items() for word in several]
    both = ("local_isolator", "protection")
    if set(both) <= words.keys():
        chosen += [
            dict(zip(both, pair, strict=True)) for pair in product(*(words[name] for name in both))
        ]
    for options in chosen:
        tags = Counter(draw(circuit, options).circuit.tags.values())
        assert max(tags.values()) == 1, (options, tags.most_common(1))


@pytest.mark.parametrize("circuit", CIRCUITS)
def test_a_trip_lamp_is_fed_ahead_of_the_contact_that_trips(circuit):
    """On a trip 95-96 opens: what 97-98 is to light must not hang behind it."""
    words = words_of(circuit)
    if "overload_side" not in words:
        return
    for side, lamps in product(words["overload_side"], words.get("lamps", ("as_drawn",))):
        options = {"overload_side": side} | ({"lamps": lamps} if "lamps" in words else {})
        drawn = draw(circuit, options).circuit
        nets = drawn.netlist.nets()
        wired = {end for wire in drawn.netlist.wires for end in (wire.start, wire.end)}
        if {"overload.96", "overload.97"} <= wired:
            assert nets["overload.97"] != nets["overload.96"], options
        numbered = number_nets(drawn, {})
        assert all(numbered.at(wire.start) for wire in drawn.netlist.wires), options


def starter(supply, options=None, circuit="3A", **given_here):
    """Draw a starter for a motor of three voltages."""
    return work_out(
        JobInputs(
            plate=PlateInputs(text=NINE),
            supply=SupplyInputs(text=supply, **given_here),
            starter=StarterInputs(standard_circuit=circuit, options=options or {}),
        )
    ).starter


def device(drawn, name):
    """Return the parameters of a device."""
    return next(dict(item.parameters) for item in drawn.circuit.netlist.devices if item.id == name)


@pytest.mark.parametrize(
    ("supply", "source", "volts"),
    [
        # 480 / 1.732, 208 / 1.732; a high-leg delta has 120 V from A or C
        ("480Y/277", "line_to_neutral", "277"),
        ("208Y/120", "line_to_neutral", "120"),
        ("240/120 high leg", "line_to_neutral", "120"),
        ("208Y/120", "line_voltage", "208"),
        ("240 delta", "line_voltage", "240"),
        ("480 V corner grounded", "line_voltage", "480"),
    ],
)
def test_control_volts_are_those_of_the_supply(supply, source, volts):
    """Coils and lamps follow supply and tap, whatever the circuit was drawn for."""
    drawn = starter(supply, {"control_source": source, "lamps": "run_trip"})

    assert device(drawn, "main")["coil"] == volts
    assert device(drawn, "lamp_trip")["v"] == volts


@pytest.mark.parametrize(
    ("supply", "given_here", "options", "says"),
    [
        ("240 delta", {}, {"control_source": "line_to_neutral"}, "has no neutral"),
        ("480 V corner grounded", {}, {"control_source": "line_to_neutral"}, "has no neutral"),
        ("460 V 3 phase", {}, {"control_source": "line_to_neutral"}, "wye or delta is not entered"),
        (
            "240/120 high leg",
            {"high_leg": "L1"},
            {"control_source": "line_to_neutral"},
            "208 V to neutral",
        ),
        ("240 V converter", {"made_leg": "L1"}, {}, "the manufactured phase"),
        ("240 V converter", {"made_leg": "L2"}, {}, "the manufactured phase"),
        (
            "480Y/277",
            {},
            {"control_source": "line_voltage", "control_volts": "24"},
            "does not go with this control source",
        ),
    ],
)
def test_control_power_that_does_not_exist_is_refused_and_can_be_changed(
    supply, given_here, options, says
):
    """The reason is said; circuit and options stay on the screen."""
    refused = starter(supply, options, **given_here)

    assert refused.circuit is None
    assert says in say(refused.refusal.message)
    assert say(refused.refusal.hint)
    assert refused.entry.id == "3A"
    assert {spec.name for spec in refused.options} >= {"control_source", "control_volts"}
    assert all(refused.used[name] == word for name, word in options.items())


def test_a_manufactured_phase_on_l3_feeds_no_control():
    """Control between L1 and L2 is fed by the utility's own two lines."""
    assert starter("240 V converter", made_leg="L3").circuit is not None


@pytest.mark.parametrize(
    ("supply", "primary", "links"),
    [
        ("480Y/277", "240", {("H2", "H3")}),
        ("240 delta", "240", {("H1", "H3"), ("H2", "H4")}),
        ("208Y/120", "208", {("H1", "H3"), ("H2", "H4")}),
    ],
)
def test_the_transformer_is_linked_for_the_line(supply, primary, links):
    """Two windings of 240 V: in series for 480, in parallel for 240."""
    drawn = starter(supply)

    assert device(drawn, "control_transformer")["prim"] == primary
    ends = [
        tuple(sorted((wire.start.rpartition(".")[2], wire.end.rpartition(".")[2])))
        for wire in drawn.circuit.netlist.wires
        if wire.start.startswith("control_transformer.H")
        and wire.end.startswith("control_transformer.H")
    ]
    assert set(ends) == links


@pytest.mark.parametrize(
    ("supply", "system", "hertz"),
    [
        ("480Y/277 60 Hz", "wye", "60"),
        ("240 delta 60 Hz", "delta", "60"),
        ("240/120 high leg 60 Hz", "high_leg", "60"),
        ("480 V corner grounded 60 Hz", "corner", "60"),
    ],
)
def test_the_netlist_holds_the_jobs_supply(supply, system, hertz):
    """System and hertz of the supply device are those that were entered."""
    held = device(starter(supply), "supply")

    assert (held["system"], held["hz"]) == (system, hertz)


@pytest.mark.parametrize(
    ("supply", "protection", "tags"),
    [
        ("480 V corner grounded", "fused_disconnect", "QS1, FU2"),
        ("480 V corner grounded", "breaker", "FU2"),
        ("480Y/277", "fused_disconnect", ""),
    ],
)
def test_no_fuse_lies_in_the_grounded_line(supply, protection, tags):
    """240.22: L2 is grounded; it goes through the main switch and to the second control fuse."""
    drawn = starter(supply, {"protection": protection})
    found = [one for one in drawn.findings if one.code == "grounded_fuse"]

    assert bool(found) == bool(tags)
    if found:
        assert tags in say(found[0].message)


def test_a_doubled_tag_is_never_issued():
    """Renamed by hand to the tag of another device: drawn and checked, but not for paper."""
    drawn = work_out(
        JobInputs(
            plate=PlateInputs(text=NINE),
            supply=SupplyInputs(text="480Y/277"),
            starter=StarterInputs(
                standard_circuit="3A",
                edits=[{"kind": "tag", "id": "e1", "device": "start", "tag": "S1"}],
            ),
        )
    ).starter

    assert drawn.circuit is not None
    with pytest.raises(CoreError) as caught:
        drawn.issuable()
    assert "S1" in say(caught.value.message)
    assert starter("480Y/277").issuable() is not None


def colors(supply, **options):
    """Return the colors of the control wires by number."""
    rows = starter(supply, options).rows()
    return {row.number: row.color for row in rows if row.way == "control" and "PE" not in row.start}


@pytest.mark.parametrize(
    ("source", "common"),
    [
        # bonded or neutral: white; the other line, or minus that nobody grounded: never
        ("transformer", "white"),
        ("line_to_neutral", "white"),
        ("separate", "white"),
        ("line_voltage", "red"),
        ("dc_24", "blue"),
    ],
)
def test_a_hot_return_is_never_white(source, common):
    """The return at line voltage is the second line."""
    assert colors("480Y/277", control_source=source)["X2"] == common


def test_every_wire_that_stays_live_is_orange():
    """A separate source: from its first terminal through coils and lamps to the neutral."""
    found = colors("480Y/277", control_source="separate", lamps="run_trip")

    assert {color for number, color in found.items() if number != "X2"} == {"orange"}


def test_what_feeds_a_dc_supply_is_power():
    """480 V to the power supply is no blue wire."""
    rows = starter("480Y/277", {"control_source": "dc_24"}).rows()
    fed = [row for row in rows if {row.start, row.end} & {"PSU1.L", "PSU1.N"}]

    assert [row.color for row in fed] == ["black", "black"]
