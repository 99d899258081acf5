"""The branch circuit of a hermetic refrigerant compressor.

Its plate gives rated-load amps and no horsepower; the tables of Article 430 do
not hold. Where a branch-circuit selection current is marked and larger, it
takes the place of the rated-load current, except for the overload.

Units: current [A].
Rules: NEC 440.6(A), 440.32 (conductors 125 %), 440.22(A) (device 175 %, with a
recorded no-start 225 %, never rounded up), 440.12(A) (disconnect 115 %),
440.52(A)(1) (overload relay 140 %).
"""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import Message, MissingError, NotInTableError, Step, Tip, Trail, plain, show
from evencoil.codebook import Edition, rule
from evencoil.sizing.disconnect import usual_switch_a
from evencoil.sizing.protection import DeviceKind, largest_not_above

__all__ = [
    "hermetic_conductor_ampacity",
    "hermetic_current",
    "hermetic_device",
    "hermetic_disconnect",
    "hermetic_overload",
    "stamped_limit",
]

_CONDUCTOR, _DEVICE, _MOST = Decimal("1.25"), Decimal("1.75"), Decimal("2.25")
_DISCONNECT, _OVERLOAD = Decimal("1.15"), Decimal("1.40")
_SMALLEST_DEVICE_A = Decimal(15)


def hermetic_current(
    *, rated_load_a: Decimal, selection_a: Decimal | None, edition: Edition, trail: Trail
) -> Step:
    """Return the current that everything but the overload is sized by.

    Parameters
    ----------
    rated_load_a : Decimal
        Rated-load current of the nameplate. [A]
    selection_a : Decimal or None
        Branch-circuit selection current, where marked. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``rated_load_a``, and ``selection_a`` where marked.

    Returns
    -------
    Step
        ``hermetic_current_a``, the greater of the two. [A]
    """
    value = rated_load_a if selection_a is None else max(rated_load_a, selection_a)
    said = "selection" if value != rated_load_a else "rated"
    return trail.add(
        Step(
            id="hermetic_current_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value),
            working=Message(
                f"hermetic.{said}", {"rated": plain(rated_load_a), "value": plain(value)}
            ),
            rule=rule("hermetic_current", edition),
            uses=tuple(name for name in ("rated_load_a", "selection_a") if name in trail),
        )
    )


def hermetic_conductor_ampacity(*, edition: Edition, trail: Trail) -> Step:
    """Return the least ampacity of the conductors, 125 %.

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``hermetic_current_a``.

    Returns
    -------
    Step
        ``required_ampacity_a``. [A]
    """
    amps = trail.number("hermetic_current_a")
    value = amps * _CONDUCTOR
    return trail.add(
        Step(
            id="required_ampacity_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "minimum"),
            working=Message("hermetic.ampacity", {"amps": plain(amps), "value": plain(value)}),
            rule=rule("hermetic_conductor", edition),
            uses=("hermetic_current_a",),
        )
    )


def stamped_limit(step_id: str, amps_a: Decimal, *, edition: Edition, trail: Trail) -> Step:
    """Return a conductor ampacity or device rating that the unit's nameplate gives, 440.4(B).

    Parameters
    ----------
    step_id : str
        ``required_ampacity_a`` or ``protection_device_a``.
    amps_a : Decimal
        Minimum circuit ampacity, or maximum overcurrent device, as stamped. [A]
    edition : int
        Edition whose sections are cited.
    trail : Trail
        The step is added to it.
    """
    is_device = step_id == "protection_device_a"
    return trail.add(
        Step(
            id=step_id,
            value=amps_a,
            unit="A",
            kind="read",
            shown=plain(amps_a),
            working=Message(
                "hermetic.mocp" if is_device else "hermetic.mca", {"value": plain(amps_a)}
            ),
            rule=rule("hermetic_unit", edition),
            uses=("protection_kind",) if is_device else (),
        )
    )


def hermetic_device(
    *,
    kind: DeviceKind,
    has_no_start: bool = False,
    maker_limit: tuple[Decimal, str] | None = None,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the short-circuit device: at most 175 %, never rounded up.

    Parameters
    ----------
    kind : str
        Fuse or inverse-time breaker.
    has_no_start : bool
        It is recorded that the compressor did not start on it: then at most 225 %.
    maker_limit : tuple, optional
        The largest device that the maker prints [A], and where.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``hermetic_current_a``.

    Returns
    -------
    Step
        ``protection_device_a``; what a no-start would allow is a tip while none is recorded. [A]

    Raises
    ------
    NotInTableError
        If the kind does not serve compressors.
    """
    amps = trail.number("hermetic_current_a")
    if kind == "instantaneous_breaker":
        raise NotInTableError(
            Message("hermetic.kind"),
            field="size.protection_kind",
            hint=Message("hermetic.kind.hint"),
        )
    limit, most = amps * _DEVICE, amps * _MOST
    value = largest_not_above(limit, kind, edition) or _SMALLEST_DEVICE_A
    value = max(value, _SMALLEST_DEVICE_A)
    raised = largest_not_above(most, kind, edition) or _SMALLEST_DEVICE_A
    tips: tuple[Tip, ...] = ()
    said = "hermetic.device"
    if has_no_start and raised > value:
        value, limit, said = raised, most, "hermetic.device_raised"
    elif raised > value:
        tips = (
            Tip(
                message=Message(
                    "hermetic.tip_no_start",
                    {"most": show(most, "limit"), "raised": plain(raised)},
                )
            ),
        )
    source = ""
    if maker_limit is not None and maker_limit[0] < value:
        value, source, said = maker_limit[0], maker_limit[1], "hermetic.device_maker"
    named = ("hermetic_current_a", "protection_kind", "no_start", "maker_limit_a")
    return trail.add(
        Step(
            id="protection_device_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=plain(value),
            working=Message(
                said,
                {
                    "amps": plain(amps),
                    "limit": show(limit, "limit"),
                    "value": plain(value),
                    "source": source,
                },
            ),
            rule=rule("hermetic_device", edition),
            uses=tuple(name for name in named if name in trail),
            tips=tips,
        )
    )


def hermetic_disconnect(*, is_fuse: bool, edition: Edition, trail: Trail) -> Step:
    """Return the usual switch: 115 % of the current, and clips for its fuses.

    Parameters
    ----------
    is_fuse : bool
        Whether it holds fuses.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``hermetic_current_a`` and ``protection_device_a``.

    Returns
    -------
    Step
        ``disconnect_switch_a``. [A]

    Raises
    ------
    NotInTableError
        If no usual switch is so large.
    """
    amps = trail.number("hermetic_current_a")
    least = amps * _DISCONNECT
    wanted = least
    if is_fuse:
        wanted = max(least, trail.number("protection_device_a"))
    size = usual_switch_a(wanted)
    if size is None:
        raise NotInTableError(
            Message("disconnect.none", {"amps": show(wanted, "minimum")}),
            field="size.protection_kind",
            hint=Message("disconnect.none.hint"),
        )
    return trail.add(
        Step(
            id="disconnect_switch_a",
            value=size,
            unit="A",
            kind="calculated",
            shown=plain(size),
            working=Message(
                "hermetic.disconnect",
                {"amps": plain(amps), "least": show(least, "minimum"), "size": plain(size)},
            ),
            rule=rule("hermetic_disconnect", edition),
            uses=("hermetic_current_a", *(("protection_device_a",) if is_fuse else ())),
        )
    )


def hermetic_overload(*, edition: Edition, trail: Trail) -> Step:
    """Return the most that a separate overload relay may trip at, 140 %.

    Parameters
    ----------
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``rated_load_a``: the selection current does not count here.

    Returns
    -------
    Step
        ``overload_setting_a``. [A]

    Raises
    ------
    MissingError
        If the rated-load current is not known.
    """
    if "rated_load_a" not in trail:
        raise MissingError(
            Message("hermetic.no_amps"),
            field="rated_load_amps_a",
            hint=Message("hermetic.no_amps.hint"),
        )
    amps = trail.number("rated_load_a")
    value = amps * _OVERLOAD
    return trail.add(
        Step(
            id="overload_setting_a",
            value=value,
            unit="A",
            kind="calculated",
            shown=show(value, "limit"),
            working=Message("hermetic.overload", {"amps": plain(amps), "value": plain(value)}),
            rule=rule("hermetic_overload", edition),
            uses=("rated_load_a",),
        )
    )
