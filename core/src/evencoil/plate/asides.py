"""What stands on a nameplate beside the motor's own rating.

A heater has volts, a brake amps, a duty cycle minutes, a rotor a voltage of its own: read as
the motor's, each gives a wrong size. This module takes such pieces out of the text before the
rating is read, and keeps what they say.

Sources: NEMA MG 1 and IEC 60034-1 nameplate markings, IEC 60034-1 duty types, NEC 430.7, 440.4,
IEC 60034-11 (TP marks), usual abbreviations of the trade.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

__all__ = ["Aside", "set_aside"]

_N = r"\d+(?:[.,]\d+)?"
_LIST = rf"{_N}(?:\s*/\s*{_N})*"
_GAP = r"[ \t]*"
_SIGN = r"(?:ΔΔ|Δ|DD|D|YY|Y)"


@dataclass(frozen=True, slots=True)
class Aside:
    """A stretch of the text that is not the rating: where, and what it says."""

    start: int
    end: int
    facts: tuple[tuple[str, Any], ...]


Take = Callable[[re.Match[str]], list[tuple[str, Any]]]


def _number(text: str) -> Decimal:
    return Decimal(text.replace(",", "."))


def _fact(*facts: tuple[str, Any]) -> Take:
    return lambda _: list(facts)


def _device(kind: str) -> Take:
    return _fact(("accessory", kind))


def _usable(hit: re.Match[str]) -> list[tuple[str, Any]]:
    return [("usable", (_number(hit["volts"]), _number(hit["amps"]) if hit["amps"] else None))]


def _winding_of(name: str) -> Take:
    """Return what takes volts, amps and ohms out of the text behind a marker such as ROTOR."""

    def take(hit: re.Match[str]) -> list[tuple[str, Any]]:
        found: list[tuple[str, Any]] = []
        for unit, words in (
            ("v", r"V(?:OLTS?)?(?:DC)?"),
            ("a", r"A(?:MPS?|MPERES?)?"),
            ("ohm", r"OHMS?|Ω"),
        ):
            rest = hit[0]
            said = re.search(
                rf"(?:(?<![A-Z\d])(?:{words}){_GAP}(?P<after>{_LIST}(?:-{_N})?)"
                rf"|(?P<before>{_LIST}(?:-{_N})?){_GAP}(?:{words})(?![A-Z]))",
                rest,
            )
            if said:
                values = re.split(r"[/-]", said["before"] or said["after"])
                found.append((f"{name}_{unit}", tuple(_number(value.strip()) for value in values)))
        return found or [(name, "")]

    return take


def _drive_range(hit: re.Match[str]) -> list[tuple[str, Any]]:
    if hit.groupdict().get("ratio"):
        return [("drive_range", (hit["kind"], None, None, _number(hit["ratio"])))]
    kind = hit.groupdict().get("kind") or ""
    return [("drive_range", (kind, _number(hit["low"]), _number(hit["high"]), None))]


def _duty(hit: re.Match[str]) -> list[tuple[str, Any]]:
    kind = f"S{hit['type']}"
    if kind == "S1":
        return [("duty", "continuous")]
    if hit["percent"]:
        return [("duty", f"{kind} {hit['percent']} %")]
    return [("duty", f"{kind} {hit['minutes']} min" if hit["minutes"] else kind)]


def _minutes(hit: re.Match[str]) -> list[tuple[str, Any]]:
    return [("duty", f"{hit['minutes']} min")]


def _altitude(hit: re.Match[str]) -> list[tuple[str, Any]]:
    unit = "ft" if hit["unit"].startswith(("F", "'")) else "m"
    return [("altitude", (_number(hit["value"]), unit))]


def _mark(name: str) -> Take:
    return lambda hit: [("mark", (name, " ".join(hit[0].split())))]


def _ie(hit: re.Match[str]) -> list[tuple[str, Any]]:
    facts: list[tuple[str, Any]] = [("mark", ("ie", f"IE{hit['class']}"))]
    if hit["percent"]:
        facts.append(("efficiency_percent", (_number(hit["percent"]),)))
    return facts


def _ampacity(name: str) -> Take:
    return lambda hit: [(name, _number(hit["value"]))]


def _sign_of(hit: re.Match[str]) -> list[tuple[str, Any]]:
    said = hit["sign"]
    return [("one_sign", {"DELTA": "D", "STAR": "Y", "WYE": "Y"}.get(said, said.replace("Δ", "D")))]


def _signs_of(hit: re.Match[str]) -> list[tuple[str, Any]]:
    signs = re.split(r"\s*/\s*", hit["signs"].replace("Δ", "D"))
    return [("connection_signs", tuple(signs))]


def _poles(hit: re.Match[str]) -> list[tuple[str, Any]]:
    said = hit["after"] or hit["before"]
    return [("poles", tuple(int(pole) for pole in re.split(r"\s*/\s*", said)))]


def _rise(hit: re.Match[str]) -> list[tuple[str, Any]]:
    return [("insulation_class", hit["class"])]


def _codes(hit: re.Match[str]) -> list[tuple[str, Any]]:
    return [("code_letters", (hit["first"], hit["second"]))]


def _compressor_limits() -> Iterator[tuple[str, Take]]:
    value = rf"{_GAP}[:=]?{_GAP}(?P<value>{_N})(?:{_GAP}A(?:MPS?|MPERES)?(?![A-Z]))?"
    mca = r"M\.?C\.?A\.?|MIN(?:\.|IMUM)?\s+(?:CIRCUIT|CKT\.?|CIR\.?)\s+AMP(?:ACITY|\.|S)?"
    device = r"(?:OVERCURRENT|OVER-CURRENT|FUSE|BREAKER|CKT\.?\s*BKR|CIRCUIT\s+BREAKER|HACR)"
    mocp = (
        rf"M\.?O\.?C?\.?P\.?D?\.?|MAX(?:\.|IMUM)?\s+(?:TIME\s+DELAY\s+)?{device}"
        r"(?:\s*(?:OR|/)\s*(?:HACR\s+)?(?:BREAKER|CKT\.?\s*BKR))?"
        r"(?:\s+(?:PROTECTI(?:ON|VE)|DEVICE|SIZE|RATING|PROT\.?))*"
    )
    yield rf"(?<![A-Z])(?:{mca}){value}", _ampacity("minimum_circuit_ampacity_a")
    yield rf"(?<![A-Z])(?:{mocp}){value}", _ampacity("maximum_overcurrent_a")
    yield r"(?<![A-Z])FAN\s+MOTORS?\b[^\n;]*", _fact(("part", "fan motor"))


def _accessories() -> Iterator[tuple[str, Take]]:
    volts = rf"(?:{_GAP},?{_GAP}{_LIST}{_GAP}(?:VAC|VDC|VOLTS?|V)(?:{_GAP}(?:AC|DC))?(?![A-Z]))?"
    watts = rf"(?:{_GAP},?{_GAP}{_N}{_GAP}(?:WATTS?|W|KW)(?![A-Z]))?"
    amps = rf"(?:{_GAP},?{_GAP}{_N}{_GAP}(?:AMPS?|A)(?![A-Z]))?"
    leads = r"(?:\b[HP]\d{1,2}\s*[-/,]\s*[HP]\d{1,2}\s*:?\s*)?"
    phase = rf"(?:{_GAP}1{_GAP}(?:PH|φ|PHASE)(?![A-Z]))?"
    yield (
        rf"{leads}\b(?:SPACE\s+)?HEATERS?(?!\w)[:=]?{volts}{watts}{volts}{amps}{phase}",
        _device("space_heater"),
    )
    yield (
        rf"\b(?:SPRING[- ]SET\s+)?BRAKE\b[^\n;]*?{_N}{_GAP}(?:LB-?FT|FT-?LB|NM|N·M){volts}{amps}",
        _device("brake"),
    )
    yield rf"\bBRAKE\b[:=]?{volts}{amps}{watts}", _device("brake")
    yield (
        (
            rf"\b(?:ENCODER|TACHO(?:METER|GENERATOR)?|RESOLVER)\b(?:{_GAP}{_N}{_GAP}(?:PPR|CPR|PULSES))?"
            rf"(?:{_GAP}{_N}(?:{_GAP}-{_GAP}{_N})?{_GAP}V(?:DC)?(?![A-Z]))?"
        ),
        _device("encoder"),
    )
    yield (
        (
            rf"{leads}\b(?:THERMOSTATS?|KLIXONS?|PTO|BI-?METALS?)(?![A-Z])(?:{_GAP}N\.?C\.?(?![A-Z]))?"
            rf"(?:{_GAP}OPENS?\s+AT\s+{_N}{_GAP}°?{_GAP}[CF](?![A-Z]))?(?:{_GAP}{_N}{_GAP}°{_GAP}C)?"
        ),
        _fact(("accessory", "thermostat"), ("thermal", "thermostat")),
    )
    yield (
        (
            rf"{leads}(?<![A-Z])(?:\d{_GAP}[X×]?{_GAP})?(?:PTC|THERMISTORS?)(?:-?(?:THERMISTORS?))?(?![A-Z])"
            rf"(?:{_GAP}(?:{_N}{_GAP})?°?{_GAP}C(?![A-Z]))?(?:{_GAP}{_N}{_GAP}°{_GAP}C)?"
        ),
        _fact(("accessory", "thermistor"), ("thermal", "thermistor")),
    )
    yield (
        rf"(?<![A-Z])TP{_GAP}\d{{3}}(?!\d)",
        lambda hit: [("mark", ("tp", hit[0].replace(" ", ""))), ("thermal", "thermistor")],
    )
    yield (
        rf"(?:\d+{_GAP}[X×]{_GAP})?(?<![A-Z])(?:PT{_GAP}100|PT100)(?:{_GAP}[X×]{_GAP}\d+)?(?!\d)",
        _device("rtd"),
    )
    yield (
        (
            rf"\b(?:WINDING\s+|BEARING\s+)?RTD'?S?\b(?:{_GAP}\d+{_GAP}(?:/|PER){_GAP}PH(?:ASE)?)?"
            rf"(?:{_GAP}{_N}{_GAP}(?:OHMS?|Ω))?"
        ),
        _device("rtd"),
    )
    yield (
        r"\b(?:INSULATED\s+(?:DE\s+|NDE\s+|ODE\s+)?BEARINGS?|(?:N?DE|ODE)\s+BEARING\s+INSULATED)\b",
        _device("insulated_bearing"),
    )
    yield r"\bVIBRATION\s+(?:PROBES?|SENSORS?|PADS?)\b", _device("vibration_probe")
    yield (
        (
            rf"\b(?:FORCED|SEPARATE(?:LY)?|AUX(?:ILIARY)?)\s+(?:FAN|VENTILAT\w+|BLOWER)\b[^\n;]*"
            rf"|\bBLOWER\b(?:{_GAP}MOTOR)?{volts}{amps}"
        ),
        _device("forced_fan"),
    )
    farads = r"(?:MFD|UF|[ΜµΜ]F)"
    yield (
        (
            rf"\b(?:(?:START|RUN)\s+)?(?:CAP(?:ACITOR|\.)?S?|C[BAR]|CONDENSER)\b{_GAP}[:=]?{_GAP}"
            rf"(?:\d{_GAP}[X×]{_GAP})?{_N}(?:{_GAP}-{_GAP}{_N})?{_GAP}{farads}"
            rf"(?:{_GAP}[,/]?{_GAP}{_N}{_GAP}V(?:AC|OLTS?)?(?![A-Z]))?"
        ),
        _device("capacitor"),
    )
    yield (
        r"\bCAP(?:ACITOR|\.)?\s+START(?:\s*,?\s*(?:CAP(?:ACITOR|\.)?\s+|IND(?:UCTION|\.)?\s+)RUN)?\b",
        _fact(("mark", ("winding", "capacitor start"))),
    )


def _windings() -> Iterator[tuple[str, Take]]:
    stop = (
        r"(?=\s*(?:\n|;|\Z)|\s*\b(?:STATOR|HP|KW|RPM|HZ|CONT|DUTY|INS|CONN|PF|SF|RISE|AMB|PH|EFF|IP\d)\b"
        r"|\s*\b\d+C\b|\s*\bS[1-9]\b|\s*\b3\s*(?:PH|φ)|\s*\bCOS)"
    )
    rotor = r"(?:ROTOR|SEC(?:ONDARY|\.)?|LÄUFER|LAUFER)"
    yield (
        r"\b(?:WOUND[- ]ROTOR|SLIP[- ]?RING|SCHLEIFRINGL[ÄA]UFER|SCHLEIFRING\w*)\b",
        _fact(("words", "wound_rotor")),
    )
    yield (
        rf"CONN\.?\s+STATOR\s+(?P<sign>DELTA|STAR|WYE|{_SIGN})(?:\s+ROTOR\s+(?:DELTA|STAR|WYE|{_SIGN}))?",
        _sign_of,
    )
    yield (
        (
            rf"\b{rotor}\b(?:[ \t]+(?:SEC\b|VOLTS?\b|AMPS?\b|V\b|A\b|OPEN\b|CIRCUIT\b|STANDSTILL\b"
            rf"|{_SIGN}\b"
            rf"|{_N}|[:=,.])|[:=]){{1,10}}?{stop}"
        ),
        _winding_of("secondary"),
    )
    field = r"(?:SHUNT\s+|SEPARATE\s+)?(?:FIELD|FLD|EXC(?:ITATION|\.)?|ERREGUNG(?:\s+FREMD)?)"
    yield r"\b(?:SHUNT\s+WOUND|SHUNT\s+WDG)\b", _fact(("mark", ("winding", "shunt")))
    yield r"\bSERIES\s+WOUND\b", _fact(("mark", ("winding", "series")))
    yield r"\bCOMPOUND\s+WOUND\b", _fact(("mark", ("winding", "compound")))
    yield (
        (
            rf"\b{field}\b(?:[ \t]+(?:EXC\b|VOLTS?\b|AMPS?\b|OHMS?\b|V\b|A\b|VDC\b|ADC\b|DC\b|FIELD\b"
            rf"|{_LIST}(?:-{_N})?(?:V|A|VDC|OHMS?)?\b|[:=,.Ω])|[:=]){{1,10}}?{stop}"
        ),
        _winding_of("field"),
    )


def _drives() -> Iterator[tuple[str, Take]]:
    safe = r"(?:MAX(?:\.|IMUM)?(?:\s+SAFE)?|SAFE)"
    kinds = r"(?P<kind>CT|VT|CHP|CP)"
    yield (
        (
            rf"\b{safe}\s*(?:RPM|SPEED)\s*[:=]?\s*(?P<rpm>\d+)(?:\s*RPM)?"
            rf"|\b{safe}\s+(?P<rpm2>\d+)\s*RPM\b|\b(?P<rpm3>\d+)\s*MAX\.?\s*(?:SAFE\s*)?RPM\b"
        ),
        lambda hit: [("max_safe_rpm", _number(hit["rpm"] or hit["rpm2"] or hit["rpm3"]))],
    )
    yield rf"\b{kinds}\s+(?P<ratio>\d+)\s*:\s*1\b", _drive_range
    yield (
        rf"\b{kinds}\s*[:=]?\s*(?P<low>{_N})\s*-\s*(?P<high>{_N})\s*HZ\b",
        _drive_range,
    )
    yield (
        (
            rf"\b(?:FU-?BETRIEB|ON\s+(?:VFD|DRIVE|INVERTER)|VFD\s+RANGE|INVERTER\s+RANGE)\s*[:=]?\s*"
            rf"(?P<low>{_N})\s*-\s*(?P<high>{_N})\s*HZ\b"
        ),
        _drive_range,
    )
    yield r"\b(?:INVERTER|VFD|DRIVE|CONVERTER)\s+(?:DUTY\s+)?ONLY\b", _fact(("drive_only", True))
    yield (
        r"\b(?:INVERTER\s+DUTY|ON\s+VFD|VFD\s+DUTY|VECTOR\s+(?:DUTY|MOTOR))\b",
        _fact(("note", "")),
    )


def _duties() -> Iterator[tuple[str, Take]]:
    minutes = r"(?P<minutes>\d+)"
    yield (
        (
            rf"(?<![A-Z\d])(?:DUTY\s*(?:TYPE\s*)?[:=]?\s*)?S\s?(?P<type>10|[1-9])(?![\w.])"
            rf"(?:{_GAP}[-,:]?{_GAP}(?:(?P<percent>\d+){_GAP}%|{minutes}{_GAP}MIN(?:UTES|\.)?(?![-\w/⁻])))?"
            rf"(?:{_GAP}\d+{_GAP}MIN(?:UTES|\.)?(?![-\w⁻]))?(?:{_GAP}\d+{_GAP}C/H)?"
        ),
        _duty,
    )
    yield (
        (
            rf"\b(?:TIME(?:\s+RATING)?|DUTY|RATING)\s*[:=]?\s*{minutes}\s*MIN(?:UTES|\.)?(?![-/⁻]?\d)"
            r"(?:\s+LOCKED|\s+STALLED)?"
        ),
        _minutes,
    )
    yield rf"(?<![\d.,/]){minutes}[ -]?MIN(?:UTES?|\.)(?:\s+(?:RATING|DUTY))?(?![-/⁻\w])", _minutes
    yield (
        rf"(?<![\d.,/])(?P<minutes>5|10|15|30|60|90){_GAP}MIN(?=\s|$|,|;)(?!{_GAP}-?1\b)(?!{_GAP}⁻)",
        _minutes,
    )
    yield r"\b24\s*(?:HOURS?|HRS?|H)\b(?:\s*(?:RATING|DUTY))?", _fact(("duty", "continuous"))


def _marks() -> Iterator[tuple[str, Take]]:
    yield (
        r"\bCLASS\s+I{1,3}(?![A-Z])[^\n;]*?(?:GROUPS?|GR\.?|DIV\.?)[^\n;]*",
        _mark("hazardous location"),
    )
    yield (
        r"(?<![A-Z])EX\s+(?:[A-Z]{1,2}\s+)?I{1,3}[ABC]{0,3}\s+T\d(?:\s+G[ABC])?(?![A-Z])",
        _mark("hazardous location"),
    )
    yield (
        rf"(?<![A-Z])I\s?(?:A|S|START|LR)\s?/\s?I\s?N\s*[:=]?\s*{_N}",
        _mark("locked-rotor current ratio"),
    )
    yield rf"(?<![A-Z])TE\s*[:=]?\s*{_N}\s*S(?:EC)?(?![A-Z])", _mark("te time")
    yield (
        r"(?<![A-Z])(?:EFF(?:\.|ICIENCY)?\s*[:=]?\s*)?IE(?P<class>[1-5])(?![\dA-Z])"
        r"(?:[- ]*(?P<percent>\d+[.,]\d+|\d+)\s*%)?",
        _ie,
    )
    yield r"(?<![A-Z])IP\s?\d{2}[A-Z]?(?![\dA-Z])", _mark("ip")
    yield r"(?<![A-Z])IC\s?\d{2,3}(?!\d)", _mark("ic")
    yield r"(?<![A-Z])IM\s?[BV]?\s?\d{1,4}(?!\d)", _mark("im")
    yield (
        rf"\bALT(?:ITUDE|\.)?\s*(?:MAX\.?\s*)?[:=<≤]*\s*(?P<value>{_N})\s*(?P<unit>FEET|FT|METERS|METRES|M)(?![A-Z])",
        _altitude,
    )
    yield (
        r"(?P<class>(?<=CLASS )[ABEFHN]|(?<=CL )[ABEFHN])\s+TEMP(?:\.|ERATURE)?\s+RISE\s+[ABEFH]\b",
        _rise,
    )
    yield (
        rf"\bAMB(?:IENT|\.)?\s*(?P<low>-?{_N})\s*(?:\.\.\.|…|TO)\s*\+?(?P<value>{_N})\s*°?\s*C(?![A-Z])",
        lambda hit: [("ambient_c", _number(hit["value"]))],
    )
    yield (
        (
            r"\bPOLES?\s*[:=]?\s*(?P<after>\d{1,2}(?:\s*/\s*\d{1,2})*)(?![\d.])"
            r"|(?<![\d.,/])(?P<before>\d{1,2}(?:\s*/\s*\d{1,2})*)[\s-]?POLES?\b"
        ),
        _poles,
    )
    yield r"\bCODE\s*(?P<first>[A-V])\s*/\s*(?P<second>[A-V])(?![A-Z])", _codes
    yield (
        rf"\bCONN(?:\.|ECTION)?\s*[:=]?\s*(?P<signs>{_SIGN}(?:\s*/\s*{_SIGN}){{2,}})(?![A-Z])",
        _signs_of,
    )
    yield (
        rf"\bCONN(?:\.|ECTION)?\s*[:=]?\s*(?P<sign>DELTA|STAR|WYE|{_SIGN})(?![A-Z/])(?!\s*/)",
        _sign_of,
    )
    yield (
        (
            r"\bNO(?:T)?\s+THERMAL(?:LY)?\s+PROTECT(?:OR|ION|ED)\b"
            r"|\bWITHOUT\s+THERMAL\s+PROTECT(?:OR|ION)\b"
        ),
        _fact(("thermal", "none")),
    )
    for word, kind in (("AUTO(?:MATIC)?", "automatic"), ("MAN(?:UAL)?", "manual")):
        yield (
            rf"\bTHERMAL(?:LY)?\s+PROTECT(?:ED|ION|OR)\s*[-,:]?\s*\(?{word}(?:\s+RESET)?\)?(?![A-Z])",
            _fact(("thermal", kind)),
        )
        yield (
            rf"\b{word}\s+(?:RESET\s+)?THERMAL(?:LY)?\s+PROTECT(?:ED|ION|OR)\b",
            _fact(("thermal", kind)),
        )
    yield (
        r"\b(?:IMPEDANCE\s+PROTECTED|IMP(?:\.|EDANCE)?\s+PROT(?:\.|ECTED)?)\b",
        _fact(("thermal", "impedance")),
    )


def _names() -> Iterator[tuple[str, Take]]:
    yield (
        r"\b(?:TYPE|MODEL|STYLE|CAT(?:ALOG)?(?:\s+NO)?)\.?\s*[:=]?\s+[\w-]*\w",
        _fact(("note", "")),
    )
    yield (
        rf"(?<![\d.,/])(?P<rise>{_N})\s*(?:DEG\.?|°)?\s*C\.?\s+RISE\b",
        lambda hit: [("temperature_rise_c", _number(hit["rise"]))],
    )


def _noise() -> Iterator[tuple[str, Take]]:
    note = _fact(("note", ""))
    torque = r"(?:LB[- ]?FT|FT[- ]?LBS?|LBF?[- ]?IN|OZ[- ]?IN|N·?M|NM)"
    yield (
        (
            rf"\b(?:MAG(?:NETI[SZ]ING|\.)?|NO[- ]?LOAD|NL)\s+(?:AMPS?|CURRENT|A)\s*[:=]?\s*{_N}"
            rf"(?:\s*A\b)?"
            rf"|\b(?:NO[- ]?LOAD|NL)\s+(?:RPM|SPEED)\s*[:=]?\s*{_N}(?:\s*RPM\b)?"
        ),
        note,
    )
    yield rf"\bBACK\s+EMF\s*[:=]?\s*{_N}\s*V(?:OLTS?)?(?![A-Z])", note
    yield rf"\bF\.?F\.?\s*[:=]?\s*{_N}\b|\bFORM\s+FACTOR\s*[:=]?\s*{_N}", note
    yield rf"\b(?:STALL\s+|RATED\s+|FULL\s+LOAD\s+)?TORQUE\s*[:=]?\s*{_N}\s*{torque}(?![A-Z])", note
    yield rf"(?<![\d.,]){_N}\s*{torque}(?![A-Z])", note
    yield rf"\bJ\s*[:=]?\s*{_N}\s*KG\.?\s?M(?:2|²)|\bWK(?:2|²)\s*{_N}\s*LB-?FT(?:2|²)?", note
    yield rf"\b(?:WT\.?|WEIGHT|M)\s*[:=]?\s*{_N}\s*(?:KGS?|LBS?)(?![A-Z.])", note
    yield rf"(?<![\d.,]){_N}\s*(?:KGS?|LBS?)(?![-A-Z.])", note
    yield rf"\bLW?A?\s*{_N}\s*DB\s*(?:\(A\))?|(?<![\d.,]){_N}\s*DB\s*\(?A?\)?", note
    yield r"\b(?:DE|NDE|ODE)\s+(?:BRG\.?|BEARING)\s*[:=]?\s*\S+(?:\s+C[23]\b)?", note
    yield r"\bLAGER\s+(?:DE\s+\S+\s*)?(?:NDE\s+\S+)?", note
    yield (
        rf"\b(?:GREASE|FETT)\s*[:=]?\s*{_N}\s*G(?:RAMS?)?(?:\s*/\s*{_N}\s*H(?:OURS)?)?(?![A-Z])",
        note,
    )
    yield rf"\bOIL\s+\w*\s*{_N}\s*L(?:/MIN)?(?![A-Z])|\bOIL\s+VG\s?\d+(?:\s+{_N}\s*L/MIN)?", note
    yield r"\bBEARINGS?\s+(?:SLEEVE|BALL|ROLLER|ANTI-?FRICTION)\b", note
    yield r"\bROTATION\s+(?:CC?W|CLOCKWISE)[^\n;]{0,24}?(?=\n|;|\Z|\s{2})", note
    yield r"(?<![A-Z])C?CW(?:\s+FACING\s+\w+)?(?![A-Z])|\bREVERSIBLE\b", note
    yield r"\bJ-?BOX\s+F[123]\b|\bF[0-3]\s+MOUNT(?:ED|ING)?\b", note
    yield rf"±\s*{_N}\s*%", note
    yield r"\b[34]\s*WIRE\b", note
    yield r"\b(?:BY\s+RES(?:ISTANCE)?|RULE\s+OF[^\n;]*)", note
    yield r"\bFORM\s+[A-Z](?![A-Z])", note
    yield (
        r"\b(?:FRAME|FR\.?)\s+(?P<frame>\d{2,3}[A-Z]{0,3})(?![\w/])",
        lambda hit: [("frame", hit["frame"])],
    )


def _diagrams() -> Iterator[tuple[str, Take]]:
    lead = r"T?\d{1,2}"
    joined = rf"{lead}(?:\s*-\s*{lead})+"
    line = rf"(?:{joined}|T\d{{1,2}})(?:\s+(?:L[123]|LINES?|OPEN|TOGETHER)\b)?"
    name = r"(?:LOW|HIGH|START|RUN)(?:\s+(?:VOLTAGE|VOLTS?|SPEED))?"
    yield (
        (
            rf"\b(?:{name})\s*:\s*(?:{line}|T\d{{1,2}}|[\s,;-]|LINES?|OPEN|TOGETHER|L[123])+?"
            rf"(?=\n|\Z|\b(?:{name})\s*:)"
        ),
        lambda hit: [("diagram", " ".join(hit[0].split()))],
    )
    yield (
        (
            r"(?<![\w/.,])T\d{1,2}(?:\s*-\s*T?\d{1,2})+(?:\s+L[123]\b)?(?:\s*,\s*T\d{1,2}(?:\s*-\s*T?\d{1,2})*"
            r"(?:\s+L[123]\b)?)*"
        ),
        lambda hit: [("diagram", " ".join(hit[0].split()))],
    )


def _usables() -> Iterator[tuple[str, Take]]:
    amps = rf"(?:{_GAP}[,:@(]?{_GAP}(?:AT{_GAP})?(?P<amps>{_N}){_GAP}A(?:MPS?)?(?![A-Z])\)?)?"
    yield (
        (
            rf"\b(?:USABLE|USEABLE|SUITABLE|OK|GOOD|FOR\s+USE|USE)\s*(?:AT|ON|FOR|@)?\s*"
            rf"(?P<volts>\d{{3}})\s*V(?:OLTS?)?(?![A-Z])(?:\s*(?:SYSTEMS?|NETWORKS?))?{amps}"
        ),
        _usable,
    )


def _both_units(hit: re.Match[str]) -> list[tuple[str, Any]]:
    first, second = _number(hit["first"]), _number(hit["second"])
    kw, hp = (first, second) if hit["unit"] == "KW" else (second, first)
    return [("power_kw", (kw,)), ("power_hp", (hp,))]


def _speeds() -> Iterator[tuple[str, Take]]:
    yield (
        rf"\b(?P<unit>KW|HP)\s*/\s*(?:KW|HP)\s*[:=]?\s*(?P<first>{_N})\s*/\s*(?P<second>{_N})(?![\d/])",
        _both_units,
    )
    yield (
        r"(?<![\d.,/-])(?P<phases>[123])\s?~",
        lambda hit: [("phases", int(hit["phases"]))],
    )
    for word, number in (("TWO|2", "two"), ("THREE|3", "three"), ("FOUR|4", "four")):
        yield rf"\b(?:{word})[- ]SPEEDS?\b", _fact(("words", f"{number}_speed"))
    yield (
        r"\b(?:(?:TWO|2)\s+(?:SEPARATE\s+)?|SEPARATE\s+)WINDINGS?\b",
        _fact(("words", "two_winding")),
    )
    yield r"\b(?:ONE|1|SINGLE)\s+WINDING\b", _fact(("words", "one_winding"))


def _torque_motors() -> Iterator[tuple[str, Take]]:
    yield r"\bTORQUE\s+MOTOR\b", _fact(("words", "torque_motor"))
    yield (
        (
            rf"\b(?:AMPS?\s+(?:LOCKED|STALLED)|LOCKED\s+(?:ROTOR\s+)?AMPS?|STALL(?:ED)?\s+AMPS?)"
            rf"\s*[:=]?\s*"
            rf"(?P<amps>{_LIST})(?:\s*A\b)?"
        ),
        lambda hit: [("locked_amps", re.sub(r"\s", "", hit["amps"]))],
    )
    yield (
        r"\bSYNC(?:HRONOUS|HRONMOTOR|\.)?(?:\s+RELUCTANCE)?(?:\s+MOTOR)?\b(?!\s*(?:SPEED|RPM))",
        _fact(("words", "synchronous")),
    )
    yield (
        r"(?<![A-Z.])(?:P\.?M\.?|PERMANENT[- ]MAGNET)"
        r"(?:\s+(?:SYNC(?:HRONOUS|\.)?|AC))?(?:\s+MOTOR)?\b",
        lambda hit: [
            ("words", "permanent_magnet"),
            *([("words", "synchronous")] if re.search("SYNC|AC", hit[0]) else []),
        ],
    )
    yield r"\b(?:GLEICHSTROMMOTOR|G-MOT\.?|D\.?C\.?\s+MOTOR)(?![A-Z])", _fact(("phases", 0))
    yield r"\b(?:SEMI-?\s?HERMETIC\s+|HERMETIC\s+)?COMPRESSOR\b", _fact(("words", "compressor"))


def _tables() -> Iterator[tuple[re.Pattern[str], Take]]:
    for group in (
        _names,
        _speeds,
        _usables,
        _compressor_limits,
        _accessories,
        _windings,
        _drives,
        _diagrams,
        _marks,
        _duties,
        _torque_motors,
        _noise,
    ):
        for pattern, take in group():
            yield re.compile(pattern), take


_ASIDES = tuple(_tables())


def set_aside(text: str) -> tuple[str, list[Aside]]:
    """Take what is not the rating out of a nameplate's text.

    Parameters
    ----------
    text : str
        The nameplate in capitals, signs translated, length as typed.

    Returns
    -------
    tuple
        The text of the same length with those stretches cut by separators, and the stretches
        with what they say, in the order of the text.
    """
    found: list[Aside] = []
    for pattern, take in _ASIDES:
        for hit in pattern.finditer(text):
            start, end = hit.span()
            end = start + len(text[start:end].rstrip())
            if end == start:
                continue
            found.append(Aside(start, end, tuple(take(hit))))
            text = f"{text[:start]},{' ' * (end - start - 1)}{text[end:]}"
    return text, sorted(found, key=lambda aside: aside.start)
