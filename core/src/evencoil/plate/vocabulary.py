"""The words that stand on nameplates, by field.

Each field lists the word groups that name it, whether a figure or a letter
goes with it, and what is plausible. Sources: NEMA MG 1 and IEC 60034 plate
markings, NEC 430.7; common abbreviations.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

__all__ = ["ACCESSORIES", "FIELDS", "FIELD_BY_NAME", "FILLERS", "FLAGS", "NOTED", "Field"]

Shape = Literal["power", "bands", "figures", "count", "factor", "letter", "degrees", "percents"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Field:
    """How one field is stamped: its words, its shape, its plausible range."""

    name: str
    words: tuple[tuple[str, ...], ...]
    shape: Shape
    low: Decimal = Decimal(0)
    high: Decimal = Decimal(10) ** 6
    usual: tuple[Decimal, Decimal] | None = None
    letters: str = ""
    several: bool = False


def _words(text: str) -> tuple[tuple[str, ...], ...]:
    groups = (tuple(part.split()) for part in text.split("|"))
    return tuple(sorted(groups, key=len, reverse=True))


def _range(low: str, high: str) -> tuple[Decimal, Decimal]:
    return Decimal(low), Decimal(high)


FIELDS: tuple[Field, ...] = (
    Field(
        name="power_hp",
        words=_words("HP|H P|HORSEPOWER|HORSE POWER"),
        shape="power",
        high=Decimal(100000),
        usual=_range("0.05", "1000"),
        several=True,
    ),
    Field(
        name="power_kw",
        words=_words("KW|KILOWATT|KILOWATTS"),
        shape="figures",
        high=Decimal(100000),
        usual=_range("0.03", "800"),
        several=True,
    ),
    Field(
        name="volts_v",
        words=_words("V|VOLT|VOLTS|VOLTAGE|VAC|VOLTS AC|V AC|RATED VOLTAGE|VDC"),
        shape="bands",
        high=Decimal(20000),
        usual=_range("90", "7200"),
        several=True,
    ),
    Field(
        name="amps_a",
        words=_words(
            "A|AMP|AMPS|AMPERE|AMPERES|FLA|F L A|FL AMPS|FULL LOAD AMPS|FULL LOAD CURRENT|CURRENT"
        ),
        shape="bands",
        high=Decimal(20000),
        usual=_range("0.2", "2000"),
        several=True,
    ),
    Field(
        name="service_factor_amps_a",
        words=_words("SFA|S F A|SF AMPS|SERVICE FACTOR AMPS|AMPS AT SF|SF A"),
        shape="bands",
        high=Decimal(20000),
        several=True,
    ),
    Field(
        name="rated_load_amps_a",
        words=_words("RLA|R L A|RATED LOAD AMPS|RATED LOAD CURRENT"),
        shape="bands",
        high=Decimal(20000),
        several=True,
    ),
    Field(
        name="selection_amps_a",
        words=_words(
            "BCSC|B C S C|BRANCH CIRCUIT SELECTION CURRENT|BRANCH CKT SEL CURRENT|BC SEL AMPS"
        ),
        shape="bands",
        high=Decimal(20000),
        several=True,
    ),
    Field(
        name="locked_rotor_amps_a",
        words=_words("LRA|L R A|LOCKED ROTOR AMPS|LOCKED ROTOR CURRENT"),
        shape="bands",
        high=Decimal(100000),
        several=True,
    ),
    Field(
        name="speed_rpm",
        words=_words("RPM|R P M|R MIN|MIN|FULL LOAD RPM|SPEED|SPEED FULL LOAD|SPEED RPM"),
        shape="figures",
        high=Decimal(100000),
        usual=_range("200", "3650"),
        several=True,
    ),
    Field(
        name="frequency_hz",
        words=_words("HZ|HERTZ|CYCLE|CYCLES|CY|CPS|FREQ|FREQUENCY|FREQ HZ"),
        shape="figures",
        high=Decimal(1000),
        usual=_range("25", "60"),
        several=True,
    ),
    Field(
        name="phases",
        words=_words("PH|PHASE|PHASES|Φ|PHS"),
        shape="count",
        high=Decimal(3),
        usual=_range("1", "3"),
    ),
    Field(
        name="service_factor",
        words=_words("SF|S F|SERVICE FACTOR|SERV FACTOR|SER FACTOR|SVC FACTOR|SERV FACT"),
        shape="factor",
        high=Decimal(3),
        usual=_range("1", "1.5"),
    ),
    Field(
        name="code_letter",
        words=_words("CODE|KVA CODE|CODE LETTER|KVA CODE LETTER|CODE LTR|LR CODE|KVA"),
        shape="letter",
        letters="ABCDEFGHJKLMNPRSTUV",
    ),
    Field(
        name="design_letter",
        words=_words("DES|DESIGN|NEMA DESIGN|NEMA DES|DESIGN LETTER|DESIGN LTR|DSGN"),
        shape="letter",
        letters="ABCDE",
    ),
    Field(
        name="insulation_class",
        words=_words(
            "INS|INS CL|INS CLASS|INSCL|INSULATION|INSULATION CLASS|INSUL CLASS|CLASS|CL INS|INSUL|CL"
            "|ISO|ISO KL|ISOKL|IS KL|ISKL|TH CL|THCL|ISO CL|ISOCL"
        ),
        shape="letter",
        letters="ABEFHN",
    ),
    Field(
        name="ambient_c",
        words=_words(
            "AMB|AMBIENT|MAX AMB|MAX AMBIENT|AMB TEMP|AMBIENT TEMP|AMB MAX|AMBIENT TEMPERATURE"
        ),
        shape="degrees",
        low=Decimal(-60),
        high=Decimal(200),
        usual=_range("20", "65"),
    ),
    Field(
        name="temperature_rise_c",
        words=_words("RISE|TEMP RISE|TEMPERATURE RISE"),
        shape="degrees",
        high=Decimal(250),
        usual=_range("30", "145"),
    ),
    Field(
        name="leads",
        words=_words("LEADS|LEAD|NO OF LEADS|NUMBER OF LEADS|LDS"),
        shape="count",
        high=Decimal(36),
        usual=_range("2", "18"),
    ),
    Field(
        name="efficiency_percent",
        words=_words(
            "EFF|EFFICIENCY|NOM EFF|NEMA NOM EFF|NOMINAL EFFICIENCY|FL EFF|NEMA NOMINAL EFF|NEMA EFF"
        ),
        shape="percents",
        high=Decimal(100),
        usual=_range("30", "99"),
        several=True,
    ),
    Field(
        name="power_factor_percent",
        words=_words("PF|P F|POWER FACTOR|POWER FACT|COS Φ|COSΦ|COS PHI|COS"),
        shape="percents",
        high=Decimal(100),
        usual=_range("30", "100"),
        several=True,
    ),
)

#: every field under its name
FIELD_BY_NAME: Mapping[str, Field] = {field.name: field for field in FIELDS}

FLAGS: Mapping[tuple[str, ...], tuple[str, str]] = {
    words: (name, value)
    for name, value, text in (
        ("phases", "3", "THREE PHASE|3PH"),
        ("phases", "2", "TWO PHASE"),
        ("insulation_class", "A", "CLA"),
        ("insulation_class", "B", "CLB|CLASSB"),
        ("insulation_class", "F", "CLF|CLASSF"),
        ("insulation_class", "H", "CLH|CLASSH"),
        ("phases", "1", "SINGLE PHASE"),
        ("phases", "0", "DC|DIRECT CURRENT|D C"),
        ("duty", "continuous", "CONT|CONTINUOUS|CONT DUTY|DUTY CONT|CONTINUOUS DUTY"),
        ("duty", "continuous", "DUTY CONTINUOUS|TIME RATING CONT|RATING CONT|TIME CONT"),
        ("duty", "intermittent", "INTERMITTENT|INT DUTY|DUTY INT|INTERMITTENT DUTY"),
        ("thermal", "protected", "THERMALLY PROTECTED|THERMAL PROTECTION|THERMAL PROTECTOR"),
        ("thermal", "automatic", "AUTO PROTECTED"),
        ("premium", "yes", "PREMIUM EFFICIENCY|PREM EFF|PREMIUM EFF|NEMA PREMIUM"),
        ("premium", "yes", "ENERGY EFFICIENT|HIGH EFFICIENCY|PREMIUM"),
        ("words", "constant_torque", "CONSTANT TORQUE|CONST TORQUE|CONST TQ"),
        ("words", "variable_torque", "VARIABLE TORQUE|VAR TORQUE|VAR TQ"),
        ("words", "constant_power", "CONSTANT HORSEPOWER|CONSTANT HP|CONST HP|CONSTANT POWER"),
        ("words", "part_winding", "PART WINDING|PART WINDING START|PWS|PW START"),
        ("words", "wye_delta", "WYE DELTA|STAR DELTA|WYE START DELTA RUN|Y START D RUN"),
        ("words", "wye_delta", "STAR START DELTA RUN|WYE DELTA START|STAR DELTA START"),
        ("words", "wye_delta", "Y START|WYE START|STAR START"),
        ("enclosure", "TEFC", "TEFC"),
        ("enclosure", "TENV", "TENV"),
        ("enclosure", "TEAO", "TEAO"),
        ("enclosure", "ODP", "ODP|OPEN DRIPPROOF|DRIPPROOF|DP"),
        ("enclosure", "XP", "XP|EXPLOSION PROOF"),
    )
    for words in _words(text)
}

NOTED: tuple[tuple[str, ...], ...] = _words(
    "SER|SERIAL|SERIAL NO|SER NO|S N|MODEL|MODEL NO|CAT|CAT NO|CATALOG|STYLE|TYPE|ID|PART NO"
    "|FRAME|FR|FRAME SIZE|ENCL|ENCLOSURE|BRG|BEARING|BEARINGS|DE BRG|ODE BRG|DATE|WT|WEIGHT|SPEC"
    "|IP|IE|IC|IM|MTR|GREASE|HEATER|SPACE HEATER|DUTY|TIME|TIME RATING|USABLE AT"
    "|THERMOSTAT|THERMOSTATS|PTC|PTO|RTD|RTDS|TP|THERMISTOR|THERMISTORS|PT|INSULATED BEARING"
    "|WINDING RTD|BEARING RTD|CAP|CAPACITOR|MFD|ROTATION|ROT|ALT|ALTITUDE|DE|NDE|BALANCE"
)
#: what a noted piece says of devices in the motor, by its first word
ACCESSORIES: Mapping[str, str] = {
    "HEATER": "space_heater",
    "SPACE": "space_heater",
    "THERMOSTAT": "thermostat",
    "THERMOSTATS": "thermostat",
    "PTO": "thermostat",
    "PTC": "thermistor",
    "THERMISTOR": "thermistor",
    "THERMISTORS": "thermistor",
    "TP": "thermal_mark",
    "RTD": "rtd",
    "RTDS": "rtd",
    "PT": "rtd",
    "WINDING": "rtd",
    "INSULATED": "insulated_bearing",
    "CAP": "capacitor",
    "CAPACITOR": "capacitor",
}
FILLERS: frozenset[str] = frozenset(
    [
        "MOTOR",
        "MOT",
        "AUTO",
        "ONLY",
        "OHM",
        "W",
        "INDUCTION",
        "AC",
        "ELECTRIC",
        "NEMA",
        "SQUIRREL",
        "CAGE",
        "NOM",
        "MAX",
        "RATED",
        "RATING",
        "NO",
        "THE",
        "AND",
        "AT",
        "FOR",
        "C",
        "INVERTER",
        "DUTY",
        "CONN",
        "CONNECTION",
        "VOLTAGE",
        "PLATE",
        "NAMEPLATE",
        "POLYPHASE",
        "ARM",
        "ARMATURE",
        "ANKER",
        "STATOR",
        "LINE",
        "OUTPUT",
        "CLASS",
        "INS",
        "IS",
        "SUITABLE",
        "ON",
        "EITHER",
        "MIT",
        "MADE",
        "TO",
    ]
)
