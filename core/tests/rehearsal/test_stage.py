"""Rehearsals: cut anywhere they are the same; hazards by name; snapshots are bound."""

import json
from decimal import Decimal

import pytest
from circuit_play import circuit_of, edited
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from random_edits import BASE, EDITS

from evencoil.base.errors import CoreError, RefusedError
from evencoil.base.words import Message, say
from evencoil.circuit.edits import replay
from evencoil.circuit.text import read_circuit
from evencoil.rehearsal.scenario import read_scenario, trace_as_json
from evencoil.rehearsal.stage import ScenarioAct, Stage
from evencoil.solver.compile import compile_plant
from evencoil.solver.dense import solve_dense
from evencoil.solver.events import Action
from evencoil.solver.run import Run
from evencoil.solver.sparse import elimination_order, solve_sparse
from evencoil.starters.catalogue import catalogue, entry_of
from evencoil.starters.standard_circuit import draw, options_of


def act(at_s, do, on="", word=""):
    """Return an act at a second."""
    return ScenarioAct(at_us=int(at_s * 1e6), do=do, on=on, word=word)


START = [act(0, "close", "QF1"), act(1, "push", "S2")]


def story(trace):
    """Return what happened, in full."""
    return [(e.n, e.time, e.device, e.aspect, e.value, e.cause) for e in trace.events]


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(st.lists(st.integers(1, 12_000_000), min_size=1, max_size=4), st.sampled_from(["3A", "7A"]))
def test_a_scenario_cut_at_any_times_gives_the_same_trace(cuts, name):
    """Played at once or in pieces from snapshots through JSON: the same events and hazards."""
    acts = [*START, act(4, "dip", "", "0.4"), act(6, "push", "S2"), act(9.5, "trip", "OL1")]
    stage = Stage(circuit_of(name))
    whole = stage.play(acts, until_us=13_000_000)
    events, hazards, snapshot, done = [], [], None, -1
    for cut in [*sorted(cuts), 13_000_000]:
        actions = [a for a in stage.actions(acts) if done < a.time <= cut]
        single = [ScenarioAct(at_us=a.time, do=a.verb, on=a.device, word=a.word) for a in actions]
        piece = stage.play(single, until_us=cut, snapshot=snapshot)
        events += story(piece)
        hazards += [(h.code, h.time_us) for h in piece.hazards]
        snapshot, done = json.loads(json.dumps(piece.snapshots[-1])), cut
    assert events == story(whole)
    assert hazards == [(h.code, h.time_us) for h in whole.hazards]


def test_a_snapshot_of_another_netlist_is_refused():
    """The client then plays the scenario from its start."""
    stage = Stage(BASE)
    trace = stage.play(START)
    other = Stage(edited(BASE, "move KM1.13 S2.13 -> S1.11"))
    with pytest.raises(RefusedError, match="another drawing"):
        other.play([], until_us=20_000_000, snapshot=trace.snapshots[-1])
    forged = {**trace.snapshots[-1], "bound": [*trace.snapshots[-1]["bound"][:3], "physical"]}
    with pytest.raises(RefusedError):
        stage.play([], until_us=20_000_000, snapshot=forged)


def test_snapshots_are_small():
    """At most 32 kB, for the largest machine of the catalogue too."""
    stage = Stage(circuit_of("16A"))
    trace = stage.play([act(0, "close", "QF1"), act(1, "push", "S0"), act(2, "push", "S2")])
    assert max(len(json.dumps(item)) for item in trace.snapshots) < 32_000


@pytest.mark.parametrize(
    ("name", "edit", "acts", "code", "says"),
    [
        (
            "2A",
            "",
            [
                act(0, "close", "QF1"),
                act(1, "turn", "SS1", "AUTO"),
                act(2, "on", "PS1"),
                act(5, "dip", "", "1"),
            ],
            "springs_to_life",
            "power back → KM1 pulls in → M1 driven forward",
        ),
        (
            "2A",
            "",
            [
                act(0, "close", "QF1"),
                act(1, "turn", "SS1", "AUTO"),
                act(2, "on", "PS1"),
                act(5, "trip", "OL1"),
                act(6, "reset", "OL1"),
            ],
            "springs_to_life",
            "OL1 reset → OL1 95-96 closes → KM1 pulls in",
        ),
        (
            "3A",
            "swap S2.13 S2.21; swap S2.14 S2.22",
            [act(0, "close", "QF1")],
            "springs_to_life",
            "QF1 switched on → KM1 pulls in",
        ),
        (
            "3A",
            "move KM1.13 S2.13 -> S1.11",
            [*START, act(5, "press", "S1")],
            "does_not_stop",
            "S1 pressed → M1 is still running",
        ),
        (
            "3A",
            "move KM1.A2 OL1.95 -> OL1.96",
            [*START, act(5, "trip", "OL1")],
            "does_not_stop",
            "OL1 trips → M1 is still running",
        ),
        (
            "6B",
            "",
            [act(0, "close", "QF1"), act(1, "push", "S2"), act(4, "push", "S3")],
            "plugged",
            "S3 pressed → S3 13-14 closes → KR pulls in",
        ),
        (
            "6A",
            "remove KF.22 KR.A1; add KF.21 KR.A1",
            [act(0, "close", "QF1"), act(1, "push", "S2"), act(3, "push", "S3")],
            "both_ways",
            "both are closed at once",
        ),
        ("3A", "", [*START, act(3, "ground", "S2.14")], "short", "FU3 clears a short circuit"),
    ],
)
def test_hazards_have_their_name_and_their_chain(name, edit, acts, code, says):
    """The hazard freezes at its instant and tells how it came about."""
    circuit = edited(circuit_of(name), edit) if edit else circuit_of(name)
    trace = Stage(circuit).play(acts)
    found = [hazard for hazard in trace.hazards if hazard.code == code]
    assert found, [hazard.code for hazard in trace.hazards]
    assert says in found[0].sentence
    assert say(Message(f"hazard.{code}"))


@pytest.mark.parametrize("name", ["3A", "3B", "3C", "4B", "5A", "6A", "6C", "7A", "9A", "11A"])
def test_right_circuits_show_no_hazard(name):
    """Start, stop, power return, overload and its reset: nothing starts by itself."""
    circuit = circuit_of(name)
    tags = set(circuit.tags.values())
    start = next(circuit.tags[role] for role in ("start", "forward", "low") if role in circuit.tags)
    trip = next(tag for tag in sorted(tags) if tag.startswith("OL"))
    acts = [act(0, "close", "QF1")]
    if "reset" in circuit.tags:
        acts.append(act(0.5, "push", circuit.tags["reset"]))
    if "SS1" in tags:
        acts.append(act(0.6, "turn", "SS1", "HAND" if name == "4B" else "RUN"))
    acts += [
        act(1, "push", start),
        act(14, "push", circuit.tags["stop"]),
        act(30, "push", start),
        act(44, "dip", "", "3"),
        act(60, "push", start),
        act(75, "trip", trip),
        act(80, "reset", trip),
    ]
    assert not Stage(circuit).play(acts).hazards


def test_a_loop_that_never_settles_is_a_finding():
    """A relay that opens its own coil: broken off with a word, no hang."""
    circuit = read_circuit(
        "SUP supply v=208\nK1 relay aux=21-22 coil=120\nK2 relay aux=21-22 coil=120",
        "",
        "1: SUP.L1 - K1.21\n2: K1.22 - K1.A1\nN: SUP.N - K1.A2",
    )
    trace = Stage(circuit).play([], until_us=600_000_000)
    assert trace.is_cut or trace.never_settles
    assert trace.until_us < 600_000_000
    assert len(trace.frames) <= 2600


@pytest.mark.parametrize(
    ("acts", "field", "says"),
    [
        ([act(0, "press", "S9")], "scenario.actions.0", "There is no S9"),
        ([act(0, "press", "KM1")], "scenario", "main cannot do “press ”"),
        ([act(0, "turn", "S1", "ON")], "scenario", "cannot do"),
        ([act(0, "dip", "", "long")], "scenario.actions.0.word", "does not take “long”"),
        ([act(-1, "press", "S1")], "scenario.actions.0.at_s", "outside what a rehearsal"),
        ([act(0, "press", "S1")] * 401, "scenario.actions", "401 actions"),
        ([act(0, "ground", "S2.99")], "scenario.actions.0", "no S2.99"),
        ([act(0, "load", "M1", "heavy")], "scenario", "cannot do"),
    ],
)
def test_acts_that_cannot_be_are_named(acts, field, says):
    """The act, what it names, and what there is instead."""
    with pytest.raises(CoreError) as caught:
        Stage(BASE).play(acts)
    assert caught.value.field.startswith(field)
    assert says in str(caught.value)
    assert caught.value.problem()["hint"]


def test_scenario_files():
    """A good one plays; a bad one names its field."""
    data = b'{"until_s": "3", "actions": [{"at_s": "0", "do": "close", "on": "QF1"}]}'
    scenario = read_scenario(data)
    trace = Stage(BASE, scenario.constants).play(scenario.acts(), until_us=scenario.until_us())
    said = trace_as_json(trace, BASE)
    assert said["constants"] == "catalogue"
    assert said["until_us"] == 3_000_000
    assert said["frames"][0]["words"]["lamp_off"] == "off"
    assert said["frames"][-1]["t"] == 3_000_000
    assert scenario.actions[0].at_s == Decimal(0)
    for bad, field in (
        (b"{", "scenario."),
        (b'{"actions": [{"at_s": 1.5, "do": "press"}]}', "scenario.actions.0.at_s"),
        (b'{"actions": [{"at_s": "1"}]}', "scenario.actions.0.do"),
        (b'{"constants": "guess"}', "scenario.constants"),
        (b" " * 300_000, "file"),
    ):
        with pytest.raises(CoreError) as caught:
            read_scenario(bad)
        assert caught.value.field.startswith(field)


@settings(max_examples=40, deadline=None)
@given(
    EDITS,
    st.lists(
        st.sampled_from(
            ["press start", "press stop", "trip overload", "weld main", "release start"]
        ),
        max_size=4,
    ),
)
def test_any_edit_leaves_the_solver_finite_and_the_two_solvers_equal(edits, acts):
    """Plain elimination and NumPy agree on every state that random wiring reaches."""
    circuit = replay(BASE, edits).circuit
    known = {item.id for item in circuit.netlist.devices}
    plant = compile_plant(circuit.netlist)
    run = Run(plant)
    if "breaker" in known:
        run.act(Action(0, "close", "breaker"))
    for place, text in enumerate(acts):
        verb, device = text.split()
        if device in known:
            run.act(Action((place + 1) * 200_000, verb, device))
    run.advance(2_000_000)
    rows, right = plant.equations(run.admittance, run.feeds, run.grounded)
    dense = solve_dense([dict(row) for row in rows], list(right))
    scale = max(1.0, *(abs(value) for value in dense))
    assert all(abs(value) < 1e9 for value in run.solution.volts)
    # between two islands that only leaks join, volts mean nothing: compare along closed branches
    for (start, end), value in zip(plant.ends, run.admittance, strict=True):
        if value:
            one = run.solution.volts[start] - run.solution.volts[end]
            assert abs(one - (dense[start] - dense[end])) < 1e-6 * scale


@given(st.integers(2, 9), st.data())
def test_sparse_elimination_solves_any_passive_network(size, data):
    """Random branches between random nodes: currents into every node sum to what was put in."""
    pairs = data.draw(
        st.lists(st.tuples(st.integers(0, size - 1), st.integers(0, size - 1)), max_size=14)
    )
    rows = [{node: 1e-3 + 0j} for node in range(size)]
    for place, (one, other) in enumerate(pairs):
        if one == other:
            continue
        value = complex(1 + place, -0.5 * place)
        for row, column, sign in (
            (one, one, 1),
            (other, other, 1),
            (one, other, -1),
            (other, one, -1),
        ):
            rows[row][column] = rows[row].get(column, 0) + sign * value
    right = [complex(node, 1) for node in range(size)]
    kept = [dict(row) for row in rows]
    solved = solve_sparse(rows, list(right), elimination_order(size, pairs))
    for row, wanted in zip(kept, right, strict=True):
        assert sum(value * solved[column] for column, value in row.items()) == pytest.approx(
            wanted, abs=1e-6 * max(abs(item) for item in solved)
        )


def combinations():
    """Yield every option of the three-wire starter alone and every pair of them."""
    specs = options_of(entry_of("3A"))
    words = [[(spec.name, word) for word in spec.choices] for spec in specs]
    yield {}
    for place, some in enumerate(words):
        for one in some:
            yield dict([one])
            for others in words[place + 1 :]:
                # one far choice of every other option is enough beside all of the first
                yield dict([one, others[-1]])


@pytest.mark.many
@pytest.mark.parametrize("part", range(4))
def test_every_pair_of_options_still_starts_stops_and_trips(part):
    """However a three-wire starter is drawn, it starts by START only and stops by everything."""
    for options in list(combinations())[part::4]:
        starts_stops_and_trips(options)


def test_one_set_of_options_starts_stops_and_trips():
    """The first of many, in the run that counts lines."""
    starts_stops_and_trips(list(combinations())[-1])


def do_not_go_together(options):
    """Tell by hand which choices exclude each other.

    Without an own transformer there is no primary to choose, no test supply in its place and,
    unless the source is separate, no volts to choose; a main switch whose auxiliary opens the
    controls leaves a test supply nothing to feed.
    """
    source = options.get("control_source", "transformer")
    chosen = {name for name, word in options.items() if word != DEFAULTS[name]}
    if source not in {"transformer", "separate"} and "control_volts" in chosen:
        return True
    if source != "transformer" and chosen & {"control_primary", "test_feed"}:
        return True
    return {"main_auxiliary", "test_feed"} <= chosen


DEFAULTS = {spec.name: spec.default for spec in options_of(entry_of("3A"))}


def starts_stops_and_trips(options):
    """Draw a three-wire starter and push START, STOP, START; trip; reset."""
    try:
        circuit = draw("3A", options).circuit
    except CoreError as clash:
        assert clash.field.rpartition(".")[2] in options
        assert do_not_go_together(options), options
        return
    assert not do_not_go_together(options), options
    acts = [act(0, "close", circuit.tags["breaker"])]
    if "master" in circuit.tags:
        acts.append(act(0.5, "push", "S0"))
    acts += [
        act(1, "push", "S2"),
        act(5, "push", "S1"),
        act(7, "push", "S2"),
        act(9, "trip", "OL1"),
        act(10, "reset", "OL1"),
    ]
    trace = Stage(circuit).play(acts, until_us=12_000_000)
    words = [
        [frame.motors["motor"].word for frame in trace.frames if frame.time_us <= at * 1e6][-1]
        for at in (0.9, 4.9, 6, 8.9, 9.9, 11)
    ]
    assert words == ["off", "fwd", "coast", "fwd", "coast", "coast"], options
    assert not trace.hazards, options


def test_every_option_of_every_circuit_can_be_drawn_and_wired():
    """No option leaves a third wire under a screw or a wire to nowhere."""
    from evencoil.circuit.wirelist import crowded, loose_ends

    for name, entry in catalogue().items():
        for spec in options_of(entry):
            for word in spec.choices or (f"{spec.least + 2:g}", f"{spec.most:g}"):
                circuit = draw(name, {spec.name: word}).circuit
                known = {f"{d.id}.{end}" for d in circuit.netlist.devices for end in d.terminals}
                ends = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
                assert ends <= known, (name, spec.name, word)
                assert not crowded(circuit), (name, spec.name, word)
                assert not loose_ends(circuit), (name, spec.name, word)


@pytest.mark.parametrize(
    ("name", "options", "field", "says"),
    [
        ("99Z", {}, "starter.standard_circuit", "99Z is not a standard circuit"),
        ("3A", {"cross": "L1-L3"}, "starter.options.cross", "3A has no option cross"),
        ("3A", {"stations": "9"}, "starter.options.stations", "stations cannot be 9"),
        ("7A", {"timer_s": "0"}, "starter.options.timer_s", "timer_s cannot be 0"),
        ("7A", {"timer_s": "soon"}, "starter.options.timer_s", "cannot be soon"),
    ],
)
def test_wrong_recipes_and_options_are_named(name, options, field, says):
    """What was asked, and what there is."""
    with pytest.raises(CoreError) as caught:
        draw(name, options)
    assert caught.value.field == field
    assert says in str(caught.value)


def test_which_lines_are_crossed_changes_the_wires_and_never_the_direction():
    """Any of the three exchanges reverses; the drawing follows the plant's habit."""
    for word in ("L1-L3", "L1-L2", "L2-L3"):
        circuit = draw("6C", {"cross": word}).circuit
        trace = Stage(circuit).play([act(0, "close", "QF1"), act(1, "push", "S3")])
        assert trace.frames[-1].motors["motor"].word == "rev", word
