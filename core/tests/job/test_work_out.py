"""A job as a whole: figures, guesses, refusals, order of size."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import OutOfRangeError
from evencoil.base.evidence import Step, Trail
from evencoil.base.quantities import SIZES, ConductorSize, number, show
from evencoil.base.sentences.common import SENTENCES
from evencoil.base.words import Message, say
from evencoil.codebook.editions import edition_of
from evencoil.codebook.tables.loader import table
from evencoil.job.inputs import JobInputs
from evencoil.job.work_out import work_out
from evencoil.plate.inputs import AssumedInput, PlateInputs, SupplyInputs
from evencoil.sizing.inputs import SizeInputs

PLATE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"
SAID = SizeInputs(
    conductor_material="cu",
    insulation="THHN/THWN-2",
    ambient_c="30",
    current_carrying=3,
    protection_kind="inverse_time_breaker",
)


def run(plate=PLATE, supply="480Y/277", size=SAID):
    """Work a job out from plain texts."""
    return work_out(
        JobInputs(plate=PlateInputs(text=plate), supply=SupplyInputs(text=supply), size=size)
    )


def steps(worked):
    """Return the steps by id."""
    return {step.id: step for step in worked.steps}


def test_the_first_run_by_hand():
    """IC-2: 15 hp at 460 V is 21 A; x 1.25 = 26.25 A; 10 AWG copper, 35 A at 75 C."""
    worked = run()
    found = steps(worked)

    assert found["table_flc_a"].value == 21
    assert found["required_ampacity_a"].value == Decimal("26.25")
    assert found["conductor_size"].shown == "10 AWG"
    assert found["ampacity_a"].value == 35
    assert not [figure for figure in worked.figures if figure.refusal]
    assert {state.step: state.state for state in worked.states} == {
        "plate": "done",
        "leads": "open",
        "joints": "open",
        "size": "done",
    }


def test_every_worked_value_cites_a_rule_and_stands_on_known_steps():
    """No figure without evidence, from the first step to the last."""
    seen = set()
    for step in run().steps:
        assert step.kind != "calculated" or step.rule is not None
        assert set(step.uses) <= seen
        assert say(step.working)
        seen.add(step.id)
    with pytest.raises(TypeError, match="cites no rule"):
        Step(
            id="x", value="1", unit="", kind="calculated", shown="1", working=Message("size.waits")
        )


def test_a_guess_marks_everything_downstream_and_nothing_else():
    """No one said the ambient: factor, ampacity and size are marked; the table current is not."""
    found = steps(run(size=SAID.model_copy(update={"ambient_c": None})))
    marked = {step_id for step_id, step in found.items() if step.marks}

    assert marked == {
        "ambient_c",
        "ambient_factor",
        "ampacity_a",
        "conductor_size",
        "grounding_conductor_size",
    }
    assert {mark.kind for mark in found["conductor_size"].marks} == {"assumed"}


def test_a_plate_guess_marks_the_table_current_too():
    """Horsepower that no one could read marks all sizes."""
    worked = work_out(
        JobInputs(
            plate=PlateInputs(
                text="460 V 3 PH DES B",
                assumed=(AssumedInput(field="power_hp", value="15", reason="frame 254T"),),
            ),
            supply=SupplyInputs(text="480Y/277"),
            size=SAID,
        )
    )
    found = steps(worked)

    assert found["power_hp"].kind == "assumed"
    assert found["table_flc_a"].marks
    assert found["conductor_size"].marks
    assert "frame 254T" in say(found["power_hp"].working)


@pytest.mark.parametrize(
    ("plate", "supply", "code", "field"),
    [
        ("", "480Y/277", "missing", "volts_v"),
        (PLATE, "", "missing", "supply.text"),
        ("460 V 3 PH", "480Y/277", "missing", "power_hp"),
        ("10/5 HP 230 V 6 LEADS", "240 delta", "missing", "amps_a"),
        ("15 HP 230 V 3 PH", "480Y/277", "refused", "supply.text"),
        ("15 HP 400 V 3 PH", "400Y/230", "not_in_table", "supply.text"),
        ("25 HP 230 V 1 PH", "240 V 1PH", "not_in_table", "power_hp"),
        ("15 HP 460 V 3 PH 880 RPM", "480Y/277", "missing", "amps_a"),
        ("400 HP 2300 V 92 A 3 PH", "2400 delta", "refused", "supply.text"),
        ("5 HP 220 V 2 PH", "220 delta", "refused", "phases"),
        ("0.2 A 460 V 3 PH", "480Y/277", "not_in_table", "power_hp"),
    ],
)
def test_figures_are_withheld_with_a_reason(plate, supply, code, field):
    """Nothing is sized silently from facts that do not go together."""
    figures = run(plate, supply).figures

    assert figures[0].refusal is not None
    assert (figures[0].refusal.code, figures[0].refusal.field) == (code, field)
    assert figures[0].refusal.hint
    assert figures[1].refusal is not None
    assert figures[1].refusal.code == "missing"


def test_a_single_phase_motor_may_take_line_to_neutral():
    """1 hp, 115 V on 120/240: table 430.248, 115 V column, 16 A."""
    found = steps(run("1 HP 115 V 1 PH", "120/240 1PH"))

    assert found["table_flc_a"].value == 16
    assert found["supply_volts_v"].value == 120


def test_kw_plates_show_the_conversion():
    """11 kW / 0.746 = 14.75 hp: the next row up is 15 hp."""
    found = steps(run("11 KW 460 V 3 PH"))

    assert found["power_hp"].shown == "14.75"
    assert found["table_flc_a"].value == 21


EDITIONS = {2017: "Table 310.15(B)(16)", 2020: "Table 310.16", 2023: "Table 310.16"}


@pytest.mark.parametrize(("edition", "section"), EDITIONS.items())
def test_the_edition_changes_the_citation_and_not_the_figure(edition, section):
    """The same ampacity stands under another number in 2017."""
    found = steps(run(size=SAID.model_copy(update={"edition": edition})))

    assert found["ampacity_a"].rule.section == section
    assert found["conductor_size"].text == "10"


def test_an_edition_that_is_not_here():
    """Only editions whose tables ship are taken."""
    with pytest.raises(OutOfRangeError):
        edition_of(2011)


ROWS = table("430_250_induction").column("hp")
METALS = st.sampled_from(["cu", "al"])


@given(
    st.lists(st.integers(0, len(ROWS) - 1), min_size=2, max_size=2).map(sorted),
    METALS,
    st.sampled_from(["TW", "THWN", "THHN/THWN-2"]),
    st.sampled_from([60, 75, None]),
    st.integers(-10, 50),
    st.integers(1, 9),
)
def test_conductors_never_get_smaller_as_load_grows(rows, metal, insulation, lug, ambient, count):
    """For any metal, insulation, lug, ambient and count: more hp never takes a smaller size.

    An unread lug is the one step down the code itself makes: above 100 A the
    75 C column opens. There only sizes on one side of that line are compared.
    """
    size = SizeInputs(
        conductor_material=metal,
        insulation=insulation,
        termination_c=lug,
        ambient_c=str(ambient),
        current_carrying=count,
    )
    small, large = (steps(run(f"{ROWS[row]} HP 460 V 3 PH", size=size)) for row in rows)
    if "conductor_size" not in large:
        return
    if (
        lug is None
        and small["terminal_temperature_c"].value != large["terminal_temperature_c"].value
    ):
        return
    sizes = [found["conductor_size"].value for found in (small, large)]
    assert sizes[0] <= sizes[1]
    assert large["ampacity_a"].value >= large["required_ampacity_a"].value


def test_sizes_are_ordered_and_unknown_ones_refused():
    """18 AWG is the smallest, 2000 kcmil the largest."""
    sizes = [ConductorSize(size) for size in SIZES]

    assert sizes == sorted(sizes)
    assert str(sizes[0]) == "18 AWG"
    assert str(sizes[-1]) == "2000 kcmil"
    with pytest.raises(OutOfRangeError):
        ConductorSize("5/0")
    assert ConductorSize("14").__lt__("14") is NotImplemented


@pytest.mark.parametrize(
    ("text", "value"),
    [("38,6", "38.6"), ("1,250.5", "1250.5"), (".5", "0.5"), ("-3", "-3"), ("0,125", "0.125")],
)
def test_numbers_as_typed(text, value):
    """Comma or point; grouping only where it cannot be a decimal comma."""
    assert number(text, field="x") == Decimal(value)


@pytest.mark.parametrize("text", ["", "NaN", "inf", "1e9", "٣", "1,250", "12 34", "9" * 12])
def test_numbers_that_are_none(text):
    """No NaN, no infinity, no exponent, nothing that reads two ways."""
    with pytest.raises(ValueError, match=r"."):
        number(text, field="x")


@given(st.decimals(min_value=0, max_value=10**6, places=6))
def test_limits_are_shown_rounded_down_and_minima_up(value):
    """What is shown never oversteps a limit and never falls short of a minimum."""
    assert Decimal(show(value, "limit")) <= value <= Decimal(show(value, "minimum"))


def test_a_trail_refuses_steps_that_stand_on_nothing():
    """A step that uses an unknown one is a bug, and so is a text used as a number."""
    trail = Trail()
    with pytest.raises(KeyError):
        trail.add(
            Step(
                id="x",
                value="1",
                unit="",
                kind="read",
                shown="",
                working=Message("size.waits"),
                uses=("y",),
            )
        )
    trail.add(
        Step(id="x", value="1", unit="", kind="read", shown="", working=Message("size.waits"))
    )
    with pytest.raises(TypeError):
        trail.number("x")


def test_every_sentence_ends_as_a_sentence_or_is_a_label():
    """No sentence is empty, and none has an unbalanced gap."""
    for key, sentence in SENTENCES.items():
        assert sentence, key
        assert sentence.count("{") == sentence.count("}"), key
