"""Elements, leads, thermistors, monitors, and what a pair of leads is: by table and by hand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from logic_play import of_class

from evencoil.base import CoreError
from evencoil.sensors import (
    ELEMENTS,
    BearingEnd,
    Channel,
    LeadReadings,
    Monitor,
    ThermistorRelay,
    celsius_of,
    element_ohms,
    loop_flows,
    ohms_of,
    thermistor_ohms,
    what_is_it,
)


def named(case):
    """Return what a case is called in a report."""
    return case["id"]


@pytest.mark.parametrize("case", of_class("ohms"), ids=named)
def test_ohms_at_a_temperature(case):
    """As the tables have them."""
    found = ohms_of(case["element"], case["celsius"])
    assert found == pytest.approx(case["ohms"], abs=case["tolerance"])


@pytest.mark.parametrize("case", of_class("celsius"), ids=named)
def test_temperature_of_ohms(case):
    """Leads taken off first; outside of the table it is refused."""
    ohms = case.get("ohms")
    if "leads" in case:
        told = case["leads"]
        read = {name[1:].lower(): value for name, value in told.items() if name.startswith("R")}
        ohms, _ = element_ohms(LeadReadings(wires=told["wires"], **read))
        assert ohms == pytest.approx(case["element_ohms"], abs=1e-6)
    if case.get("refused"):
        with pytest.raises(CoreError):
            celsius_of(case["element"], ohms)
        return
    found = celsius_of(case["element"], ohms)
    assert found == pytest.approx(case["celsius"], abs=case["tolerance"])


@pytest.mark.parametrize(
    ("celsius", "ohms"),
    # IEC 60751's own table
    [(-200, 18.52), (-100, 60.26), (0, 100.0), (100, 138.51), (200, 175.86), (850, 390.48)],
)
def test_platinum_by_its_table(celsius, ohms):
    """Pt100, and Pt1000 ten times as much."""
    assert ohms_of("Pt100", celsius) == pytest.approx(ohms, abs=0.006)
    assert ohms_of("Pt1000", celsius) == pytest.approx(10 * ohms, abs=0.06)


@given(name=st.sampled_from(sorted(ELEMENTS)), part=st.floats(0, 1))
def test_there_and_back(name, part):
    """Temperature to ohms to temperature."""
    known = ELEMENTS[name]
    celsius = known.least_c + part * (known.most_c - known.least_c)
    assert celsius_of(name, ohms_of(name, celsius)) == pytest.approx(celsius, abs=1e-6)


@given(
    element=st.floats(20, 400),
    leads=st.tuples(*[st.floats(0, 20)] * 4),
)
def test_leads_come_off(element, leads):
    """Four wires are exact; three where the third lead is the mean of the two."""
    a, b, c, d = leads
    four = LeadReadings(
        wires=4,
        ac=a + element + c,
        bc=b + element + c,
        ad=a + element + d,
        bd=b + element + d,
        ab=a + b,
        cd=c + d,
    )
    assert element_ohms(four)[0] == pytest.approx(element, abs=1e-6)
    mean = (a + b) / 2
    three = LeadReadings(wires=3, ac=a + element + mean, bc=b + element + mean, ab=a + b)
    assert element_ohms(three)[0] == pytest.approx(element, abs=1e-6)
    two = LeadReadings(wires=2, ac=a + element + c, loop=a + c)
    assert element_ohms(two)[0] == pytest.approx(element, abs=1e-6)


def test_without_a_reading_the_leads_stay_in():
    """It says which one is missing."""
    with pytest.raises(CoreError) as refused:
        element_ohms(LeadReadings(wires=4, ac=100.0))
    assert refused.value.field == "bc"


@pytest.mark.parametrize("case", of_class("ptc-relay"), ids=named)
def test_a_thermistor_relay(case):
    """Trip, too hot to reset, reset, short."""
    relay = ThermistorRelay()
    states = [relay.look(step["ohms"], is_reset=step.get("reset", False)) for step in case["steps"]]
    assert states == case["states"]


@pytest.mark.parametrize(
    ("kelvin", "least", "most"),
    # IEC 60947-8, three in series
    [(-20, 0, 750), (-5, 0, 1650), (5, 3990, 30000), (15, 12000, 30000)],
)
def test_thermistors_keep_to_their_limits(kelvin, least, most):
    """At the four temperatures that the standard names."""
    assert least <= thermistor_ohms(kelvin) <= most


@pytest.mark.parametrize("case", of_class("what"), ids=named)
def test_what_a_pair_of_leads_is(case):
    """Every kind that fits."""
    heater = case.get("heater", {})
    told = what_is_it(case["ohms"], case["ambient"], heater.get("volts"), heater.get("watts"))
    assert sorted(one.kind for one in told.fits) == sorted(case["fits"])
    assert len(told.next) >= 2


@pytest.mark.parametrize(
    ("ohms", "kinds"), [(0.3, {"thermostat closed"}), (float("inf"), {"thermostat open"})]
)
def test_a_contact_is_a_contact(ohms, kinds):
    """Closed or open, and nothing else."""
    assert {one.kind for one in what_is_it(ohms, 25).fits} == kinds


@pytest.mark.parametrize("case", of_class("probe"), ids=named)
def test_a_plain_probe_closes_the_loop(case):
    """As the case has it."""
    ends = [
        BearingEnd(bearing=one["bearing"], probe=one.get("probe", "none")) for one in case["ends"]
    ]
    assert loop_flows(*ends) is case["flows"]


@pytest.mark.parametrize(
    ("bearing", "probe", "flows"),
    [
        ("outer ring", "insulated", False),
        ("outer ring", "failed", True),
        ("housing", "plain", True),
        ("ceramic", "plain", False),
        ("inner ring", "plain", False),
        ("outer ring", "none", False),
    ],
)
def test_where_insulation_is_bridged(bearing, probe, flows):
    """Outside of the tip it is, inside it is not; the other end is plain."""
    assert (
        loop_flows(BearingEnd(bearing="plain"), BearingEnd(bearing=bearing, probe=probe)) is flows
    )


def monitor(votes=1, **more):
    """Return a monitor of three Pt100, alarm 130 and trip 155."""
    one = Channel(element="Pt100", alarm_c=130, trip_c=155)
    return Monitor(channels=(one,) * 3, votes=votes, **more)


def at(*degrees):
    """Return the ohms of Pt100s at temperatures; a text is a failure."""
    return [
        {"open": float("inf"), "short": 2.0}.get(one) or ohms_of("Pt100", one) for one in degrees
    ]


def test_an_alarm_goes_back_and_a_trip_stays():
    """Back 2 K below; the trip only by reset, and only when it is cooler."""
    watch = monitor()
    assert not watch.look(at(120, 120, 120)).is_alarm
    assert watch.look(at(130, 120, 120)).is_alarm
    assert watch.look(at(128.5, 120, 120)).is_alarm
    assert not watch.look(at(127.5, 120, 120)).is_alarm
    assert watch.look(at(156, 120, 120)).is_trip
    assert watch.look(at(156, 120, 120), is_reset=True).is_trip
    assert watch.look(at(140, 120, 120)).is_trip
    assert not watch.look(at(140, 120, 120), is_reset=True).is_trip


@pytest.mark.parametrize(
    ("votes", "failure_trips", "degrees", "is_trip"),
    [
        (2, True, (156, 120, 120), False),
        (2, True, (156, 156, 120), True),
        # a failed one votes
        (2, True, (156, "open", 120), True),
        # or only alarms: two healthy ones, two votes
        (2, False, (156, "open", 120), False),
        (3, False, (156, "open", 156), True),
        (1, True, ("short", 120, 120), True),
    ],
)
def test_votes(votes, failure_trips, degrees, is_trip):
    """So many over their trip, failed ones as it is set."""
    state = monitor(votes, failure_trips=failure_trips).look(at(*degrees))
    assert state.is_trip is is_trip
    assert state.is_alarm is (any(isinstance(one, str) or one >= 130 for one in degrees))
