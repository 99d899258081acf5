"""A control transformer with one tapped primary: its tap, its volts, wrong taps.

The volts are turns ratios by hand: secondary = 120 V times line volts over the tap's.
"""

import pytest
from circuit_play import edited

from evencoil.base.words import say
from evencoil.checks.check import check_circuit
from evencoil.job import JobInputs, work_out
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run
from evencoil.starters import StarterInputs

NINE = "10 HP 208-230/460 V 28-26/13 A 1760 RPM 60 HZ 3 PH SF 1.15 9 LEADS"
TAPS = "208_240_480"


def starter(supply, circuit="3A", **options):
    """Return a drawn starter on a supply."""
    return work_out(
        JobInputs(
            plate=PlateInputs(text=NINE),
            supply=SupplyInputs(text=supply),
            starter=StarterInputs(standard_circuit=circuit, options=options),
        )
    ).starter


def secondary_volts(circuit):
    """Return what the solver finds between X1 and X2 with the main switch closed [V]."""
    run = Run(compile_plant(circuit.netlist))
    run.act(Action(0, "close", "breaker"))
    run.advance(100_000)
    return run.plant.part_of["control_transformer"].volts_across(run, "X1", "X2")


def far_lead(circuit):
    """Return the primary terminal that the second line is on."""
    wired = {
        end.rpartition(".")[2]
        for wire in circuit.netlist.wires
        for end in (wire.start, wire.end)
        if end.startswith("control_transformer.H")
    }
    assert "H1" in wired
    assert len(wired) == 2
    return (wired - {"H1"}).pop()


@pytest.mark.parametrize(
    ("supply", "taps", "lead", "volts"),
    [
        ("208Y/120", TAPS, "H2", 120.0),
        ("240 delta", TAPS, "H3", 120.0),
        ("480Y/277", TAPS, "H4", 120.0),
        # 480 V on the 460 V tap: 125 V; 208 V is 9.6 % below 230 V, see below
        ("480Y/277", "230_400_460", "H4", 125.2),
        ("240 delta", "230_400_460", "H2", 125.2),
    ],
)
def test_the_line_is_on_the_tap_for_its_volts(supply, taps, lead, volts):
    circuit = starter(supply, control_primary=taps).circuit

    assert far_lead(circuit) == lead
    assert secondary_volts(circuit) == pytest.approx(volts, rel=0.02)
    said = [say(one.message) for one in check_circuit(circuit) if one.rule == "H44"]
    assert said == []


def test_a_line_that_no_tap_is_for_is_refused():
    """208/230 = 0.904: coils at 90 % and less in a sag."""
    refused = starter("208Y/120", control_primary="230_400_460")

    assert refused.circuit is None
    assert "208 V" in say(refused.refusal.message)
    assert "230 V" in say(refused.refusal.message)
    assert "-10 %" in say(refused.refusal.message)


@pytest.mark.parametrize(
    ("supply", "edit", "gives", "tap"),
    [
        # 480 V on the 240 V tap: 240 V; 240 V on the 480 V tap: 60 V; between taps: 480/32
        ("480Y/277", "move FU2.2 T1.H4 -> T1.H3", "240 V", "H4"),
        ("480Y/277", "move FU2.2 T1.H4 -> T1.H2", "277 V", "H4"),
        ("240 delta", "move FU2.2 T1.H3 -> T1.H4", "60 V", "H3"),
        ("480Y/277", "move FU1.2 T1.H1 -> T1.H3", "240 V", "H4"),
    ],
)
def test_a_wrong_tap_is_the_cause_and_the_coils_are_right(supply, edit, gives, tap):
    circuit = edited(starter(supply, control_primary=TAPS).circuit, edit)
    found = [one for one in check_circuit(circuit) if one.rule == "H44" and one.level == "error"]

    assert [one.devices[0] for one in found] == ["control_transformer"]
    assert gives in say(found[0].message)
    assert tap in say(found[0].change)
    assert "coil" not in say(found[0].change) or "coils are right" in say(found[0].change)


def test_a_single_tap_is_a_plain_primary():
    """A found transformer with H1-H2 only, of 480 V."""
    circuit = starter("480Y/277", control_primary=TAPS).circuit
    one = edited(circuit, "move FU2.2 T1.H4 -> T1.H2; set T1 taps=480")

    assert list(one.netlist.device("control_transformer").terminals) == [
        "H1",
        "H2",
        "X1",
        "X2",
    ]
    assert secondary_volts(one) == pytest.approx(120, rel=0.02)
    assert [say(p.message) for p in check_circuit(one) if p.rule == "H44"] == []


def test_the_material_list_names_the_taps_and_no_half():
    rows = starter("480Y/277", control_primary=TAPS).material()
    own = next(row for row in rows if row.device == "control_transformer")
    names = [name for name, _, _ in own.ratings]

    assert ("taps", "208,240,480", "V") in own.ratings
    assert "prim" not in names


@pytest.mark.parametrize("source", ["separate", "line_voltage", "dc_24", "line_to_neutral"])
def test_without_an_own_transformer_its_primary_is_no_choice(source):
    """Two choices that do not go together say so and keep the panel of options."""
    refused = starter("480Y/277", control_source=source, control_primary=TAPS)

    assert refused.circuit is None
    assert say(refused.refusal.message)
    assert "control_primary" in {spec.name for spec in refused.options}
