"""Section numbers by edition of the National Electrical Code.

One subject, one name; the edition decides under which number it stands.
Differences from ``docs/sources.md``; numbers that are recalled and not checked
against the printed code are listed in `UNSURE`.
"""

from __future__ import annotations

from functools import cache
from typing import Literal, get_args

from evencoil.base import Message, OutOfRangeError, Rule

__all__ = ["EDITIONS", "UNSURE", "Edition", "edition_of", "rule"]

Edition = Literal[2017, 2020, 2023]
EDITIONS: tuple[Edition, ...] = get_args(Edition)

_SAME: dict[str, str] = {
    "table_currents": "430.6(A)(1)",
    "plate_currents": "430.6(A)(2)",
    "flc_three_phase": "Table 430.250",
    "flc_listed_appliance": "430.6(A)(1) Ex. 3",
    "flc_marked_fan": "430.6(A)(1) Ex. 2",
    "flc_single_phase": "Table 430.248",
    "conductor": "430.22",
    "torque_currents": "430.6(B)",
    "torque_disconnect": "430.110(B)",
    "feeder_duty": "430.24 Ex. 1",
    "feeder_interlocked": "430.24 Ex. 3",
    "terminals": "110.14(C)",
    "terminals_small": "110.14(C)(1)(a)",
    "terminals_design_letter": "110.14(C)(1)(a)(4)",
    "terminals_large": "110.14(C)(1)(b)",
    "code_letter": "430.7(B)",
    "small_motor_minimum": "430.22(G)",
    "overcurrent_release": "240.4(G)",
    "overload": "430.32(A)(1)",
    "overload_ceiling": "430.32(C)",
    "grounding": "Table 250.122",
    "grounding_limit": "250.122(A)",
    "housing": "430.12(B)",
    "hermetic_current": "440.6(A)",
    "hermetic_conductor": "440.32",
    "hermetic_device": "440.22(A)",
    "hermetic_unit": "440.4(B)",
    "hermetic_disconnect": "440.12(A)",
    "hermetic_overload": "440.52(A)(1)",
    "feeder": "430.24",
    "feeder_device": "430.62(A)",
    "feeder_device_loads": "430.63",
    "leg_wye_delta": "430.22(C)",
    "leg_part_winding": "430.22(D)",
    "part_winding": "430.4",
    "control_two_wire": "430.72(B) Ex. 2",
    "control_inherent": "430.72(C)(3)",
    "drive_device": "430.130",
    "rectifier": "430.22(A)",
    "locked_rotor": "Table 430.251",
    "drop_table_8": "Chapter 9 Table 8",
    "drop_table_9": "Chapter 9 Table 9",
    "drop_limit": "210.19(A) note",
    "grounding_grown": "250.122(B)",
    "disconnect": "430.110(A)",
    "controller_power": "430.83(A)(1)",
    "disconnect_controller": "430.102(A)",
    "disconnect_motor": "430.102(B)",
    "disconnect_motor_exception": "430.102(B) Ex.",
    "disconnect_small": "430.109(C)",
    "disconnect_isolating": "430.109(E)",
    "disconnect_unfused": "430.110(A) Ex.",
    "disconnect_several": "430.110(C)",
    "disconnect_shared": "430.112",
    "group_small": "430.53(A)",
    "altitude": "NEMA MG 1, 14.4",
    "disconnect_plug": "430.109(F)",
    "flc_dc": "Table 430.247",
    "duty": "Table 430.22(E)",
    "multispeed": "430.22(B)",
    "multispeed_device": "430.52(C)(4)",
    "secondary": "430.23(A)",
    "secondary_duty": "430.23(B)",
    "secondary_resistor": "Table 430.23(C)",
    "protection_maker": "430.52(C)(2)",
    "overload_units": "Table 430.37",
    "protector": "430.32(A)(2)",
    "fill": "Chapter 9 Table 1",
    "conductor_areas": "Chapter 9 Table 5",
    "interrupting": "110.9",
    "short_circuit_rating": "110.10",
    "slash_rating": "240.85",
    "drive_conductor": "430.122(A)",
    "drive_disconnect": "430.128",
    "drive_overload": "430.124",
    "control_transformer": "430.72(C)",
    "control_primary": "430.72(C)(4)",
    "transformer_device": "Table 450.3(B)",
    "tap": "430.28",
    "tap_group": "430.53(D)",
    "group": "430.53(C)",
    "textbook": "(textbook, beside the code)",
    "disconnect_type": "430.109(A)",
}
_MOVED: dict[str, dict[int, str]] = {
    "ampacity": {2017: "Table 310.15(B)(16)", 2020: "Table 310.16", 2023: "Table 310.16"},
    "ambient": {
        2017: "Table 310.15(B)(2)(a)",
        2020: "Table 310.15(B)(1)",
        2023: "Table 310.15(B)(1)(1)",
    },
    "adjustment": {
        2017: "Table 310.15(B)(3)(a)",
        2020: "Table 310.15(C)(1)",
        2023: "Table 310.15(C)(1)",
    },
    "protection": {2017: "Table 430.52", 2020: "Table 430.52", 2023: "Table 430.52(C)(1)"},
    "protection_step_up": {
        2017: "430.52(C)(1) Ex. 1",
        2020: "430.52(C)(1) Ex. 1",
        2023: "430.52(C)(1)(a)",
    },
    "protection_raised": {
        2017: "430.52(C)(1) Ex. 2",
        2020: "430.52(C)(1) Ex. 2",
        2023: "430.52(C)(1)(b)",
    },
    "control_conductor": {
        2017: "Table 430.72(B)",
        2020: "Table 430.72(B)",
        2023: "Table 430.72(B)(2)",
    },
    "parallel": {2017: "310.10(H)", 2020: "310.10(G)", 2023: "310.10(G)"},
}
UNSURE: frozenset[str] = frozenset(
    {"small_motor_minimum", "protection_step_up", "protection_raised", "control_conductor"}
)


def edition_of(year: int) -> Edition:
    """Return the edition of a year.

    Raises
    ------
    OutOfRangeError
        If the tables of that edition are not here.
    """
    for known in EDITIONS:
        if known == year:
            return known
    raise OutOfRangeError(
        Message("edition.unknown", {"year": str(year)[:12]}),
        field="edition",
        hint=Message("edition.unknown.hint"),
    )


@cache
def rule(subject: str, edition: Edition) -> Rule:
    """Return the citation of a subject in an edition.

    Parameters
    ----------
    subject : str
        One of the names above, such as ``ampacity``.
    edition : int
        2017, 2020 or 2023.

    Returns
    -------
    Rule
        The section as that edition numbers it.

    Raises
    ------
    KeyError
        If the subject is unknown: a bug.
    """
    section = _SAME.get(subject) or _MOVED[subject][edition]
    return Rule(standard="NEC", edition=edition, section=section)
