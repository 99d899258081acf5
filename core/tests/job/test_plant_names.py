"""The plant's own names: star or wye, R or L1, K or KM. What a person typed never changes."""

from collections import Counter
from string import Formatter

import pytest

from evencoil.base import Message, Names, in_trade_terms, names_of, say, speaking
from evencoil.base.sentences import ALL_SENTENCES
from evencoil.circuit import read_trace, renamed
from evencoil.codebook import Profile
from evencoil.job import JobInputs, work_out
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.starters import StarterInputs, catalogue

NINE = "10 HP 208-230/460 V 28-26/13 A 1760 RPM 60 HZ 3 PH SF 1.15 9 LEADS"
IEC = Profile(device_names="iec_k", trade_terms="iec", line_names="R-Y-B")


def job(profile=None, circuit="3A", naming=None, supply="480Y/277"):
    """Return a job calculated under plant rules."""
    return work_out(
        JobInputs(
            plate=PlateInputs(text=NINE),
            supply=SupplyInputs(text=supply),
            starter=StarterInputs(standard_circuit=circuit, naming=naming),
        ),
        profile,
    )


#: contactor by its role, the older IEC letters: main K1; forward, reverse K1, K2; star K3, delta K2
LETTERS = {
    "3A": {"main": "K1"},
    "6A": {"forward_contactor": "K1", "reverse_contactor": "K2"},
    "7A": {"main": "K1", "delta": "K2", "star": "K3"},
    "11C": {"low_contactor": "K1", "high_contactor": "K2"},
}


@pytest.mark.parametrize("circuit", LETTERS)
def test_contactors_are_k_by_the_plants_rule(circuit):

    tags = renamed(catalogue()[circuit].circuit, "iec_k")
    assert {name: tags[name] for name in LETTERS[circuit]} == LETTERS[circuit]


@pytest.mark.parametrize("circuit", catalogue())
def test_no_tag_twice_in_any_style(circuit):

    for style in ("iec", "iec_k", "nema"):
        tags = renamed(catalogue()[circuit].circuit, style)
        assert max(Counter(tags.values()).values()) == 1, style
        assert set(tags) == {item.id for item in catalogue()[circuit].circuit.netlist.devices}


def test_the_jobs_own_letters_go_before_the_plants():
    assert job(IEC).starter.circuit.tags["main"] == "K1"
    assert job(IEC, naming="iec").starter.circuit.tags["main"] == "KM1"
    assert job(IEC, naming="nema").starter.circuit.tags["main"] == "M"
    assert job().starter.circuit.tags["main"] == "KM1"


def test_lines_are_named_as_the_plant_names_them():
    """The supply's own terminals; a contactor's 1L1 is printed on it and stays."""
    worked = job(IEC)
    with speaking(IEC.names):
        rows = [(row.start, row.end) for row in worked.starter.rows()]
    ends = {end for pair in rows for end in pair}
    assert {"SUP.R", "SUP.Y", "SUP.B"} <= ends
    assert not {"SUP.L1", "SUP.L2", "SUP.L3"} & ends
    assert "K1.1L1" in ends


def test_a_traced_wire_is_understood_in_either_name():
    circuit = job(IEC).starter.circuit
    with speaking(IEC.names):
        by_name = read_trace(circuit, "SUP R - QS1 1")
        by_line = read_trace(circuit, "SUP L1 - QS1 1")
    assert by_name == by_line


@pytest.mark.parametrize(
    ("message", "says"),
    [
        (Message("connection.wye"), "star"),
        (Message("group.star_delta"), "Reduced-voltage start: star-delta"),
        (Message("type.cb3"), "circuit breaker (MCB, MCCB)"),
        (
            Message("control_supply.made_leg", {"leg": "L2"}),
            None,
        ),
    ],
)
def test_sentences_follow(message, says):
    with speaking(IEC.names):
        said = say(message)
    if says is None:
        assert "Y" in said
        assert "L2" not in said
    else:
        assert said == says


def test_what_a_person_typed_is_not_translated():
    """A reason that speaks of wye and L1 stays as it was written."""
    typed = "wye as found, L1 marked by hand"
    with speaking(IEC.names):
        said = say(Message("restart.accepted", {"hazard": "x", "by": "wye", "why": typed}))
    assert typed in said


def test_every_sentence_keeps_its_gaps():
    """No gap of a sentence is taken for a word."""

    def gaps(text):
        return [(name, spec) for _, name, spec, _ in Formatter().parse(text) if name is not None]

    with speaking(IEC.names):
        for key, text in ALL_SENTENCES.items():
            assert [n for n, _ in gaps(in_trade_terms(text))] == [n for n, _ in gaps(text)], key


def test_names_end_with_the_answer():
    """One plant's names never reach another's answer."""
    job(IEC)
    assert names_of() == Names()
    assert say(Message("connection.wye")) == "wye"


def test_names_change_no_figure():
    """Every figure and every finding's rule is the same under either names."""
    one, other = job(), job(IEC)
    assert [(step.id, step.value) for step in one.trail] == [
        (step.id, step.value) for step in other.trail
    ]
    assert [(item.code, item.level) for item in one.starter.findings] == [
        (item.code, item.level) for item in other.starter.findings
    ]
