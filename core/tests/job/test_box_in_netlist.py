"""One netlist from the supply to the coils: the box of every winding kind is in it."""

from dataclasses import replace

import pytest
from circuit_play import Player, same, tables

from evencoil.checks import check_circuit, dead_checks, with_expectations
from evencoil.checks.power import exclusive_pairs
from evencoil.checks.reach import Graph
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.rehearsal.stage import ScenarioAct, Stage

SIX = "15 HP, 480 V, 18.5 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 6 LEADS"
TWELVE = "75 HP, 230/460 V, 176/88 A, 1780 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 12 LEADS"
SPEEDS = "10/5 HP, 460 V, 14/9 A, 1750/870 RPM, 60 HZ, 3 PH, 6 LEADS, 2 SPEED"
HALVES = "30 HP, 460 V, 38 A, 1770 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 6 LEADS"
TWO = "10/5 HP, 460 V, 14/9 A, 1750/1160 RPM, 60 HZ, 3 PH, 6 LEADS, 2 SPEED"
ONE = "1 HP, 230 V, 8 A, 1725 RPM, 60 HZ, 1 PH, SF 1.15, CODE K, 2 LEADS"
#: circuit: nameplate, supply, winding kind, and how each lead of the box is to be found
CIRCUITS = {
    "1C": (SPEEDS, "480Y/277", "2-speed-ct"),
    "1E": (SPEEDS, "480Y/277", "2-speed-ct"),
    "1D": (SIX, "480Y/277", "6"),
    "7A": (SIX, "480Y/277", "6"),
    "7B": (SIX, "480Y/277", "6"),
    "8A": (SIX, "480Y/277", "6"),
    "10A": (HALVES, "480Y/277", "part-winding"),
    "11A": (SPEEDS, "480Y/277", "2-speed-ct"),
    "11B": (SPEEDS, "480Y/277", "2-speed-cp"),
    "11C": (TWO, "480Y/277", "2-speed-2-winding"),
    "15A": (ONE, "120/240 1PH", "1-phase"),
    "15B": (ONE, "120/240 1PH", "1-phase"),
}


def job_of(circuit, joints=(), plate=None, winding=None):
    own_plate, supply, own_winding = CIRCUITS[circuit]
    method = {
        "7A": "wye_delta",
        "7B": "wye_delta",
        "8A": "wye_delta",
        "1D": "wye_delta",
        "10A": "part_winding",
    }.get(circuit, "full_voltage")
    return work_out(
        JobInputs.model_validate(
            {
                "plate": {"text": plate or own_plate},
                "supply": {"text": supply},
                "leads": {
                    "winding": winding or own_winding,
                    "start_method": method,
                    "joints": list(joints),
                },
                "size": {"protection_kind": "inverse_time_breaker"},
                "starter": {"standard_circuit": circuit},
            }
        )
    )


def bars(circuit):
    """Return what the box joins, without the conductors that land on it."""
    found = set()
    for item in circuit.netlist.devices:
        if item.type == "joint":
            leads = frozenset(end for end in item.terminals if end.startswith("T"))
            if len(leads) > 1:
                found.add(leads)
    return found


@pytest.mark.parametrize("name", CIRCUITS)
def test_the_motor_of_the_job_with_all_its_leads_is_in_the_netlist(name):
    """No stand-in is left: every lead is a wire of its own, on a joint of the box."""
    starter = job_of(name).starter
    circuit = starter.required()
    motor = circuit.netlist.device("motor")
    assert motor.type == "motor"
    assert motor.parameters["kind"] == CIRCUITS[name][2]
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    assert {f"motor.{lead}" for lead in motor.terminals} <= wired
    assert not [one for one in starter.findings if one.code in {"stand_in", "loose"}]


@pytest.mark.parametrize("name", CIRCUITS)
def test_with_a_right_box_it_behaves_as_the_tables_say(name):
    """The installed motor starts, changes over and stops as the stand-in does."""
    body = tables()[name]
    circuit = job_of(name).starter.required()
    motor = next(tag for ident, tag in circuit.tags.items() if ident == "motor")
    for case in body["cases"]:
        player = Player(circuit)
        for row in case["rows"]:
            player.do(row["do"])
            wanted = row["expect"].get(motor)
            if wanted is not None:
                word = wanted.split()[0]
                assert player.cell(motor).split()[0] == word, (
                    name,
                    case["name"],
                    row["do"],
                    wanted,
                )


def test_six_leads_started_wye_delta_keep_no_bar():
    assert bars(job_of("7A").starter.required()) == set()


def test_twelve_leads_started_wye_delta_keep_the_joints_of_the_halves():
    """At 480 V the halves are in series: 4-7, 5-8, 6-9; the starter has T1-3 and T10-12."""
    circuit = job_of("7A", plate=TWELVE, winding="12").starter.required()
    assert bars(circuit) == {
        frozenset({"T4", "T7"}),
        frozenset({"T5", "T8"}),
        frozenset({"T6", "T9"}),
    }
    nets = circuit.netlist.nets()
    assert nets["motor.T10"] == nets["delta.4T2"]
    assert nets["motor.T12"] == nets["delta.2T1"]


def test_nine_leads_started_part_winding_keep_their_star():
    """At the low voltage: T4-5-6 stays joined, T1-3 and T7-9 are the two halves."""
    plate = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, 9 LEADS"
    job = work_out(
        JobInputs.model_validate(
            {
                "plate": {"text": plate},
                "supply": {"text": "240 delta"},
                "leads": {"winding": "9-wye", "start_method": "part_winding"},
                "starter": {"standard_circuit": "10A"},
            }
        )
    )
    assert bars(job.starter.required()) == {frozenset({"T4", "T5", "T6"})}


LEFT_IN = (
    {"id": "a", "leads": ["T1", "T6"], "line": "L1"},
    {"id": "b", "leads": ["T2", "T4"], "line": "L2"},
    {"id": "c", "leads": ["T3", "T5"], "line": "L3"},
)


def test_bars_left_in_a_star_delta_box_are_named_and_short_the_lines():
    """The delta bars stay in: the star contactor joins three lines as soon as main closes."""
    starter = job_of("7A", LEFT_IN).starter
    named = [one for one in starter.findings if one.code == "bar_left"]
    assert {one.message.params["leads"] for one in named} == {"1-6", "2-4", "3-5"}
    assert {one.level for one in named} == {"refusal"}
    stage = Stage(starter.required())
    opening = [ScenarioAct(at_us=0, do="close", on="breaker")]
    opening.append(ScenarioAct(at_us=1_000_000, do="push", on="start"))
    trace = stage.play(opening, until_us=4_000_000)
    assert "short" in {one.code for one in trace.hazards}


def test_bars_left_in_blame_no_interlock():
    """Main and star belong in together: the bars are at fault, and only they are named."""
    right, wrong = job_of("7A").starter.required(), job_of("7A", LEFT_IN).starter.required()
    assert exclusive_pairs(Graph(replace(wrong, never_together=()))) == exclusive_pairs(
        Graph(replace(right, never_together=()))
    )
    assert not [one for one in check_circuit(wrong) if one.rule == "H08"]
    stage = Stage(with_expectations(wrong))
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=1_000_000, do="push", on="start"),
    ]
    codes = {one.code for one in stage.play(acts, until_us=4_000_000).hazards}
    assert "short" in codes
    assert "both_ways" not in codes


def test_a_box_as_it_should_be_is_not_complained_about():
    starter = job_of("7A").starter
    assert not [one for one in starter.findings if one.code == "bar_left"]
    stage = Stage(starter.required())
    acts = [
        ScenarioAct(at_us=0, do="close", on="breaker"),
        ScenarioAct(at_us=1_000_000, do="push", on="start"),
    ]
    assert not stage.play(acts, until_us=15_000_000).hazards


@pytest.mark.parametrize("wanted", ["6", "12"])
def test_the_word_of_a_cell_is_compared_and_not_skipped(wanted):
    """The comparison above fails for a motor that stands: it is no test that cannot fail."""
    circuit = job_of("7A").starter.required()
    player = Player(circuit)
    player.do("close QF1")
    assert not same("fwd 100% n=100%", player.cell("M1")), wanted


@pytest.mark.parametrize("circuit", CIRCUITS)
def test_the_motors_frame_is_grounded_by_a_conductor_of_its_own(circuit):
    """430.242: in the netlist, in the wire list with its size, and the first dead reading."""
    worked = job_of(circuit)
    job = worked.finish(worked)
    rows = [row for row in job.rows() if row.end.endswith(".PE") or row.start.endswith(".PE")]
    size = worked.trail["grounding_conductor_size"].shown
    (ground,) = [row for row in rows if "M1" in row.end]

    assert (ground.color, ground.size) == ("green", size)
    first = dead_checks(job.circuit).checks[0]
    assert (first.start, first.end, first.kind) == ("supply.PE", "motor.PE", "zero")
    assert ground.id in first.covers
