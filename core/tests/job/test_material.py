"""No rating in the bill of material without a step or a person behind it."""

from __future__ import annotations

from decimal import Decimal

import pytest
from circuit_play import circuit_of

from evencoil.checks.check import check_circuit
from evencoil.checks.reach import Graph
from evencoil.circuit.wirelist import is_sized_for_job, material
from evencoil.job.drawn_sizes import heaters_lie
from evencoil.job.inputs import JobInputs
from evencoil.job.job_starter import JobStarter
from evencoil.job.starter import work_out_starter
from evencoil.job.work_out import work_out
from evencoil.job.worked import Worked
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.inputs import SizeInputs
from evencoil.starters import catalogue
from evencoil.starters.inputs import EditInput, StarterInputs
from evencoil.starters.standard_circuit import draw

THREE = "25 HP, {}, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 40 C AMB, 12 LEADS"
METRIC = "15 kW, 400/690 V D/Y, 28.5/16.5 A, 1465 RPM, 50 HZ, 3 PH, IE3, IP55, 6 LEADS"
#: plate, supply: wye, delta, high leg, corner-grounded, another voltage, outside the NEC, none
JOBS = [
    (THREE.format("230/460 V, 60/30 A"), "480Y/277"),
    (THREE.format("230/460 V, 60/30 A"), "240 V delta"),
    (THREE.format("230/460 V, 60/30 A"), "240/120 high leg delta"),
    (THREE.format("230/460 V, 60/30 A"), "480 V corner grounded"),
    (THREE.format("200 V, 69 A"), "208Y/120"),
    (THREE.format("575 V, 24 A"), "600Y/347"),
    (METRIC, "400Y/230 50 Hz"),
    (THREE.format("230/460 V, 60/30 A"), ""),
]


def job(plate: str, supply: str, kind: str | None = None) -> Worked:
    return work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs.model_validate({"protection_kind": kind}),
        )
    )


def listed(starter: JobStarter) -> dict[str, str]:
    return {
        f"{row.device}.{name}": value
        for row in starter.material()
        for name, value, _ in row.ratings
    }


@pytest.mark.parametrize(("plate", "supply"), JOBS)
@pytest.mark.parametrize("circuit_id", sorted(catalogue()))
def test_every_rating_has_its_step(circuit_id: str, plate: str, supply: str) -> None:
    """A worked-out rating names a step of this very job; every other one stays without value."""
    worked = job(plate, supply)
    starter = work_out_starter(worked, StarterInputs(standard_circuit=circuit_id))
    if starter.circuit is None:
        assert starter.refusal is not None
        assert starter.material() == ()
        return
    steps = {step.id for step in worked.steps}
    if worked.supply is not None and worked.supply.line_volts_v is not None:
        steps.add("supply_volts_v")
    rated = listed(starter)
    for row in starter.material():
        item = starter.circuit.netlist.device(row.device)
        for name, value, _ in row.ratings:
            if is_sized_for_job(item, name):
                step = starter.sources.get(f"{row.device}.{name}", "")
                assert (value != "") == (step in steps), (row.device, name, value, step)
    # what protects the motor is always listed, sized or not
    for name in ("breaker.a", "disconnect.a", "overload.iset", "starter.iset"):
        device = name.partition(".")[0]
        kinds = {row.device: row.type for row in starter.material()}
        if kinds.get(device) in {"cb3", "fdisc", "olr", "mms"}:
            assert name in rated


def test_nothing_sized_lists_no_figure() -> None:
    """Before there is a nameplate all that has to be worked out is open; 3A by hand."""
    starter = work_out_starter(job("", ""), StarterInputs(standard_circuit="3A"))
    rated = listed(starter)
    assert {name for name, value in rated.items() if not value} >= {
        "breaker.a",
        "main.ac3_a",
        "overload.iset",
        "control_transformer.va",
        "control_fuse_1.a",
        "control_fuse_2.a",
        "control_fuse.a",
    }
    assert rated["main.coil"] == "120"


@pytest.mark.parametrize(
    ("circuit_id", "kind", "wanted"),
    [
        # 25 hp at 460 V: 34 A of the table; 250 % = 85 A, next standard size 90 A
        ("3A", "inverse_time_breaker", {"breaker.a": "90", "breaker.mag": "", "main.ac3_a": "34"}),
        # fuses of 175 % = 59.5 A, next size 60 A; a manual starter takes the plate's 30 A
        (
            "1A",
            "dual_element_fuse",
            {"disconnect.a": "60", "starter.iset": "30", "starter.mag": ""},
        ),
        # the overload in the winding legs of a star-delta starter: 30 A x 0.58 = 17.4 A
        ("7A", "inverse_time_breaker", {"overload.iset": "17.4", "delta.ac3_a": "19.7"}),
        # three motors: only the first one is this job's, and the main is nobody's yet
        (
            "16A",
            "inverse_time_breaker",
            {
                "breaker.a": "",
                "breaker_2.a": "90",
                "breaker_3.a": "",
                "overload.iset": "30",
                "overload_2.iset": "",
            },
        ),
        # the maker builds in when a thermostat opens
        ("14A", "inverse_time_breaker", {"thermostat.t": ""}),
        # injection braking has not been worked out
        ("12C", "inverse_time_breaker", {"brake_fuse_1.a": "", "brake_transformer.sec": ""}),
        (
            "9A",
            "inverse_time_breaker",
            {"autotransformer.v": "480", "transformer_thermostat.t": ""},
        ),
    ],
)
def test_ratings_by_hand(circuit_id: str, kind: str, wanted: dict[str, str]) -> None:
    """Table 430.250, 430.52 and the plate, by hand."""
    worked = job(THREE.format("230/460 V, 60/30 A"), "480Y/277", kind)
    starter = work_out_starter(worked, StarterInputs(standard_circuit=circuit_id))
    rated = listed(starter)
    for name, value in wanted.items():
        given = rated[name]
        assert (Decimal(given) == Decimal(value)) if given and value else given == value, name


@pytest.mark.parametrize(
    ("supply", "winding"),
    # two primary windings: in series on 480 V, side by side on 240 V
    [("480Y/277", "240"), ("240 V delta", "240"), ("208Y/120", "208")],
)
def test_each_primary_winding_is_for_its_part_of_the_line(supply: str, winding: str) -> None:
    """A transformer on 480 V has two windings of 240 V, never one of 480 V listed as 240."""
    worked = job(THREE.format("230/460 V, 60/30 A"), supply)
    starter = work_out_starter(worked, StarterInputs(standard_circuit="3A"))
    assert Decimal(listed(starter)["control_transformer.prim"]) == Decimal(winding)
    assert starter.sources["control_transformer.prim"] == "supply_volts_v"


@pytest.mark.parametrize("volts", ["480", "240"])
def test_a_supply_unit_on_the_line_is_for_the_line(volts: str) -> None:
    """24 V DC control: its unit stands between two lines."""
    worked = job(THREE.format("230/460 V, 60/30 A"), f"{volts} V delta")
    starter = work_out_starter(
        worked, StarterInputs(standard_circuit="3A", options={"control_source": "dc_24"})
    )
    assert starter.circuit is not None, starter.refusal
    assert Decimal(listed(starter)["dc_supply.v"]) == Decimal(volts)


def test_ratings_outside_the_nec() -> None:
    """Dial and contactors of a metric motor go by its 28.5 A; nothing of Article 430 is listed."""
    worked = job(METRIC, "400Y/230 50 Hz")
    starter = work_out_starter(worked, StarterInputs(standard_circuit="7A"))
    rated = listed(starter)
    # 28.5 x 0.58 = 16.53, a third = 9.5
    assert Decimal(rated["overload.iset"]) == Decimal("16.53")
    assert Decimal(rated["delta.ac3_a"]) == Decimal("16.5")
    assert Decimal(rated["star.ac3_a"]) == Decimal("9.5")
    assert rated["breaker.a"] == rated["control_fuse.a"] == ""
    assert starter.sources["main.ac3_a"] == "plate_amps_a"


def test_what_a_person_entered_is_listed() -> None:
    """A rating set by hand counts as decided; its neighbors stay open."""
    edit = EditInput(
        id="e1", kind="set", device="control_fuse", parameters={"a": "3"}, by="MK", why="stock"
    )
    starter = work_out_starter(job("", ""), StarterInputs(standard_circuit="3A", edits=(edit,)))
    rated = listed(starter)
    assert rated["control_fuse.a"] == "3"
    assert rated["control_fuse_1.a"] == ""


def test_contacts_beyond_the_built_in_ones_are_named() -> None:
    """A run lamp, an off lamp and a trip lamp use up 13-14 and 21-22 of the contactor."""
    plain = {one.device: one.add_ons for one in material(draw("3A", {"lamps": "none"}).circuit)}
    assert plain["main"] == "33-34"
    three = {one.device: one.add_ons for one in material(circuit_of("7A"))}
    assert three["main"] == "33-34"
    assert three["star"] == ""
    assert three["overload"] == ""


@pytest.mark.parametrize("name", ["7A", "7B", "8A"])
def test_heaters_lie_in_leg_or_line_of_every_star_delta_circuit(name: str) -> None:
    """In the leg the relay is set for 58 % of the line's current; in the line for all of it."""
    settings = {
        word: float(
            draw(name, {"heaters": word}).circuit.netlist.device("overload").parameters["iset"]
        )
        for word in ("leg", "line")
    }
    assert settings["leg"] == pytest.approx(5.8)
    assert settings["line"] == pytest.approx(10)
    for word in ("leg", "line"):
        for order in ("leading", "lagging"):
            circuit = draw(name, {"heaters": word, "delta_order": order}).circuit
            assert heaters_lie(Graph(circuit)) == word
            assert not [one for one in check_circuit(circuit) if one.level == "error"]
