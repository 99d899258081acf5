"""What hands do at a panel, read off the netlist: sources, points, wires, rows."""

from decimal import Decimal

import pytest
from panel_made import NINE, inputs_of, made

from evencoil.acts import Entry, Log, receive, state_of, work_as_json, work_from_json
from evencoil.base import CoreError
from evencoil.checks import dead_checks
from evencoil.circuit import read_netlist, write_netlist
from evencoil.job import JobInputs, PanelAsks, panel_work, work_out
from evencoil.job.panel_items import expected_of, panel_items
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.starters import StarterInputs


def test_the_line_is_isolated_by_the_switch_it_goes_to_first():
    """Its own line terminals stay live and are named first; dead is proven behind it."""
    worked, panel = made()
    assert [source.id for source in panel.sources] == ["main"]
    main = panel.sources[0]
    assert main.isolator == "breaker"
    own = worked.starter.circuit.tags["breaker"]
    assert all(said.startswith(own) for said in main.stays_live[:3])
    assert len(main.stays_live) >= 3
    # three load terminals: three pairs, and each to ground
    assert len(panel.points) == 6
    ends = {end for point in panel.points for end in (point.one, point.other)}
    assert not ends & set(main.stays_live)


def test_every_wire_is_landed_and_every_row_names_its_wires():
    """As on the wire list, links of a maker left out; rows hold the bounds of the dead check."""
    worked, panel = made()
    ahead = {"supply.L1", "supply.L2", "supply.L3"}
    rows = [
        row
        for row in worked.starter.rows()
        if not row.is_maker and not set(row.id.split("~")) & ahead
    ]
    # what stays live under this lock is not landed under it
    assert len(panel.line_side) == 3
    assert sorted(wire.id for wire in panel.wires) == sorted(row.id for row in rows)
    # in the order of the hand: ground first, then power, then control, what goes to the door last
    assert [wire.start for wire in panel.wires[:2]] == ["supply.PE", "supply.PE"]
    scopes = [wire.way for wire in panel.wires[2:]]
    assert scopes == sorted(scopes, reverse=True)
    door = [any(part in wire.id for part in ("stop.", "start.", "lamp")) for wire in panel.wires]
    assert door == sorted(door)
    work = panel.work
    assert set(work.wires) == {row.id for row in rows}
    assert {wire.scope for wire in work.wires.values()} == {"power", "control"}
    assert set(work.rows) == {row.id for row in panel.rows}
    for row in work.rows.values():
        assert set(row.wires) <= set(work.wires)
        assert row.least is not None
    # the same again is the same, whatever stands in another place of a list
    assert set(made.__wrapped__()[1].work.rows) == set(work.rows)


def test_it_comes_back_from_plain_values():
    """Stored with its revision, and read as it was."""
    assert work_from_json(work_as_json(made()[1].work)) == made()[1].work


def test_what_each_button_must_do_is_played():
    """Three-wire start: the contactor seals in, both lamps change over, the stop drops it."""
    stages = {one.id: one for one in made()[1].stages}
    assert list(stages) == ["control", "bump", "unloaded", "loaded"]
    assert [one.said for one in stages["control"].results] == [
        "Push S1: nothing pulls in",
        "Push S2: KM1 pulls in and stays in; H1 on; H2 off",
        "Start it (push S2), then push S1: KM1 drops out; H1 off; H2 on",
    ]
    # the transformer is never fed from its low side
    assert "FU1, FU2, FU3" in stages["control"].feeds[0]


def test_wye_delta_changes_over_in_the_control_stage():
    """The star contactor pulls in and drops out by itself, delta comes after it."""
    control = made("7A")[1].stages[0]
    start = next(one.said for one in control.results if "stays in" in one.said)
    assert "KY pulls in and drops out later without another act" in start
    assert "KD pulls in later" in start


def test_a_selector_and_a_sensor_are_tried_together():
    """Two-wire: neither alone does anything, and both together start it."""
    said = [one.said for one in made("2A")[1].stages[0].results]
    assert said[-1].startswith("Turn SS1 AUTO, then make PS1: KM1 pulls in and stays in")


def test_a_manual_starter_has_no_control_stage():
    """There is no control circuit to try alone."""
    assert [one.id for one in made("1A")[1].stages] == ["bump", "unloaded", "loaded"]


def test_volts_of_the_nameplate_bound_the_readings():
    """460 V within 10 percent; amps at most 19.3 A times the service factor 1.15."""
    work = made()[1].work
    assert work.expect["loaded.volts"] == {"unit": "V", "min": "414", "max": "506", "value": "480"}
    assert Decimal(work.expect["loaded.amps"]["max"]) == Decimal("19.3") * Decimal("1.15")
    assert set(work.stages["loaded"].needs) >= {"volts@L1-L2", "amps@L3", "start_time"}


def test_a_coil_that_was_read_becomes_the_expectation():
    """A row through the one coil is held within 15 percent of what was read, not five times."""
    worked, plain = made()
    inputs = inputs_of("3A")
    own = panel_work(
        inputs,
        worked,
        dead_checks(worked.starter.required()),
        PanelAsks(coil_ohms={"main": Decimal(40)}),
    )
    changed = {name: row for name, row in own.work.rows.items() if row != plain.work.rows[name]}
    assert changed
    for row in changed.values():
        # wires and contacts in its way add little; nothing lies beside this coil but lamps
        assert Decimal(25) < Decimal(row.least) < Decimal(40) < Decimal(row.most) < Decimal(60)
    near = {row.id: row.expects for row in own.rows}
    assert all("own coil" in near[name] for name in changed)


def test_the_plant_says_which_wires_are_torqued_and_checked_twice():
    """Power wires, all, or none; the wire list decides which are power."""
    worked, _ = made()
    dead = dead_checks(worked.starter.required())
    asked = panel_work(
        inputs_of("3A"), worked, dead, PanelAsks(torque="power", second_person="all")
    )
    power = {wire.id for wire in asked.wires if wire.way == "power" or "PE" in wire.id}
    assert asked.work.rules.torque == power
    assert asked.work.rules.two_person == {wire.id for wire in asked.wires}
    assert made()[1].work.rules.torque == frozenset()


def test_no_stage_opens_without_a_rehearsal_on_record():
    """Everything else may be done: what is not on record forbids power."""
    work = made()[1].work
    assert not work.rules.is_rehearsed
    state = state_of(Log([work]))
    assert state.may_open is None
    assert "rehearsal" in state.blocked
    assert state.state == "not_locked"


def test_a_whole_day_of_hands_at_this_panel():
    """Lock, prove, land every wire, read every row as it should be: only power stays open."""
    work = made()[1].work
    log, last = Log([work]), []

    def do(kind, about=None, body=None):
        entry = Entry(
            id=f"e{len(last)}",
            kind=kind,
            by="mq",
            role="electrician",
            device="t1",
            rev=1,
            about=about or {},
            body=body or {},
            based_on=tuple(last[-1:]),
        )
        last.append(entry.id)
        return receive(log, entry)

    assert do("landed", {"wire": next(iter(work.wires)), "ends": ["a", "b"]}).startswith("refused")
    assert do("lock_on", {"isolator": "breaker"}, {"place": "isolator", "lock_no": "7"}) == "kept"
    good = {"meter": "m", "value": "479", "unit": "V", "min": "414", "max": "506"}
    do("meter_live", {"round": "A"}, {**good, "phase": "before"})
    for source in work.sources.values():
        for point in source.points:
            body = {"meter": "m", "value": "0,2", "unit": "V", "waited_s": "0"}
            assert do("dead_point", {"round": "A", "point": point}, body) == "kept"
    do("meter_live", {"round": "A"}, {**good, "phase": "after"})
    assert state_of(log).hands == ("mq",)
    for name, wire in work.wires.items():
        answer = do("landed", {"wire": name, "ends": list(wire.ends)}, {"ok": True, "tugged": True})
        assert answer == "kept"
    for name, row in work.rows.items():
        value = "OL" if row.most is None else row.least
        body = {"value": value, "unit": "ohm", "meter": "m"}
        assert do("dead_reading", {"row": name}, body) == "kept", row
    windings = "insulation.motor"
    # the frame's ground is one of the ohm readings, and is not asked a second time
    assert work.items == (windings,)
    frame = [row for row in made()[1].rows if ".PE" in row.start_said and ".PE" in row.end_said]
    assert len(frame) == 1
    body = {"value": "17,9", "unit": "Mohm", "temp_c": "22", "connected": []}
    group = {"group": windings}
    # a tester on electronics destroys it: refused while anything is said to be connected
    for connected in ({"connected": ["a sensor"]}, {"connected": None}):
        answer = do("insulation_reading", group, {**body, **connected})
        assert answer == "refused:disconnect_first"
    assert do("insulation_reading", group, {**body, "unit": "ohm"}) == "refused:unit"
    assert do("insulation_reading", group, {**body, "value": "17.4"}) == "kept"
    # 5 Mohm at 40 °C is 5 x 2^1.8 = 17.41 at 22 °C
    assert state_of(log).items[windings] == "wrong"
    assert do("insulation_reading", group, {**body, "temp_c": "90"}) == "kept"
    assert state_of(log).items[windings] == "not_judged"
    assert do("insulation_reading", group, body) == "kept"
    state = state_of(log)
    assert set(state.wires.values()) == {"done"}
    assert set(state.rows.values()) == {"as_expected"}
    assert {one.partition(":")[0] for one in state.open} == {"lock", "stage"}


def test_a_circuit_without_a_switch_cannot_be_locked():
    """Refused with what to do, not a panel that needs no lock."""
    worked, _ = made()
    bare = JobInputs(plate=PlateInputs(text=NINE), supply=SupplyInputs(text="480Y/277"))
    with pytest.raises(CoreError):
        panel_work(bare, work_out(bare), dead_checks(worked.starter.required()))


@pytest.mark.parametrize(
    ("volts", "tester", "asked_at_40"),
    [("230/460 V, 38.6/19.3 A", "500", "5"), ("38.6 A", "", None)],
)
def test_insulation_is_asked_by_the_volts_stamped(volts, tester, asked_at_40):
    """Each motor by itself; nothing is asked where no volts are stamped."""
    worked, _ = made()
    text = NINE.replace("230/460 V, 38.6/19.3 A", volts)
    circuit = worked.starter.required()
    bare = work_out(JobInputs(plate=PlateInputs(text=text)))
    items = panel_items(JobInputs(), bare, circuit)
    assert [item.kind for item in items] == ["ground_continuity", "insulation_reading"]
    assert items[1].tester_v == tester
    assert ("5 MΩ at 40 °C for 460 V" in items[1].asks) == (asked_at_40 is not None)
    asked = expected_of(items, bare).get("insulation.motor")
    if asked_at_40 is None:
        assert asked is None
    else:
        assert [least for low, _, least in asked["bands"] if low == 40] == [asked_at_40]
    tag = circuit.tags["motor"]
    assert any(tag in said for said in items[1].off)


def test_a_sensor_in_the_circuit_comes_off_before_the_tester():
    """Named by its tag: a tester's volts destroy it."""
    worked, panel = made("14B")
    circuit = worked.starter.required()
    sensors = [
        circuit.tags[item.id]
        for item in circuit.netlist.devices
        if item.type in {"ptc", "thermostat", "rtd"}
    ]
    assert sensors
    off = [said for item in panel.items for said in item.off]
    assert [tag for tag in sensors if not any(tag in said for said in off)] == []
    plain = [said for item in made()[1].items for said in item.off]
    assert len(plain) == 2


def test_while_no_ohm_readings_are_known_the_ground_is_asked_by_itself():
    """Ground, windings, and the readings that are not calculated: none of them is left out."""
    worked, _ = made()
    inputs = JobInputs(
        plate=PlateInputs(text=NINE),
        supply=SupplyInputs(text="480Y/277"),
        leads=LeadsInputs(winding="9-wye"),
        starter=StarterInputs(standard_circuit="3A"),
    )
    work = panel_work(inputs, worked, None).work
    assert work.items == ("ground.motor", "insulation.motor", "dead_check")
    assert work.expect["ground.motor"] == {"unit": "ohm", "min": "0", "max": "0.5"}


@pytest.mark.parametrize("estop", ["none", "contact", "reset_relay"])
def test_an_emergency_stop_is_pressed_in_the_control_stage(estop):
    """It latches: pressing it while it runs drops the contactor; without one no row is asked."""
    inputs = inputs_of("3A")
    chosen = inputs.starter.model_copy(update={"options": {"estop": estop}})
    inputs = inputs.model_copy(update={"starter": chosen})
    panel = panel_work(inputs, work_out(inputs), None)
    pressed = [one.said for one in panel.stages[0].results if "press ES1" in one.said]
    assert len(pressed) == (estop != "none")
    assert all("KM1 drops out" in one for one in pressed)


def test_a_starter_with_its_terminal_box_is_read_back_from_its_netlist():
    """Joints have a point in their names, as the outputs of a relay have in their terminals."""
    circuit = made()[0].starter.circuit
    read = read_netlist(write_netlist(circuit))
    assert len(read.netlist.wires) == len(circuit.netlist.wires)
