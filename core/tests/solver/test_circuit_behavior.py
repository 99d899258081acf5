"""Every circuit of the catalogue behaves as its tables say; every mistake as it was told."""

import pytest
from circuit_play import Player, circuit_of, edited, same, tables, terminal

from evencoil.solver.compile import compile_plant
from evencoil.solver.events import Action
from evencoil.solver.run import Run

TABLES = tables()
BEHAVIOURS = [
    pytest.param(name, case, id=f"{name}-{case['name']}")
    for name, body in TABLES.items()
    for case in body["cases"]
]
MISTAKES = [
    pytest.param(name, item, id=item["id"])
    for name, body in TABLES.items()
    for item in body.get("mistakes", [])
]
OHMS = [
    pytest.param(name, item, id=f"{name}-{item['from']}-{item['to']}-{item['with']}")
    for name, body in TABLES.items()
    for item in body.get("dead_checks", [])
]


def test_the_tables_cover_the_catalogue():
    """Each circuit has its table: none is drawn that no one calculated."""
    from evencoil.starters.catalogue import catalogue

    assert set(TABLES) == set(catalogue())


@pytest.mark.parametrize(("name", "case"), BEHAVIOURS)
def test_behaviour(name, case):
    """After each act every coil, lamp, motor and fuse is as the table has it."""
    player = Player(circuit_of(name))
    for row in case["rows"]:
        player.do(row["do"])
        for tag, wanted in row["expect"].items():
            if tag != "Other":
                assert same(wanted, player.cell(tag)), (row["do"], tag, wanted, player.cell(tag))
                continue
            for fact in wanted.split("; "):
                assert player.fact(fact) == fact, row["do"]


@pytest.mark.parametrize(("name", "item"), MISTAKES)
def test_wiring_mistakes_show_what_they_do(name, item):
    """A wrong wire is simulated, not forbidden: the circuit does what it would do."""
    player = Player(edited(circuit_of(name), item["edit"]))
    for step in item["shows"]:
        player.do(step["do"])
        for fact, wanted in step["expect"].items():
            assert player.value(fact) == wanted, (step["do"], fact)


@pytest.mark.parametrize(("name", "item"), OHMS)
def test_dead_ohms(name, item):
    """An ohmmeter on the dead circuit reads what the drawing makes it read."""
    circuit = circuit_of(name)
    plant = compile_plant(circuit.netlist)
    run = Run(plant)
    for word in item["with"].split("; "):
        if word != "nothing":
            verb, tag = word.split()
            run.act(Action(run.time, verb, circuit.id_of(tag)))
            run.advance(run.time + 20_000)
            run.look(run.time + 20_000)
    ends = [plant.node_of[terminal(circuit, item[end])] for end in ("from", "to")]
    ohms = plant.ohms(run.conductance, *ends)
    if item["ohms"].startswith(">"):
        assert ohms > 1e6
    else:
        wanted = float(item["ohms"])
        assert ohms == pytest.approx(wanted, rel=0.01, abs=0.1)
