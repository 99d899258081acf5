"""Overload protection of one motor: set from the nameplate current.

Units: current [A], temperature rise [C].
Rules: NEC 430.32(A)(1) and 430.32(C), 430.6(A)(2). Table: ``nec/430_32``. Above 3300 ft or the
nameplate's ambient the motor carries less (NEMA MG 1 14.4); its maker gives the part.
Left out: heaters in a winding leg or behind current transformers, integral
protectors, heater tables, dials that contain the 125 % already.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import Message, MissingError, Rule, Step, Tip, Trail, plain, show
from evencoil.codebook import Edition, rule, table

__all__ = ["Derating", "overload_percent", "overload_setting"]

_LARGE_SERVICE_FACTOR = Decimal("1.15")
_COOL_RISE_C = Decimal(40)


def _row(service_factor: Decimal | None, temperature_rise_c: Decimal | None) -> tuple[int, Message]:
    """Return the row of the table for a motor, and why."""
    if service_factor is not None and service_factor >= _LARGE_SERVICE_FACTOR:
        return 0, Message("overload.service_factor", {"sf": plain(service_factor)})
    if temperature_rise_c is not None and temperature_rise_c <= _COOL_RISE_C:
        return 1, Message("overload.rise", {"rise": plain(temperature_rise_c)})
    if service_factor is None:
        return 2, Message("overload.not_said")
    return 2, Message("overload.other", {"sf": plain(service_factor)})


def overload_percent(service_factor: Decimal | None, temperature_rise_c: Decimal | None) -> Decimal:
    """Return the percentage of plate current that an overload may be set to.

    Parameters
    ----------
    service_factor : Decimal or None
        As stamped; None counts as below 1.15.
    temperature_rise_c : Decimal or None
        As stamped. [C]
    """
    return table("430_32").figures("normal_percent")[_row(service_factor, temperature_rise_c)[0]]


@dataclass(frozen=True, slots=True)
class Derating:
    """The part of the nameplate current that a motor may carry [%], and who says so."""

    percent: Decimal
    source: str


def _derated(derating: Derating, trail: Trail) -> Step:
    """Add the current that a motor may carry high up or in a hot place [A]."""
    plate = trail.number("plate_amps_a")
    value = plate * derating.percent / 100
    return trail.add(
        Step(
            id="derated_amps_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "limit"),
            working=Message(
                "overload.derated",
                {
                    "plate": plain(plate),
                    "percent": plain(derating.percent),
                    "value": plain(value),
                    "source": derating.source,
                },
            ),
            rule=Rule(standard="NEMA MG 1", edition=2021, section="14.4"),
            uses=("plate_amps_a",),
        )
    )


def overload_setting(
    *,
    service_factor: Decimal | None,
    temperature_rise_c: Decimal | None,
    edition: Edition,
    trail: Trail,
    derating: Derating | None = None,
) -> Step:
    """Return the largest setting of the overload device.

    Parameters
    ----------
    service_factor : Decimal or None
        As stamped; None counts as below 1.15.
    temperature_rise_c : Decimal or None
        As stamped. [C]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``plate_amps_a``; the steps are added to it.
    derating : Derating, optional
        The part of its nameplate current that the motor may carry where it is.

    Returns
    -------
    Step
        ``overload_setting_a``, with ``overload_ceiling_a`` beside it. [A]

    Raises
    ------
    MissingError
        If the nameplate current at this voltage is not known.
    """
    if "plate_amps_a" not in trail:
        raise MissingError(
            Message("overload.no_amps"), field="amps_a", hint=Message("overload.no_amps.hint")
        )
    base = "plate_amps_a" if derating is None else _derated(derating, trail).id
    amps = trail.number(base)
    row, why = _row(service_factor, temperature_rise_c)
    book = table("430_32")
    normal = book.find(row, "normal_percent", edition=edition)
    most = book.find(row, "max_percent", edition=edition)
    setting, ceiling = amps * normal.value / 100, amps * most.value / 100
    uses = tuple(name for name in (base, "service_factor", "temperature_rise_c") if name in trail)
    trail.add(
        Step(
            id="overload_ceiling_a",
            value=ceiling,
            unit="A",
            kind="calculated",
            shown=show(ceiling, "limit"),
            working=Message(
                "overload.ceiling",
                {"amps": plain(amps), "percent": plain(most.value), "value": plain(ceiling)},
            ),
            rule=rule("overload_ceiling", edition),
            uses=uses,
            cell=most.cell,
            marks=most.marks,
        )
    )
    other = Decimal(115) if normal.value == 125 else Decimal(125)
    return trail.add(
        Step(
            id="overload_setting_a",
            value=setting,
            unit="A",
            kind="calculated",
            shown=show(setting, "limit"),
            working=Message(
                "overload.setting",
                {
                    "why": str(why),
                    "amps": plain(amps),
                    "percent": plain(normal.value),
                    "value": plain(setting),
                },
            ),
            rule=rule("overload", edition),
            uses=uses,
            cell=normal.cell,
            marks=normal.marks,
            tips=(
                Tip(message=Message("overload.tip_ceiling", {"value": show(ceiling, "limit")})),
                Tip(
                    message=Message(
                        f"overload.tip_{other}", {"value": show(amps * other / 100, "limit")}
                    )
                ),
            ),
        )
    )
