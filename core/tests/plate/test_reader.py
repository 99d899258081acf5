"""Plates as stamped, half-filled nameplates, contradictions, and rubbish."""

from decimal import Decimal

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from evencoil.base.errors import CoreError
from evencoil.base.words import say
from evencoil.plate.model import Assumed, Band
from evencoil.plate.reader import MAX_LENGTH, read

IC_2 = (
    "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, "
    "40 C AMB, 9 LEADS"
)


def said(text, level):
    """Return the codes of a level that a nameplate's checks gave."""
    return {found.code for found in read(text).findings if found.level == level}


@pytest.mark.parametrize(
    "text",
    [
        IC_2,
        "HP 15 V 230/460 A 38.6/19.3 RPM 1765 HZ 60 PH 3 SF 1.15 CODE G DES B AMB 40 C LEADS 9",
        "hp: 15\nvolts: 230/460\namps: 38,6/19,3\nrpm: 1765\nhz: 60\nphase: 3\ns.f.: 1,15\n"
        "kva code: g\nnema design: b\nmax amb: 40°C\nleads: 9",
        "15HP 230V/460V 38.6A/19.3A 1765RPM 60HZ THREE PHASE 1.15 SF CODE G DESIGN B 40C AMB 9 LEAD",
        "HP\n15\nVOLTS\n230/460\nAMPS\n38.6/19.3\nR.P.M.\n1765\nHZ\n60\nPH\n3\nSF\n1.15\nCODE\nG\n"
        "DES\nB\nAMB\n40C\nLEADS\n9",
    ],
    ids=["figure first", "word first", "colons and commas", "no spaces", "table"],
)
def test_one_plate_stamped_in_many_ways(text):
    """The same motor reads the same, whichever way it is stamped."""
    reading = read(text)
    plate = reading.plate

    assert plate.power_hp == (Decimal(15),)
    assert plate.volts_v == (Band(Decimal(230), Decimal(230)), Band(Decimal(460), Decimal(460)))
    assert [band.low for band in plate.amps_a] == [Decimal("38.6"), Decimal("19.3")]
    assert (plate.speed_rpm, plate.frequency_hz) == ((Decimal(1765),), (Decimal(60),))
    assert (plate.phases, plate.service_factor, plate.leads) == (3, Decimal("1.15"), 9)
    assert (plate.code_letter, plate.design_letter, plate.ambient_c) == ("G", "B", Decimal(40))
    assert {token.status for token in reading.tokens} == {"understood"}
    assert not reading.missing


@pytest.mark.parametrize(
    ("text", "field", "value"),
    [
        ("7-1/2 HP", "power_hp", (Decimal("7.5"),)),
        ("7 1/2 HP", "power_hp", (Decimal("7.5"),)),
        ("7½ HP", "power_hp", (Decimal("7.5"),)),
        ("½ HP", "power_hp", (Decimal("0.5"),)),
        ("1/3 HP", "power_hp", (Decimal("0.3333"),)),
        ("10/5 HP", "power_hp", (Decimal(10), Decimal(5))),
        ("1/10 HP", "power_hp", (Decimal("0.1"),)),
        ("0.1 HP", "power_hp", (Decimal("0.1"),)),
        ("1/4 HP 2 SPEED", "power_hp", (Decimal(1), Decimal(4))),
        ("2/1/4 HP", "power_hp", (Decimal(2), Decimal(1), Decimal(4))),
        ("RPM 1,750", "speed_rpm", (Decimal(1750),)),
        ("11 kW", "power_kw", (Decimal(11),)),
        (
            "208-230/460 V",
            "volts_v",
            (Band(Decimal(208), Decimal(230)), Band(Decimal(460), Decimal(460))),
        ),
        (
            "220-240 D / 380-415 Y V",
            "volts_v",
            (Band(Decimal(220), Decimal(240), "D"), Band(Decimal(380), Decimal(415), "Y")),
        ),
        (
            "230Δ/400Y V",
            "volts_v",
            (Band(Decimal(230), Decimal(230), "D"), Band(Decimal(400), Decimal(400), "Y")),
        ),
        (
            "5.90-6.50 / 3.40-3.75 A",
            "amps_a",
            (Band(Decimal("5.90"), Decimal("6.50")), Band(Decimal("3.40"), Decimal("3.75"))),
        ),
        ("COS φ 0.84", "power_factor_percent", (Decimal(84),)),
        ("EFF 91.7", "efficiency_percent", (Decimal("91.7"),)),
        ("THERMALLY PROTECTED", "is_thermally_protected", True),
        ("SINGLE PHASE", "phases", 1),
        ("INS CL F", "insulation_class", "F"),
        ("CONT", "duty", "continuous"),
        ("CONN YY/Y", "connection_signs", ("YY", "Y")),
        ("80 C RISE", "temperature_rise_c", Decimal(80)),
    ],
)
def test_stamped_forms(text, field, value):
    """Each stamped form is read to its value."""
    assert getattr(read(text).plate, field) == value


def test_half_filled_plate_says_what_is_missing_and_what_it_costs():
    """A nameplate with hp and volts only is read; each gap tells its cost."""
    reading = read("15 HP 460 V")

    assert [gap.field for gap in reading.missing] == [
        "amps_a",
        "phases",
        "frequency_hz",
        "speed_rpm",
        "service_factor",
        "code_letter",
        "design_letter",
        "leads",
    ]
    assert say(reading.missing[0].cost) == "No amps: the overload cannot be set."


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("230/460 V 38.6/20.3 A 3 PH", "amps.ratio"),
        ("230/460 V 19.3/38.6 A 3 PH", "amps.order"),
        ("1850 RPM 60 HZ", "speed"),
        ("230/460 V 3 LEADS 3 PH", "leads.few"),
        ("230/460 V 11 LEADS 3 PH", "leads.other"),
        ("220/277 V", "volts.ratio"),
        ("230/460 V 38.6 A", "amps.one"),
        ("15 HP 460 V 10 A 3 PH", "amps.power_low"),
        ("15 HP 460 V 193 A 3 PH", "amps.power_high"),
        ("15 HP 460 V 19.3 A 3 PH EFF 92 PF 95", "amps.power_other"),
        ("15 HP 15 KW", "power.two"),
        ("15 HP 20 HP", "out_of_range"),
        ("-15 HP", "out_of_range"),
        ("0 V", "out_of_range"),
        ("HP 1,750", "ambiguous"),
        ("2.5 PH", "out_of_range"),
    ],
)
def test_contradictions_are_named_not_refused(text, code):
    """A doubt has a sentence with both figures, a next step, and lights its token."""
    reading = read(text)
    doubt = next(found for found in reading.findings if found.level == "doubt")

    assert doubt.code == code
    assert say(doubt.message)
    assert doubt.hint is not None
    assert say(doubt.hint)
    assert any(token.status == "doubted" for token in reading.tokens)


@pytest.mark.parametrize(
    ("text", "code"),
    [
        (IC_2, "amps.agrees"),
        (IC_2, "code"),
        (IC_2, "leads.two"),
        (IC_2, "speed.agrees"),
        ("220-240 D / 380-415 Y V", "volts.root3"),
        ("11 KW 15 HP", "power.agrees"),
        ("15 HP 460 V 19.3 A 3 PH EFF 90.2 PF 80.5", "amps.power_agrees"),
        ("5 HP 460 V CODE V 3 PH", "code.open"),
    ],
)
def test_agreements(text, code):
    """What fits together is said to fit."""
    assert code in said(text, "agrees")


def test_code_letter_against_hand_work():
    """Code G, 15 hp, 460 V: 5.6 and 6.29 kVA/hp x 15 / (1.732 x 0.46) = 105.4 and 118.4 A."""
    found = next(item for item in read(IC_2).findings if item.code == "code")

    assert say(found.message) == "Code G: 105.43 to 118.41 A locked-rotor current at 460 V."


def test_assumed_fields_fill_gaps_and_never_overrule_the_plate():
    """A guess goes in where the nameplate is silent, and is remembered as a guess."""
    guess = Assumed(field="amps_a", value="19,3", reason="old sticker")
    reading = read("15 HP 460 V", [guess, Assumed(field="power_hp", value="20", reason="")])

    assert reading.plate.power_hp == (Decimal(15),)
    assert reading.plate.amps_a[0].low == Decimal("19.3")
    assert reading.assumed == (guess,)
    assert reading.is_assumed("amps_a")
    assert not reading.is_assumed("power_hp")


@pytest.mark.parametrize(
    ("text", "assumed"),
    [
        ("x" * (MAX_LENGTH + 1), []),
        ("15 HP\x00", []),
        ("15 HP \ud800", []),
        ("15 HP", [Assumed(field="color", value="red", reason="")]),
        ("15 HP", [Assumed(field="code_letter", value="I", reason="")]),
        ("15 HP", [Assumed(field="amps_a", value="1,250", reason="")]),
    ],
)
def test_what_is_no_plate_is_refused_whole(text, assumed):
    """Too long, control characters, surrogates, impossible guesses: one clear error."""
    with pytest.raises(CoreError) as caught:
        read(text, assumed)

    assert caught.value.problem()["hint"]


WORDS = st.sampled_from(
    [
        "HP",
        "V",
        "A",
        "RPM",
        "HZ",
        "PH",
        "SF",
        "CODE",
        "DES",
        "AMB",
        "C",
        "LEADS",
        "D",
        "Y",
        "/",
        "-",
        ",",
        "\n",
        "½",
        "1,250",
        "230/460",
        "38.6",
        "7-1/2",
        "-1",
        "0",
        "9e9",
        "KW",
    ]
)


@given(st.one_of(st.text(max_size=200), st.lists(WORDS, max_size=25).map(" ".join)))
@example("1/0 HP")
@example("V/460 D/Y 0,0,0")
@example("٣ HP 460 V")
def test_the_reader_never_raises_anything_but_its_own_errors(text):
    """Any text is read, or refused with a CoreError; tokens lie in order inside the text."""
    try:
        reading = read(text)
    except CoreError as error:
        assert error.problem()["detail"]
        return
    places = [place for token in reading.tokens for place in (token.start, token.end)]
    assert places == sorted(places)
    assert all(token.text == text[token.start : token.end] for token in reading.tokens)
    for found in reading.findings:
        assert say(found.message)
        assert found.hint is None or say(found.hint)


HORSEPOWER = st.sampled_from(["1/2", "3/4", "1", "1-1/2", "5", "7-1/2", "15", "40", "150"])
PAIRS = st.sampled_from(["230/460", "208-230/460", "460", "575", "230"])


@given(
    HORSEPOWER, PAIRS, st.sampled_from([1160, 1750, 3500]), st.booleans(), st.permutations(range(5))
)
def test_order_and_orientation_do_not_matter(power, volts, rpm, is_word_first, order):
    """Whatever the order of the fields and the side of the unit, the values are the same."""
    pairs = [("HP", power), ("V", volts), ("RPM", str(rpm)), ("PH", "3"), ("HZ", "60")]
    parts = [f"{word} {text}" if is_word_first else f"{text} {word}" for word, text in pairs]
    plain = read(", ".join(parts)).plate
    mixed = read(", ".join(parts[place] for place in order)).plate

    assert mixed == plain
    assert plain.phases == 3
    assert plain.speed_rpm == (Decimal(rpm),)
    assert len(plain.power_hp) == 1


def test_a_compressors_plate_is_recognised_and_noted():
    """Rated-load and locked-rotor amps, no horsepower: Article 440, said and not doubted."""
    reading = read("RLA 12.4 LRA 70 BCSC 14 230 V 3 PH 60 HZ")

    assert reading.plate.is_hermetic
    assert str(reading.plate.selection_amps_a[0]) == "14"
    note = next(found for found in reading.findings if found.code == "hermetic")
    assert note.level == "note"
    assert not [found for found in reading.findings if found.level == "doubt"]


@pytest.mark.parametrize(
    ("text", "volts"),
    [
        ("7.5 KW 400 V D 690 V Y 14.3/8.3 A", [("400", "D"), ("690", "Y")]),
        ("5 HP 230 V 460 V 12/6 A", [("230", ""), ("460", "")]),
    ],
)
def test_voltages_stamped_side_by_side_are_columns(text, volts):
    """Each has its own sign, or the amps have an entry for each."""
    reading = read(text)

    assert [(str(band.low), band.sign) for band in reading.plate.volts_v] == volts
    assert not [found for found in reading.findings if found.level == "doubt"]


def test_two_voltages_with_one_current_stay_a_contradiction():
    """Nothing tells which of them the one current belongs to."""
    reading = read("5 HP 230 V 460 V 12 A")

    assert [str(band.low) for band in reading.plate.volts_v] == ["230"]
    assert any("contradicts" in str(found.message) for found in reading.findings)
