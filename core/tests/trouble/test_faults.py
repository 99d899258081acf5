"""Every single fault of a circuit, and the symptoms it shows: by hand, circuit by circuit."""

import pytest

from evencoil.starters import draw
from evencoil.trouble import (
    faults_of,
    odds_table,
    play,
    script_of,
    symptoms,
    symptoms_of,
    weights_of,
)


def shown(circuit, *ids):
    """Return the symptoms of some faults of a standard circuit."""
    drawn = draw(circuit).circuit
    script = script_of(drawn)
    sound = play(drawn, script)
    known = {one.id: one for one in faults_of(drawn)}
    return [symptoms_of(drawn, play(drawn, script, known[one], None, sound), sound) for one in ids]


@pytest.mark.parametrize(
    ("circuit", "fault", "symptom"),
    [
        # 3A: seal-in gone, start contact gone, control fuse, stop bridged, welded, one pole
        ("3A", "wire_open:start.13~main.13", "runs_only_while_held"),
        ("3A", "no_make:main.13-14.open", "runs_only_while_held"),
        ("3A", "no_make:start.13-14.open", "dead_lamps_on"),
        ("3A", "fuse_blown:control_fuse", "dead_no_lamps"),
        ("3A", "jumper:stop.11~stop.12", "will_not_stop"),
        ("3A", "weld:main", "will_not_stop"),
        ("3A", "pole_open:main.3L2-4T2.open", "hums"),
        ("3A", "wire_open:breaker.6~main.5L3", "hums"),
        ("3A", "jam:motor", "hums"),
        ("3A", "lines_exchanged:supply", "wrong_way"),
        ("3A", "ground:start.14", "blows_fuse"),
        ("3A", "armature_blocked:main", "contactor_growls"),
        ("3A", "loaded:motor.1.6", "trips_later"),
        ("3A", "no_break:start.13-14.closed", "starts_by_itself"),
        ("3A", "jumper:main.21~main.22", "lamp_wrong"),
        # 6C: one direction
        ("6C", "coil_open:reverse_contactor", "one_direction_dead"),
        ("6C", "pole_open:reverse_contactor.1L1-2T1.open", "one_direction_hums"),
        # 8A: the change-over
        ("8A", "no_make:timer.17-28.open", "drops_out_at_change_over"),
        ("8A", "coil_open:delta", "drops_out_at_change_over"),
        ("8A", "timer_set:timer", "never_changes_over"),
    ],
)
def test_a_fault_shows_the_symptom_that_people_tell(circuit, fault, symptom):
    """What the trade says of it, from the circuit alone."""
    assert symptom in shown(circuit, fault)[0]


def test_an_open_coil_makes_no_sound():
    """It has its volts; nothing growls."""
    assert shown("3A", "coil_open:main") == [frozenset({"dead_lamps_on"})]


def test_a_sound_circuit_shows_nothing():
    """Beside itself no symptom."""
    drawn = draw("8A").circuit
    script = script_of(drawn)
    sound = play(drawn, script)
    assert symptoms_of(drawn, sound, sound) == frozenset()


@pytest.mark.parametrize("circuit", ["1A", "2A", "3A", "6C", "8A", "13A", "14A", "17A"])
def test_every_fault_has_its_odds_and_its_symptoms_are_of_the_table(circuit):
    """Ids are lasting and unlike; rows and symptoms are in the tables."""
    faults = faults_of(draw(circuit).circuit)
    assert len({one.id for one in faults}) == len(faults)
    assert {one.row for one in faults} <= set(odds_table())
    assert frozenset().union(*(one.shows for one in faults)) <= set(symptoms())
    assert all(one.is_played or one.shows for one in faults)


def test_odds_of_a_kind_are_shared_and_closed_hunts_weigh_in():
    """Twenty of 100 for a loose screw are twenty however many screws; three hunts add three."""
    faults = faults_of(draw("3A").circuit, with_work=False)
    table = odds_table()
    whole = sum(row.odds["y1"] for row in table.values())

    def of(row, counted=None):
        weights = weights_of(faults, "y1", counted)
        return sum(
            weight
            for one, weight in zip(faults, weights, strict=True)
            if one.row == row and one.repair != "pair"
        )

    assert of("wire_open.control") == pytest.approx(100 * 20 / whole)
    assert of("wire_open.control", {"wire_open.control": 3.0}) == pytest.approx(
        100 * 20 / whole + 3
    )


def test_a_wire_to_ground_has_one_name_in_every_process():
    """Of a net's screws in the field the first by name; no order of a set decides an id."""
    circuit = draw("3A").circuit
    nets = circuit.netlist.nets()
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    for one in faults_of(circuit):
        kind, _, end = one.id.partition(":")
        if kind == "ground" and end.startswith(("start.", "stop.")):
            beside = [
                other
                for other in wired
                if nets[other] == nets[end] and other.startswith(("start.", "stop."))
            ]
            assert end == min(beside)


def test_what_only_a_hand_does_is_left_out_where_no_one_worked():
    """A wire on a neighbor screw does not come by itself; one that is off does."""
    circuit = draw("3A").circuit
    alone = {one.row for one in faults_of(circuit, with_work=False)}
    worked = {one.row for one in faults_of(circuit)}
    assert {"wire_moved", "wires_exchanged", "coil_wrong"} <= worked - alone
    assert "wire_open.control" in alone
