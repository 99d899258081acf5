"""Worked examples from table to conductor, with their figures copied in."""

import json
from decimal import Decimal
from pathlib import Path

import pytest

from evencoil.base.errors import CoreError
from evencoil.base.evidence import Trail
from evencoil.base.words import say
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.plate.checks import locked_rotor_band_a
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.conductor import ConductorFacts, conductor, required_ampacity
from evencoil.sizing.full_load import MotorFacts, table_full_load_current
from evencoil.sizing.inputs import SizeInputs

CASES = json.loads((Path(__file__).parents[1] / "cases" / "sizing.json").read_text())["cases"]
GIVES = [case for case in CASES if case["expected"]]
REFUSES = [case for case in CASES if not case["expected"]]


def worked(case):
    """Work one example out and return every figure under its name."""
    given = case["inputs"]
    trail = Trail()
    volts = Decimal(given["supply_volts"])
    plate_volts = Decimal(given.get("nameplate_volts", volts))
    table_full_load_current(
        MotorFacts(
            power_hp=Decimal(str(given["hp"])),
            phases=given["phase"],
            supply_volts_v=volts,
            plate_volts_v=(plate_volts,),
        ),
        edition=case["edition"],
        trail=trail,
    )
    required_ampacity(edition=case["edition"], trail=trail)
    figures = {
        step.id: step.value if isinstance(step.value, Decimal) else step.text for step in trail
    }
    if "conductor_size" in case["expected"]:
        conductor(
            ConductorFacts(
                material=given["conductor_material"].lower(),
                insulation=given.get("insulation", "THWN").split()[0],
                termination_c=given.get("termination_temp_C"),
                design_letter=given.get("design"),
                ambient_c=Decimal(given.get("ambient_C", 30)),
                current_carrying=given.get("number_of_conductors", 3),
            ),
            edition=case["edition"],
            trail=trail,
        )
        figures = {
            step.id: step.value if isinstance(step.value, Decimal) else step.text for step in trail
        }
        params = trail["ampacity_a"].working.params
        figures["ampacity_at_terminals_a"] = Decimal(params["terminal"])
        figures["corrected_ampacity_a"] = Decimal(params["corrected"])
        unit = trail["conductor_size"].unit
        metal = given["conductor_material"]
        figures["conductor_size"] = f"{figures['conductor_size']} {unit} {metal}"
    if "code_letter" in given:
        low, high = locked_rotor_band_a(
            letter=given["code_letter"],
            power_hp=Decimal(given["hp"]),
            volts_v=volts,
            phases=given["phase"],
        )
        figures["locked_rotor_min_a"] = round(low, 1)
        figures["locked_rotor_max_a"] = round(high, 1)
    return figures


@pytest.mark.parametrize("case", GIVES, ids=lambda case: case["id"])
def test_worked_examples_come_out_to_the_last_figure(case):
    """Every figure of a worked example is met exactly."""
    figures = worked(case)

    for name, expected in case["expected"].items():
        got = figures[name]
        assert got == (Decimal(expected) if isinstance(got, Decimal) else expected), name


@pytest.mark.parametrize("case", REFUSES, ids=lambda case: case["id"])
def test_wrong_inputs_are_refused_in_words(case):
    """A refusal names the thing that is wrong."""
    given = case["inputs"]
    found = work_out(
        JobInputs(
            plate=PlateInputs(
                text=f"{given['hp']} HP {given['supply_volts'] or 460} V {given['phase']} PH"
            ),
            supply=SupplyInputs(text=f"{given['supply_volts']} V {given['phase']} PH"),
            size=SizeInputs(),
        )
    )

    refusal = found.figures[0].refusal
    assert refusal is not None
    assert any(word in f"{refusal.detail} {refusal.hint}".lower() for word in case["says"])


def facts(**changes):
    """Return the facts of a 15 hp, 460 V motor, changed."""
    base = {
        "power_hp": Decimal(15),
        "phases": 3,
        "supply_volts_v": Decimal(480),
        "plate_volts_v": (Decimal(460),),
    }
    return MotorFacts(**(base | changes))


@pytest.mark.parametrize(
    ("changes", "amps"),
    [
        pytest.param(
            {"supply_volts_v": Decimal(208), "plate_volts_v": [Decimal(200)]},
            "48.3",
            id="200 on 208",
        ),
        pytest.param(
            {"supply_volts_v": Decimal(208), "plate_volts_v": [Decimal(230)]},
            "46.2",
            id="230 on 208",
        ),
        pytest.param({"supply_volts_v": Decimal(440)}, "21", id="440 system"),
        pytest.param({"power_hp": Decimal("14.75"), "from_kw": True}, "21", id="11 kW"),
        pytest.param(
            {"power_hp": Decimal("14.5"), "between_rows": "next_row_up"}, "21", id="allowed"
        ),
        pytest.param(
            {"speed_rpm": Decimal(880), "plate_amps_a": Decimal("24.5")}, "24.5", id="slow"
        ),
        pytest.param(
            {"power_hp": Decimal("0.25"), "plate_amps_a": Decimal("0.9")}, "0.9", id="small"
        ),
    ],
)
def test_table_current_by_hand(changes, amps):
    """Columns that differ, kW nameplates, slow and small motors: read off the table by hand."""
    step = table_full_load_current(facts(**changes), edition=2023, trail=Trail())

    assert step.value == Decimal(amps)


@pytest.mark.parametrize(
    ("changes", "code", "detail"),
    [
        (
            {"power_hp": Decimal(600)},
            "not_in_table",
            "Table 430.250 ends at 500 hp; this motor has 600 hp.",
        ),
        (
            {
                "power_hp": Decimal(250),
                "supply_volts_v": Decimal(240),
                "plate_volts_v": [Decimal(230)],
            },
            "not_in_table",
            "Table 430.250 gives no current for 250 hp at 230 V.",
        ),
        (
            {"supply_volts_v": Decimal(400), "plate_volts_v": [Decimal(400)]},
            "not_in_table",
            "Table 430.250 has no column for 400 V.",
        ),
        (
            {"power_hp": Decimal("0.25")},
            "missing",
            "Table 430.250 begins at 0.5 hp. The nameplate current governs, and it is not known.",
        ),
    ],
)
def test_table_current_refusals(changes, code, detail):
    """Each refusal has its code, its full sentence, a field and a next step."""
    with pytest.raises(CoreError) as caught:
        table_full_load_current(facts(**changes), edition=2023, trail=Trail())

    problem = caught.value.problem()
    assert (problem["code"], problem["detail"]) == (code, detail)
    assert problem["field"]
    assert problem["hint"]


def size_of(flc_a="21", **changes):
    """Return the conductor's trail for a table current."""
    trail = Trail()
    table_full_load_current(
        facts(plate_amps_a=Decimal(flc_a), speed_rpm=Decimal(900)), edition=2023, trail=trail
    )
    required_ampacity(edition=2023, trail=trail)
    conductor(ConductorFacts(**changes), edition=2023, trail=trail)
    return trail


@pytest.mark.parametrize(
    ("flc", "changes", "size", "section"),
    [
        # 26.25 A: 60 C column, 12 AWG 20, 10 AWG 30
        ("21", {}, "10", "110.14(C)(1)(a)"),
        # 42.5 A: 60 C needs 6 AWG (55); design B lets 8 AWG (50) do
        ("34", {}, "6", "110.14(C)(1)(a)"),
        ("34", {"design_letter": "B"}, "8", "110.14(C)(1)(a)(4)"),
        ("34", {"termination_c": 75}, "8", "110.14(C)"),
        # TW is a 60 C wire whatever the lug says
        ("34", {"termination_c": 75, "insulation": "TW"}, "6", "110.14(C)"),
        # 155 A, above 100 A: 75 C column, aluminum 3/0 carries 155 exactly
        ("124", {"material": "al"}, "3/0", "110.14(C)(1)(b)"),
        # six conductors: 80 %; 26.25 / 0.8 = 32.8 of the 75 C column: 10 AWG 35 x 0.8 = 28
        ("21", {"current_carrying": 6, "termination_c": 75}, "10", "110.14(C)"),
        # smallest allowed, 1 A
        ("1", {}, "14", "110.14(C)(1)(a)"),
        ("1", {"material": "al"}, "12", "110.14(C)(1)(a)"),
        # two sets: 300 A by two 1/0 at 75 C (150 each)
        ("240", {"parallel_sets": 2}, "1/0", "110.14(C)(1)(b)"),
    ],
)
def test_conductor_by_hand(flc, changes, size, section):
    """Terminal path, insulation, adjustment, metal and parallel sets, read off the table."""
    trail = size_of(flc, **changes)

    assert trail["conductor_size"].text == size
    assert trail["terminal_temperature_c"].rule.section == section


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"ambient_c": Decimal(86)}, "size.ambient_c"),
        ({"ambient_c": Decimal(-61)}, "size.ambient_c"),
        ({"ambient_c": Decimal(60), "insulation": "TW"}, "size.ambient_c"),
        ({"insulation": "rubber"}, "size.insulation"),
        ({"parallel_sets": 13}, "size.parallel_sets"),
        ({"current_carrying": 0}, "size.current_carrying"),
        ({"termination_c": 40}, "size.termination_c"),
    ],
)
def test_conductor_refusals(changes, field):
    """A fact outside its range is refused at its own field."""
    with pytest.raises(CoreError) as caught:
        size_of(**changes)

    assert caught.value.field == field
    assert say(caught.value.hint)


def test_no_single_conductor_for_a_huge_current():
    """Beyond 2000 kcmil the way out is parallel sets."""
    with pytest.raises(CoreError) as caught:
        size_of("700")

    assert caught.value.field == "size.parallel_sets"


def test_what_would_tip_the_conductor_over():
    """15 hp, design B: 10 AWG holds to 28 A (35 / 1.25); aluminum 10 AWG carries 30 A."""
    trail = size_of("21", design_letter="B")
    tips = [say(tip.message) for tip in trail["conductor_size"].tips]

    assert tips[0] == "10 AWG is enough up to a full-load current of 28 A."
    assert "In aluminum it would be 10 AWG." in tips


def test_a_doubtful_cell_marks_everything_that_stands_on_it():
    """Aluminum 700 kcmil at 60 C is a listed doubt: the size says so."""
    trail = size_of("300", material="al", insulation="THWN", termination_c=75)
    # 375 A in aluminum at 75 C is 700 kcmil exactly; its 75 C cell is not doubted
    assert trail["conductor_size"].text == "700"
    assert not trail["conductor_size"].marks

    doubted = size_of("250", material="al", insulation="TW", termination_c=60)
    # 312.5 A at 60 C: 700 kcmil, 315 A, a cell that older books print as 310
    assert doubted["conductor_size"].text == "700"
    assert {mark.kind for mark in doubted["conductor_size"].marks} == {"check_the_book"}
