"""Colors of power conductors: by line, by the plant's rule, and by what the code fixes."""

import pytest
from circuit_play import circuit_of, edited
from hypothesis import given
from hypothesis import strategies as st

from evencoil.circuit.line_of import lines_of_nets
from evencoil.circuit.numbering import number_nets
from evencoil.circuit.wirelist import wire_rows
from evencoil.codebook.profile import Profile
from evencoil.starters.catalogue import catalogue


def colors(circuit, **rules):
    """Return each wire of a circuit, as its two ends, with its color."""
    rows = wire_rows(circuit, number_nets(circuit), Profile(**rules))
    return {(row.start, row.end): row.color for row in rows}


def test_the_lines_have_the_plants_colors_to_the_motor():
    """480 V by brown, orange, yellow: from the breaker through contactor and relay."""
    found = colors(circuit_of("3A"), phase_colors="brown_orange_yellow")
    for pair, color in (
        (("QF1.2", "KM1.1L1"), "brown"),
        (("QF1.4", "KM1.3L2"), "orange"),
        (("KM1.6T3", "OL1.5L3"), "yellow"),
        (("OL1.2T1", "M1.U1"), "brown"),
        (("OL1.4T2", "M1.V1"), "orange"),
    ):
        assert found[pair] == color


def test_behind_the_reversing_contactor_the_forward_lines_count():
    """The wire from KR 2T1 lies on KF 6T3 and the third heater: it is the third line's."""
    found = colors(circuit_of("6A"), phase_colors="brown_black_gray")
    assert found["KR.2T1", "KF.6T3"] == "gray"
    assert found["KR.6T3", "KF.2T1"] == "brown"
    assert found["KR.4T2", "KF.4T2"] == "black"


@pytest.mark.parametrize("rule", ["plain", "black_red_blue"])
def test_a_high_leg_is_orange_and_a_grounded_line_white(rule):
    """110.15 and 200.6 hold whatever the plant has chosen."""
    high = colors(edited(circuit_of("3A"), "set SUP system=high_leg"), phase_colors=rule)
    assert high["QF1.4", "KM1.3L2"] == "orange"
    corner = colors(edited(circuit_of("3A"), "set SUP system=corner"), phase_colors=rule)
    assert corner["QF1.4", "KM1.3L2"] == "white"
    assert corner["QF1.2", "KM1.1L1"] == "black"


@given(st.sampled_from(sorted(catalogue())))
def test_no_net_is_two_lines(name):
    """Every net of every circuit has one line at most, and the supply's own are its own."""
    circuit = circuit_of(name)
    nets, lines = circuit.netlist.nets(), lines_of_nets(circuit)
    for line in ("L1", "L2", "L3"):
        if f"supply.{line}" in nets:
            assert lines[nets[f"supply.{line}"]] == line
