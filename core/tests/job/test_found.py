"""Starters as found, compared with the catalogue; netlist files; hazards of a choice."""

import random
from dataclasses import replace
from decimal import Decimal
from itertools import pairwise

import pytest
from circuit_play import circuit_of, edited, tables
from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.checks.check import check_circuit
from evencoil.checks.dead.plan import dead_checks
from evencoil.checks.expected import with_expectations
from evencoil.checks.restarts import restarts_of
from evencoil.circuit.compare import differences
from evencoil.circuit.edits import Edit, replay
from evencoil.circuit.nearest import nearest
from evencoil.circuit.netfile import read_netlist, write_netlist
from evencoil.circuit.netlist import Device, Netlist, Wire
from evencoil.circuit.text import Circuit
from evencoil.job.choosing import choices, hazards_of_entry
from evencoil.job.inputs import JobInputs
from evencoil.job.starter import work_out_starter
from evencoil.job.starter_states import starter_states
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import LeadsInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.rehearsal.probes import probes
from evencoil.sizing.inputs import SizeInputs
from evencoil.starters.catalogue import catalogue
from evencoil.starters.inputs import AcceptedInput, EditInput, StarterInputs
from evencoil.starters.standard_circuit import draw, options_of

KNOWN = {name: entry.circuit for name, entry in catalogue().items()}
RESTARTS = ("power_back", "overload_reset", "estop_release", "isolator_back")


def traced(circuit, seed):
    """Return a circuit as someone would trace it: other ids, any order, ends either way."""
    dice = random.Random(seed)
    items = list(circuit.netlist.devices)
    dice.shuffle(items)
    name = {item.id: f"u{place}" for place, item in enumerate(items)}

    def there(end):
        owner, _, terminal = end.rpartition(".")
        return f"{name[owner]}.{terminal}"

    wires = []
    for place, wire in enumerate(circuit.netlist.wires):
        ends = [there(wire.start), there(wire.end)]
        dice.shuffle(ends)
        wires.append(Wire(f"w{place}", *ends))
    dice.shuffle(wires)
    devices = tuple(
        Device(name[item.id], item.type, item.terminals, item.parameters) for item in items
    )
    return Circuit(
        Netlist(devices, tuple(wires)), {name[key]: tag for key, tag in circuit.tags.items()}
    )


def is_named(name):
    """Hold a circuit that was traced against the whole catalogue."""
    best = nearest(traced(KNOWN[name], 7), KNOWN)[0]
    assert (best.id, best.score, best.differences) == (name, 0, ())


@pytest.mark.parametrize("name", ["3A", "6C", "1D"])
def test_a_traced_circuit_is_named_and_has_no_difference(name):
    """A few, in the run that counts lines."""
    is_named(name)


@pytest.mark.many
@pytest.mark.parametrize("name", list(KNOWN))
def test_every_traced_circuit_is_named(name):
    """Every circuit of the catalogue is known again under other names."""
    is_named(name)


ONE_WIRE = [
    ("3A", "remove S2.13 KM1.13", ["KM1.13", "joined in the standard circuit and not here"]),
    ("3A", "add S2.13 S2.14", ["S2.14", "joined here and not in the standard circuit"]),
    ("6A", "swap KR.2T1 KR.6T3", ["KR.2T1"]),
    ("7A", "remove KY.4T2 KY.6T3", ["KY.2T1 and KY.6T3"]),
]


@pytest.mark.parametrize(("name", "edit", "says"), ONE_WIRE)
def test_each_difference_of_a_traced_circuit_is_told(name, edit, says):
    """One wrong wire leaves the circuit known, and is said with its terminals."""
    best = nearest(traced(edited(circuit_of(name), edit), 3), KNOWN)[0]
    assert best.id == name
    said = " ".join(say(one) for one in best.differences)
    assert all(part in said for part in says), said


@pytest.mark.parametrize("name", list(KNOWN))
def test_a_netlist_file_is_read_back_as_it_was_written(name):
    """Devices, parameters, wires, numbers and pairs: export then import is the identity."""
    circuit = KNOWN[name]
    back = read_netlist(write_netlist(circuit))
    assert {
        (item.id, item.type, tuple(sorted(item.parameters.items())))
        for item in back.netlist.devices
    } == {
        (item.id, item.type, tuple(sorted(item.parameters.items())))
        for item in circuit.netlist.devices
    }
    assert {frozenset((wire.start, wire.end)) for wire in back.netlist.wires} == {
        frozenset((wire.start, wire.end)) for wire in circuit.netlist.wires
    }
    assert set(back.never_together) == set(circuit.never_together)
    assert sorted(back.numbers.values()) == sorted(circuit.numbers.values())
    assert differences(circuit, back) == ()


@pytest.mark.parametrize(
    ("text", "field", "says"),
    [
        ("S1 pb", "netlist.1", "before any section"),
        ("[device]\nS1 pb", "netlist.1", "no section"),
        ("[devices]\nS1 pb\nS1 lamp", "devices.3", "already a device S1"),
        ("[devices]\nS1 switchboard", "type", "not a device in the library"),
        ("[devices]\nS1 pb c=11-12\n[wires]\nS1.11 - S1.99", "control.4", "no terminal S1.99"),
        ("[devices]\nS1 pb c=11-12\n[wires]\nS1.11 S1.12", "control.4", "is not a wire"),
        ("[devices]\nKM1 contactor coil=loud", "KM1", "coil cannot be loud"),
        ("x" * 700_000, "netlist", "characters"),
    ],
)
def test_a_bad_netlist_file_names_the_line(text, field, says):
    """Unknown devices and terminals, a wire to nowhere, a tag twice: said with their line."""
    with pytest.raises(CoreError) as refused:
        read_netlist(text)
    assert refused.value.field == field
    assert says in str(refused.value)
    assert refused.value.hint


def test_ten_thousand_wires_are_read_or_refused_quickly():
    """A file of the largest size is read; one wire more is refused."""
    head = "[devices]\n" + "\n".join(f"X{place} tb n=40" for place in range(600)) + "\n[wires]\n"
    ends = [f"X{place // 40}.{place % 40 + 1}" for place in range(12_000)]
    lines = [f"{one} - {two}" for one, two in pairwise(ends)]
    assert len(read_netlist(head + "\n".join(lines[:10_000])).netlist.wires) == 10_000
    with pytest.raises(CoreError, match="More than 10000"):
        read_netlist(head + "\n".join(lines))


@pytest.mark.many
@pytest.mark.parametrize("name", list(KNOWN))
def test_restarts_by_the_graph_are_those_that_playing_shows(name):
    """Power back, overload reset, emergency stop let go: two ways of finding out agree."""
    entry = catalogue()[name]
    drawings = [entry.circuit]
    if any(spec.name == "estop" for spec in options_of(entry)):
        drawings.append(draw(name, {"estop": "contact"}).circuit)
    for circuit in drawings:
        played = {one.family for one in probes(circuit, RESTARTS) if not one.holds}
        assert set(restarts_of(circuit)) == played


@pytest.mark.parametrize("name", ["2A", "4A", "4B", "15B", "14E"])
def test_a_reset_of_its_own_cures_the_start_after_an_emergency_stop(name):
    """The latching reset is drawn by default; the bare contact starts it, and says so."""
    entry = catalogue()[name]
    assert "estop_release" in restarts_of(draw(name, {"estop": "contact"}).circuit)
    cured = restarts_of(draw(name, {"estop": "reset_relay"}).circuit)
    assert "estop_release" not in cured
    assert "power_back" not in cured
    assert entry.group


PLATE = PlateInputs(
    text="15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"
)


def worked(plate=PLATE, supply="480Y/277"):
    """Return a job calculated."""
    return work_out(JobInputs(plate=plate, supply=SupplyInputs(text=supply), size=SizeInputs()))


def found_of(load, plate=PLATE):
    """Return the choices by id."""
    return {one.id: one for one in choices(worked(plate), load)}


def test_every_starter_is_shown_and_says_one_reason():
    """Nine leads in star: no star-delta; loaded, no autotransformer; two-wire unexpected start."""
    found = found_of("loaded")
    assert set(found) == set(KNOWN) - {"2B", "5C"}
    assert all(say(one.reason) for one in found.values())
    assert found["3A"].verdict == "can"
    assert found["7A"].verdict == "cannot"
    assert "leads" in say(found["7A"].reason)
    assert found["9A"].verdict == "cannot"
    assert found["15A"].verdict == "cannot"
    assert found["2A"].hazards == ("power_back", "overload_reset")
    assert found["6B"].hazards == ("plugged",)


def test_line_current_and_torque_of_the_ways_to_start():
    """Locked rotor by code G at 15 hp and 460 V, a third in star, the square of the tap."""
    found = found_of("empty")
    # code G: under 6.3 kVA a hp, 15 x 6.29 x 1000 / (1.732 x 460) A at the most
    full = found["3A"].line_a
    assert full == pytest.approx(Decimal("118.4"), abs=Decimal("0.3"))
    assert found["9A"].line_a / full == Decimal("0.4225")
    assert found["9A"].torque_percent == Decimal("42.25")
    assert found["7A"].line_percent == pytest.approx(Decimal("33.33"), abs=Decimal("0.01"))
    assert found["9A"].verdict == "can"
    assert found_of("unknown")["9A"].verdict == "doubt"


def test_a_hazard_holds_the_starter_until_somebody_takes_it_on():
    """Two-wire: held; accepted by name and reason: proven; an emergency stop never is."""
    job = worked()

    def state(**given):
        room = work_out_starter(job, StarterInputs(standard_circuit="2A", **given))
        return starter_states(room)[0], room

    first, _ = state()
    assert first.state == "blocked"
    taken = tuple(
        AcceptedInput(hazard=name, why="unattended pump behind a fence", by="Dov Ansell")
        for name in ("power_back", "overload_reset")
    )
    assert state(accepted=taken)[0].state == "done"
    held, room = state(accepted=taken, options={"estop": "contact"})
    assert held.state == "blocked"
    assert any(
        one.level == "refusal" and "never acceptable" in say(one.message) for one in room.findings
    )
    assert state(accepted=taken, options={"estop": "reset_relay"})[0].state == "done"


def panel(*edits):
    """Return the room of a panel that was traced."""
    return work_out_starter(worked(), StarterInputs(standard_circuit="found", edits=edits))


def test_an_empty_panel_takes_devices_and_wires_with_one_end_unknown():
    """What is traced is drawn and checked; an end that no one knows is said."""
    room = panel(
        EditInput(id="k", kind="add_device", type="contactor", tag="KM1"),
        EditInput(id="s", kind="add_device", type="pb", tag="S1", parameters={"c": "13-14"}),
        EditInput(id="w1", kind="add_wire", start="s.14", end="k.A1", tag="3"),
        EditInput(id="w2", kind="add_wire", start="s.13"),
    )
    assert room.stale == ()
    assert room.numbered.at("k.A1") == "3"
    assert len(room.changes()) == 5
    said = [say(one.message) for one in check_circuit(room.circuit)]
    assert "The other end of the wire from S1.13 is not traced." in said
    assert room.ladder().picture.shapes or room.rows()


def test_what_differs_from_the_recipe_is_told_line_by_line():
    """A wire off, one on, one moved, a device in, a setting: each in words."""
    circuit = circuit_of("3A")
    edits = [
        Edit(id="a", kind="remove_wire", wire=circuit.netlist.wires[-1].id),
        Edit(id="b", kind="add_wire", start="stop.11", end="start.14"),
        Edit(
            id="c",
            kind="move_end",
            wire="main.A2~overload.95",
            start="overload.95",
            end="overload.96",
        ),
        Edit(id="d", kind="add_device", type="lamp", tag="H9"),
        Edit(id="e", kind="set", device="overload", parameters={"iset": "12"}),
    ]
    done = replay(circuit, edits)
    found = differences(circuit, done.circuit)
    assert {one.what for one in found} == {
        "wire_off",
        "wire_on",
        "wire_moved",
        "device_on",
        "setting",
    }
    assert all(say(one.message) for one in found)
    assert differences(circuit, circuit) == ()


@pytest.mark.many
@settings(max_examples=40)
@given(st.sampled_from(sorted(KNOWN)), st.integers(0, 5000))
def test_naming_is_the_same_whatever_order_things_are_traced_in(name, seed):
    """Order and names never decide."""
    best = nearest(traced(KNOWN[name], seed), {name: KNOWN[name]}, most=1)[0]
    assert best.score == 0


@pytest.mark.many
def test_the_mistakes_stay_nearest_to_their_own_circuit():
    """Of the worked mistakes only the crossed interlock looks more like another circuit."""
    strange = []
    for body in tables().values():
        for item in body.get("mistakes", []):
            wrong = traced(edited(circuit_of(body["circuit"]), item["edit"]), 1)
            if nearest(wrong, KNOWN)[0].id != body["circuit"]:
                strange.append(item["id"])
    assert strange == ["6A-F5"]


def test_hazards_of_entries_are_those_of_their_drawings():
    """What the list shows is what the drawing does."""
    assert hazards_of_entry("3A") == ()
    assert hazards_of_entry("4A") == ("power_back", "overload_reset")


def test_a_makers_link_is_verified_and_not_landed():
    """Marked on the star bridge: said in the list, covered by the dead check, unmarked again."""
    wire = "star.2T1~star.4T2"
    job = worked(PlateInputs(text="75 HP 460 V 85 A 1780 RPM 60 HZ 3 PH 6 LEADS CODE G DES B"))

    def room(*edits):
        return work_out_starter(job, StarterInputs(standard_circuit="7A", edits=edits))

    marked = room(EditInput(id="m", kind="maker", wire=wire))
    rows = {row.id: row for row in marked.rows()}
    assert rows[wire].is_maker
    assert [one.what for one in marked.changes()] == ["maker"]
    told = {name for check in dead_checks(marked.circuit).checks for name in check.covers}
    assert wire in told
    twice = room(*(EditInput(id=name, kind="maker", wire=wire) for name in "mn"))
    assert not any(row.is_maker for row in twice.rows())
    gone = room(EditInput(id="m", kind="maker", wire="nowhere"))
    assert len(gone.stale) == 1


ISOLATED = [
    ("3A", {"control_source": "separate"}, ("isolator_back", "power_back")),
    ("6A", {"control_source": "separate"}, ("isolator_back", "power_back")),
    # the auxiliary cures the isolator, not the line that comes back by itself
    ("3A", {"control_source": "separate", "main_auxiliary": "early_break"}, ("power_back",)),
    ("3A", {"control_tap": "line_side"}, ("isolator_back",)),
    ("6A", {"control_tap": "line_side", "main_auxiliary": "early_break"}, ()),
    ("3A", {}, ()),
    # the isolator at the motor has its auxiliary ahead of the coil
    ("3A", {"local_isolator": "at_motor"}, ()),
    # a phase monitor lets go with the lines
    ("14D", {"control_source": "separate"}, ()),
    # on TEST the contactor waits behind the open main switch, and lets go only after it closed
    ("3A", {"test_feed": "selector"}, ("isolator_back",)),
    ("6A", {"test_feed": "selector", "local_isolator": "at_motor"}, ("isolator_back",)),
    ("14D", {"test_feed": "selector"}, ()),
    # a motor's own breaker, without an auxiliary in its contactor's branch
    ("16A", {}, ("isolator_back",)),
]


@pytest.mark.parametrize(("name", "options", "wanted"), ISOLATED)
def test_an_isolator_that_is_closed_again_starts_nothing(name, options, wanted):
    """Isolator off, press start, isolator on: by the graph and by playing it."""
    circuit = draw(name, options).circuit
    assert set(restarts_of(circuit)) == set(wanted)
    played = probes(with_expectations(circuit), ("power_back", "isolator_back"))
    assert {one.family for one in played if not one.holds} == set(wanted)
    for one in played:
        if not one.holds and one.family == "isolator_back":
            assert [say(act) for act in one.acts][-1].endswith("closed")


def test_the_isolator_hazard_is_accepted_or_cured():
    """The step is blocked by it; an acceptance, or the auxiliary, opens it again."""
    given = StarterInputs(standard_circuit="3A", options={"control_source": "separate"})
    found = [
        one
        for one in work_out_starter(worked(), given).findings
        if one.code == "restart.isolator_back"
    ]
    assert [one.level for one in found] == ["doubt"]
    assert "QS1" in say(found[0].message)
    assert "auxiliary" in say(found[0].hint)
    cured = given.model_copy(
        update={"options": {"control_source": "separate", "main_auxiliary": "early_break"}}
    )
    left = work_out_starter(worked(), cured).findings
    assert not [one for one in left if one.code == "restart.isolator_back"]


def partly(name, shown):
    """Return a circuit with some devices only, and the wires between them: half traced."""
    circuit = circuit_of(name)
    kept = {circuit.id_of(tag) for tag in shown}
    devices = tuple(item for item in circuit.netlist.devices if item.id in kept)
    wires = tuple(
        wire
        for wire in circuit.netlist.wires
        if {end.rpartition(".")[0] for end in (wire.start, wire.end)} <= kept
    )
    tags = {name: tag for name, tag in circuit.tags.items() if name in kept}
    return traced(replace(circuit, netlist=Netlist(devices, wires), tags=tags), 7)


@pytest.mark.parametrize(
    ("name", "tags"),
    [
        ("5B", ["SUP", "M1", "QF1", "KM1", "KA1", "S1", "S2", "S3"]),
        ("6A", ["SUP", "M1", "QF1", "KF", "KR", "OL1", "S1", "S2", "S3"]),
        ("7A", ["SUP", "M1", "KM", "KY", "KD", "KT1", "S1", "S2"]),
    ],
)
def test_a_half_traced_panel_is_judged_by_what_was_traced(name, tags):
    """What is not traced yet counts less than what does not fit; each is told apart."""
    best = nearest(partly(name, tags), KNOWN, most=1)[0]
    assert best.id[0] == name[0]
    assert best.against == ()
    assert best.fits == len(tags)
    assert best.lacking


def corner_panel(*edits):
    """Return a traced panel on a corner-grounded delta."""
    inputs = JobInputs(
        plate=PlateInputs(text="10 HP, 480 V, 14 A, 1750 RPM, 60 HZ, 3 PH, 3 LEADS"),
        supply=SupplyInputs(text="480 V corner grounded"),
    )
    room = work_out_starter(work_out(inputs), StarterInputs(standard_circuit="found", edits=edits))
    return room, {one.code: one.level for one in room.findings}


def test_a_traced_panel_begins_with_the_jobs_supply_and_motor():
    """480 V corner-grounded, 14 A: nothing of it is the library's default."""
    room, _ = corner_panel()
    supply, motor = (room.circuit.netlist.device(name) for name in ("supply", "motor"))
    assert (supply.parameters["v"], supply.parameters["system"]) == ("480", "corner")
    assert motor.parameters["fla"] == "14"


def test_six_leads_and_one_phase_begin_with_their_own_terminals():
    """A traced starter of a six-lead motor has six terminals; one phase has two lines."""
    six = JobInputs(
        plate=PlateInputs(text="15 HP, 480 V, 18.5 A, 1765 RPM, 60 HZ, 3 PH, 6 LEADS"),
        supply=SupplyInputs(text="480Y/277"),
        leads=LeadsInputs(winding="6"),
    )
    one = JobInputs(
        plate=PlateInputs(text="1 HP, 230 V, 8 A, 1725 RPM, 60 HZ, 1 PH, 2 LEADS"),
        supply=SupplyInputs(text="120/240 1PH"),
        leads=LeadsInputs(winding="1-phase"),
    )
    found = {}
    for name, inputs in (("six", six), ("one", one)):
        room = work_out_starter(work_out(inputs), StarterInputs(standard_circuit="found"))
        found[name] = room.circuit.netlist
    assert {"U1", "V1", "W1", "U2", "V2", "W2"} <= set(found["six"].device("motor").terminals)
    assert "L3" not in found["one"].device("supply").terminals
    assert found["one"].device("motor").type == "motor1"


def test_the_grounded_line_is_fused_only_where_the_fuses_are_the_overload_protection():
    """240.22 with an overload relay; 430.36 without one; and no pole opens it alone."""
    switch = EditInput(id="q", kind="add_device", type="fdisc", tag="QS1")
    lines = [
        EditInput(id=f"l{n}", kind="add_wire", start=f"supply.L{n}", end=f"q.{2 * n - 1}")
        for n in (1, 2, 3)
    ]
    relay = EditInput(id="o", kind="add_device", type="olr", tag="OL1")
    assert "grounded_fuse" in corner_panel(switch, *lines, relay)[1]
    assert "grounded_fuse" not in corner_panel(switch, *lines)[1]
    # two fuses only, and no relay: one is missing in the grounded line
    assert corner_panel(switch, lines[0], lines[2])[1]["grounded_no_fuse"] == "doubt"
    single = EditInput(id="b", kind="add_device", type="cb3", tag="QF9", parameters={"poles": "1"})
    wire = EditInput(id="w", kind="add_wire", start="supply.L2", end="b.1")
    assert corner_panel(single, wire)[1]["grounded_pole"] == "refusal"


def test_an_accepted_hazard_is_no_longer_to_be_decided():
    """Plugging of 6C: to decide until it is taken on by name, then good to know."""

    def level(accepted=()):
        room = work_out_starter(worked(), StarterInputs(standard_circuit="6C", accepted=accepted))
        return {one.level for one in room.problems() if one.rule == "H18"}

    taken = AcceptedInput(hazard="plugged", why="rated AC-4", by="Dov Ansell")
    assert level() == {"doubt"}
    assert level((taken,)) == {"note"}


def test_a_motor_without_amps_judges_no_breaker():
    """The library's 10 A are no plate: a breaker entered by hand is judged only with one."""
    edit = EditInput(id="e", kind="set", device="breaker", parameters={"a": "400"})

    def rules(plate):
        inputs = JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text="480Y/277"),
            leads=LeadsInputs(winding="9-wye"),
        )
        room = work_out_starter(
            work_out(inputs), StarterInputs(standard_circuit="3A", edits=(edit,))
        )
        return {one.rule for one in room.drawn_problems}

    assert "E05" in rules(
        "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 9 LEADS"
    )
    assert "E05" not in rules("460 V, 1765 RPM, 60 HZ, 3 PH, 9 LEADS")
