"""A drive in the drawing: its ratings, what its sizes wait for, its bus at the panel."""

from decimal import Decimal

import pytest

from evencoil.job import JobInputs, panel_roll, panel_swap, panel_work, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs
from evencoil.sizing.inputs import DriveInput
from evencoil.starters import StarterInputs

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"


def worked(circuit="17C", size=None, supply="480Y/277", winding="9-wye"):
    """Return the inputs of a job with a drive, and the same calculated."""
    inputs = JobInputs(
        plate=PlateInputs(text=PLATE if winding == "9-wye" else PLATE.replace(", 9 LEADS", "")),
        supply=SupplyInputs(text=supply),
        leads=LeadsInputs(winding=winding),
        size=size or SizeInputs(),
        starter=StarterInputs(standard_circuit=circuit),
    )
    return inputs, work_out(inputs)


def test_it_is_rated_by_the_job():
    """Volts and hertz of the supply, the motor's own amps at its connected volts."""
    _, found = worked()
    drive = found.starter.circuit.netlist.device("drive").parameters
    assert (drive["v"], drive["base"], drive["hz"]) == ("480", "60", "60")
    assert Decimal(drive["iset"]) == Decimal("19.3")


def test_its_sizes_wait_for_its_own_nameplate():
    """No conductor is sized by the motor's current in its place; entered, 430.122 gives it."""
    _, found = worked()
    (refused,) = [one for one in found.figures if one.id == "drive_conductor_size"]
    assert refused.step is None
    assert refused.refusal.field == "size.drive.input_a"
    # 24 A x 1.25 is 30 A; with the bypass 21 A x 1.25 is less: 30 A
    _, found = worked(size=SizeInputs(drive=DriveInput(input_a="24", has_bypass=True)))
    steps = {step.id: step.value for step in found.steps}
    assert steps["drive_ampacity_a"] == 30
    assert steps["drive_disconnect_a"] == Decimal("27.6")


@pytest.mark.parametrize("circuit", ["17A", "17B", "17C"])
def test_its_bus_is_a_source_with_its_wait(circuit):
    """Five minutes as drawn, and read with a meter between plus and minus."""
    inputs, found = worked(circuit)
    work = panel_work(inputs, found, None)
    (bus,) = [one for one in work.sources if one.id == "drive"]
    assert (bus.isolator, bus.wait_s) == ("breaker", 300)
    assert [one.id for one in work.points if one.source == "drive"] == ["drive:bus"]


def test_power_in_stages_says_what_a_drive_is():
    """No test supply on a part of it, no direction by the lines, no plain meter behind it."""
    inputs, found = worked("17B")
    stages = {one.id: one for one in panel_work(inputs, found, None).stages}
    assert "own control volts" in " ".join(stages["control"].feeds)
    assert "test supply" not in " ".join(stages["control"].feeds)
    assert "exchange two leads at its output" in " ".join(stages["bump"].says)
    assert "made for pulses" in " ".join(stages["loaded"].says)


def test_the_wrong_way_is_never_mended_ahead_of_a_drive():
    """At the motor's joints, or at the output of the drive: lines exchanged ahead turn nothing."""
    for found in (worked("17A")[1], worked("17A", winding="3-wye")[1]):
        ahead_of_nothing(found)


def ahead_of_nothing(found):
    """Look at which wires change places."""
    for moved in (panel_swap(found, "p"), panel_roll(found, "r")):
        wires = [one for one in found.starter.circuit.netlist.wires if one.id in moved.wires]
        ends = {end.rpartition(".")[0] for wire in wires for end in (wire.start, wire.end)}
        assert not ends & {"breaker", "supply", "main"}


def test_the_box_says_where_its_direction_is_made():
    """At the output of the drive, not by two lines ahead of it."""
    assert worked("17A")[1].box.rotation_note.id == "leads.rotation.drive"
    assert worked("3A")[1].box.rotation_note.id == "leads.rotation.line"
