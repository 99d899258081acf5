"""A reading laid out as flat facts, the shape in which the stamped cases are written."""

from evencoil.plate.model import Nameplate, PlateReading

KINDS = {
    "three_phase": "three-phase",
    "two_phase": "two-phase",
    "single_phase": "single-phase",
    "direct_current": "dc",
    "synchronous": "synchronous",
    "wound_rotor": "wound",
    "torque": "torque",
    "compressor": "hermetic",
    "": "three-phase",
}
SINGLE = ("leads", "duty", "thermal")


def _bands(bands):
    return [(float(band.low), float(band.high)) for band in bands]


def _each(plates: list[Nameplate], name: str, shape):
    """Return every value of a field in stamped order, one common to all ratings once."""
    rows = [shape(plate, getattr(plate, name)) for plate in plates]
    return rows[0] if all(row == rows[0] for row in rows) else [one for row in rows for one in row]


def _signed(plate, bands):
    signs = plate.connection_signs
    if len(bands) == 1 and len(signs) == plate.speeds > 1:
        return [(float(bands[0].low), float(bands[0].high), sign) for sign in signs]
    if len(bands) == len(signs) and not any(band.sign for band in bands):
        return [
            (float(band.low), float(band.high), sign)
            for band, sign in zip(bands, signs, strict=True)
        ]
    return [(float(band.low), float(band.high), band.sign) for band in bands]


def facts_of(reading: PlateReading) -> dict:
    """Return what a reading says, by the names of the cases; nothing that is empty."""
    plates = [reading.plate, *reading.others]
    plate = reading.plate
    figures = lambda _, values: [float(value) for value in values]  # noqa: E731 - one line of three
    one = lambda _, value: [] if value is None else [float(value)]  # noqa: E731 - as above
    bands = lambda _, value: _bands(value)  # noqa: E731 - as above
    found = {
        "kind": KINDS[plate.kind],
        "phases": plate.phases,
        "speeds": plate.speeds,
        "hz": [float(hz) for one_plate in plates for hz in one_plate.frequency_hz],
        "kw": _each(plates, "power_kw", figures),
        "hp": _each(plates, "power_hp", figures),
        "volts": _each(plates, "volts_v", _signed),
        "amps": _each(plates, "amps_a", bands),
        "sf_amps": _each(plates, "service_factor_amps_a", bands),
        "rpm": _each(plates, "speed_rpm", figures),
        "service_factor": _each(plates, "service_factor", one),
        "efficiency": _each(plates, "efficiency_percent", figures),
        "power_factor": _each(plates, "power_factor_percent", figures),
        "code": "/".join(plate.code_letters) or plate.code_letter,
        "design": plate.design_letter,
        "insulation": plate.insulation_class,
        "ambient": None if plate.ambient_c is None else float(plate.ambient_c),
        "rise": None if plate.temperature_rise_c is None else float(plate.temperature_rise_c),
        "leads": plate.leads,
        "duty": plate.duty,
        "thermal": plate.thermal,
        "accessories": sorted(set(plate.accessories) - {"thermal_mark"}),
        "usable": [
            (float(use.volts_v), None if use.amps_a is None else float(use.amps_a))
            for use in plate.usable
        ],
        "start": next(
            (
                name.replace("_", "-")
                for name in ("wye_delta", "part_winding")
                if name in plate.words
            ),
            None,
        ),
        "torque": plate.torque.replace("_", "-"),
        "windings": plate.windings,
        "secondary": {
            name: float(value)
            for name, value in (("volts", plate.secondary_v), ("amps", plate.secondary_a))
            if value is not None
        },
        "field": {
            name: [float(value) for value in values]
            for name, values in (
                ("volts", plate.field_v),
                ("amps", plate.field_a),
                ("ohms", plate.field_ohm),
            )
            if values
        },
        "rla": [low for low, _ in _bands(plate.rated_load_amps_a)],
        "lra": [low for low, _ in _bands(plate.locked_rotor_amps_a)],
        "bcsc": [low for low, _ in _bands(plate.selection_amps_a)],
        "mca": plate.minimum_circuit_ampacity_a and float(plate.minimum_circuit_ampacity_a),
        "mocp": plate.maximum_overcurrent_a and float(plate.maximum_overcurrent_a),
        "max_rpm": plate.max_safe_rpm and float(plate.max_safe_rpm),
        "drive_only": plate.is_drive_only,
        "altitude": plate.altitude and (float(plate.altitude[0]), plate.altitude[1]),
    }
    return {
        name: value for name, value in found.items() if value not in (None, [], "", {}, 0, False)
    }


def wanted_of(expected: dict) -> dict:
    """Return a case's expectation under the same names."""

    def values(name):
        found = [float(entry["value"]) for entry in expected.get(name, [])]
        return found[:1] if len(set(found)) == 1 else found

    def bands(name):
        return [(float(entry["low"]), float(entry["high"])) for entry in expected.get(name, [])]

    powers = expected.get("powers", [])
    compressor = expected.get("compressor", {})
    inverter = expected.get("inverter", {})
    altitude = expected.get("altitude")
    found = {
        **{
            name: expected.get(name)
            for name in (
                "kind",
                "phases",
                "speeds",
                "code",
                "design",
                "insulation",
                "leads",
                "duty",
                "thermal",
                "start",
                "torque",
                "windings",
                "secondary",
                "field",
            )
        },
        "hz": [float(hz) for hz in expected.get("hz", [])],
        "kw": [
            float(entry["value"]) / (1000 if entry["unit"] == "W" else 1)
            for entry in powers
            if entry["unit"] != "hp"
        ],
        "hp": [float(entry["value"]) for entry in powers if entry["unit"] == "hp"],
        "volts": [
            (float(entry["low"]), float(entry["high"]), entry.get("sign", ""))
            for entry in expected.get("volts", [])
        ],
        "amps": bands("amps"),
        "sf_amps": bands("sf_amps"),
        "rpm": values("rpm"),
        "service_factor": values("service_factor"),
        "efficiency": values("efficiency"),
        "power_factor": values("power_factor"),
        "ambient": expected.get("ambient") and float(expected["ambient"]),
        "rise": expected.get("rise") and float(expected["rise"]),
        "accessories": sorted(expected.get("accessories", [])),
        "usable": [
            (float(use["volts"]), use.get("amps") and float(use["amps"]))
            for use in expected.get("usable", [])
        ],
        "rla": [float(value) for value in compressor.get("rla", [])],
        "lra": [float(value) for value in compressor.get("lra", [])],
        "bcsc": [float(value) for value in compressor.get("bcsc", [])],
        "mca": compressor.get("mca"),
        "mocp": compressor.get("mocp"),
        "max_rpm": inverter.get("max_rpm"),
        "drive_only": inverter.get("only"),
        "altitude": altitude and (float(altitude["value"]), altitude["unit"]),
    }
    return {
        name: value for name, value in found.items() if value not in (None, [], "", {}, 0, False)
    }
