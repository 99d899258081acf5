"""Ohms on the dead circuit: what to read, what it tells, and what a wrong one means."""

import math
from dataclasses import replace
from functools import cache

import pytest
from circuit_play import circuit_of, edited, tables, terminal

from evencoil.base.words import say
from evencoil.checks.dead.bench import Hand, Observed
from evencoil.checks.dead.plan import dead_checks
from evencoil.checks.dead.suspects import readings_hold, suspects
from evencoil.solver.compile import compile_plant
from evencoil.solver.dead import every_ohm
from evencoil.solver.run import Run
from evencoil.starters.catalogue import catalogue

TABLES = tables()


@cache
def checked(name):
    """Return a circuit of the catalogue with its checks, calculated once."""
    circuit = circuit_of(name)
    return circuit, dead_checks(circuit)


def observed_on(wrong, checks):
    """Return what a meter reads at every check on a circuit that was wired otherwise."""
    found = []
    for check in checks:
        one = Observed(start=check.start, end=check.end, hands=check.hands, ohms=check.ohms)
        found.append(replace(one, ohms=meter(wrong, one)))
    return found


def meter(circuit, one):
    """Read one pair of terminals, the other way: by the sparse solver, step by step."""
    from evencoil.solver.events import Action

    plant = compile_plant(circuit.netlist)
    run = Run(plant)
    run.act(Action(run.time, "pull", circuit.id_of("FU3")))
    for hand in one.hands:
        run.act(Action(run.time, hand.verb, hand.device, hand.word))
        run.advance(run.time + 20_000)
    run.look(run.time + 20_000)
    ohms = plant.ohms(run.conductance, plant.node_of[one.start], plant.node_of[one.end])
    return math.inf if ohms > 1e6 else ohms


@pytest.mark.parametrize("name", ["3A", "6A", "7A"])
def test_few_readings_tell_every_wire(name):
    """Without any one wire at least one reading is another; the line side is left alone."""
    circuit, found = checked(name)

    told = {wire for check in found.checks for wire in check.covers}
    wires = {wire.id for wire in circuit.netlist.wires}
    assert told | set(found.line_side) | set(found.untold) == wires
    assert found.untold == ()
    assert all("supply.L" in wire for wire in found.line_side)
    assert len(found.checks) <= len(wires) / 2
    for check in found.checks:
        assert "supply.L" not in check.start + check.end
        assert meter(
            circuit, Observed(start=check.start, end=check.end, hands=check.hands, ohms=0)
        ) == pytest.approx(check.ohms, abs=0.1)


@pytest.mark.many
@pytest.mark.parametrize("name", sorted(catalogue())[::4])
def test_circuits_have_checks_that_hold_on_itself(name):
    """Whatever is drawn reads as drawn, and has no suspect."""
    circuit = catalogue()[name].circuit
    found = dead_checks(circuit)
    taken = [
        Observed(start=one.start, end=one.end, hands=one.hands, ohms=one.ohms)
        for one in found.checks
    ]
    assert all(readings_hold(circuit, taken))
    assert suspects(circuit, taken) == ()


MISTAKES = [
    ("3A", "remove S2.13 KM1.13", "S2.13", "missing"),
    ("3A", "swap S1.11 S1.23; swap S1.12 S1.24", "S1", "swapped"),
    ("3A", "swap S2.13 S2.21; swap S2.14 S2.22", "S2", "swapped"),
    ("3A", "swap OL1.95 OL1.97; swap OL1.96 OL1.98", "OL1", "swapped"),
    ("3A", "add S2.13 S2.14", "S2", "jumper"),
    ("3A", "move KM1.A2 OL1.95 -> OL1.96", "KM1.A2", "moved"),
]


def test_one_mistake_is_among_the_suspects():
    """The first of many, in the run that counts lines."""
    named(*MISTAKES[0])


@pytest.mark.many
@pytest.mark.parametrize(("name", "edit", "tag", "kind"), MISTAKES)
def test_the_mistakes_of_the_catalogue_are_among_the_suspects(name, edit, tag, kind):
    """Each wiring mistake that was calculated by hand is named by its readings alone."""
    named(name, edit, tag, kind)


def named(name, edit, tag, kind):
    """Read the circuit as it was wired wrongly, and find the mistake among the suspects."""
    circuit, found = checked(name)
    readings = observed_on(edited(circuit, edit), found.checks)
    assert False in readings_hold(circuit, readings)

    # the table's own checks narrow it down as a careful person would
    for item in TABLES[name]["dead_checks"]:
        words = [word for word in item["with"].split("; ") if word not in {"nothing", "pull FU3"}]
        if "pull FU3" not in item["with"]:
            continue
        hands = tuple(Hand(word.split()[0], circuit.id_of(word.split()[1])) for word in words)
        one = Observed(
            start=terminal(circuit, item["from"]),
            end=terminal(circuit, item["to"]),
            hands=hands,
            ohms=0,
        )
        readings.append(replace(one, ohms=meter(edited(circuit, edit), one)))
    blamed = suspects(circuit, readings, most=60)
    assert all(one.explains == one.of for one in blamed)
    assert any(one.kind == kind and tag in say(one.message) for one in blamed)


def test_a_reading_whose_ends_are_gone_is_neither_right_nor_wrong():
    """After an edit a reading may stand on nothing: it is marked so, and blames no wire."""
    circuit = circuit_of("3A")
    gone = Observed(start="nowhere.1", end="main.A1", hands=(), ohms=0)
    strange = Observed(start="main.13", end="main.A1", hands=(Hand("press", "nobody"),), ohms=0)
    assert readings_hold(circuit, [gone, strange]) == (None, None)
    assert suspects(circuit, [gone]) == ()
    assert suspects(circuit, []) == ()


def test_every_ohm_is_what_the_two_probes_read_one_by_one():
    """The whole matrix at once and the sparse solver for each pair agree."""
    circuit = circuit_of("7A")
    plant = compile_plant(circuit.netlist)
    run = Run(plant)
    run.look(run.time)
    names = circuit.netlist.terminals()[::5]
    table = every_ohm(plant, run.conductance, names)
    for row, one in enumerate(names):
        for column, other in enumerate(names):
            wanted = plant.ohms(run.conductance, plant.node_of[one], plant.node_of[other])
            assert table[row, column] == pytest.approx(wanted, rel=1e-3, abs=1e-3)


def test_a_coil_read_on_the_bench_is_expected_again():
    """A coil of 14.2 ohms by its owner's meter: so does the check across it, with START held."""
    circuit = edited(circuit_of("3A"), "set KM1 coil_ohm=14.2")
    found = [one for one in dead_checks(circuit).checks if one.kind == "ohms"]
    assert found
    assert any(one.ohms == pytest.approx(14.2, abs=0.3) for one in found)
