"""The locked-rotor current that was measured, and the code letter that it stands for.

Units: current [A], voltage [V], apparent power [kVA per hp].
Rules: NEC Table 430.7(B); a locked rotor takes current in proportion to its volts (textbook; a
little less below half the volts, because the iron is less saturated).
"""

from __future__ import annotations

from decimal import Decimal

from evencoil.base import ROOT3, Mark, Message, OutOfRangeError, Step, Trail, plain, show
from evencoil.codebook import Edition, given, table, worked
from evencoil.plate import PlateReading
from evencoil.sizing.full_load import horsepower_from_kw
from evencoil.sizing.inputs import MeasuredStartInput

__all__ = ["measured_start"]

#: below this part of the rated volts the current at full volts is more than in proportion
_NEAR_FULL = Decimal("0.8")


def _power_hp(reading: PlateReading, trail: Trail) -> Decimal | None:
    if "power_hp" in trail:
        return trail.number("power_hp")
    powers = (*reading.plate.power_hp, *(horsepower_from_kw(kw) for kw in reading.plate.power_kw))
    return max(powers, default=None)


def measured_start(
    measured: MeasuredStartInput,
    reading: PlateReading,
    *,
    volts_v: Decimal,
    phases: int,
    edition: Edition,
    trail: Trail,
) -> Step:
    """Return the locked-rotor current at the rated volts, and the letter it stands for.

    Parameters
    ----------
    measured : MeasuredStartInput
        Amps with the rotor held or in the first instant, and the volts at the motor then.
    reading : PlateReading
        Power and stamped letter.
    volts_v : Decimal
        Nameplate volts of the connection in use. [V]
    phases : int
        1 or 3.
    edition : int
        Edition whose table is read.
    trail : Trail
        The steps are added to it.

    Returns
    -------
    Step
        ``locked_rotor_measured_a`` [A], and ``code_letter_measured`` where the power is known.

    Raises
    ------
    OutOfRangeError
        If the volts are above 110 % of the rated ones.
    """
    if measured.volts_v > volts_v * Decimal("1.1"):
        raise OutOfRangeError(
            Message("measured.volts", {"volts": plain(measured.volts_v), "rated": plain(volts_v)}),
            field="size.measured_start.volts_v",
            hint=Message("measured.volts.hint"),
        )
    given(trail, "measured_start_a", measured.amps_a, "A")
    given(trail, "measured_start_v", measured.volts_v, "V")
    locked = measured.amps_a * volts_v / measured.volts_v
    marks: tuple[Mark, ...] = ()
    if measured.volts_v < volts_v * _NEAR_FULL:
        said = Message("measured.low", {"volts": plain(measured.volts_v)})
        marks = (Mark(kind="doubted", origin="measured_start_v", message=said),)
    step = worked(
        trail,
        "locked_rotor_measured_a",
        locked,
        "A",
        "measured.locked",
        "textbook",
        edition,
        {
            "amps": plain(measured.amps_a),
            "rated": plain(volts_v),
            "volts": plain(measured.volts_v),
        },
        uses=("measured_start_a", "measured_start_v"),
        marks=marks,
    )
    power = _power_hp(reading, trail)
    if power is not None:
        _letter(locked, volts_v, phases, power, reading.plate.code_letter, edition, trail)
    return step


def _letter(
    locked_a: Decimal,
    volts_v: Decimal,
    phases: int,
    power_hp: Decimal,
    stamped: str | None,
    edition: Edition,
    trail: Trail,
) -> None:
    """Add the code letter of a locked-rotor current, and whether it is the stamped one."""
    kva = (ROOT3 if phases == 3 else Decimal(1)) * volts_v * locked_a / 1000 / power_hp
    book = table("430_7_b")
    # the bands of the table end a hundredth below the next one's beginning
    row = max(
        place
        for place in range(len(book.rows))
        if (book.number(place, "min_kva_per_hp") or Decimal(0)) <= kva
    )
    letter = book.column("letter")[row]
    marks: tuple[Mark, ...] = ()
    if stamped is not None and stamped != letter:
        said = Message("measured.other_letter", {"stamped": stamped, "letter": letter})
        marks = (Mark(kind="doubted", origin="code_letter", message=said),)
    worked(
        trail,
        "code_letter_measured",
        letter,
        "",
        "measured.letter",
        "code_letter",
        edition,
        {
            "times": "1.732 × " if phases == 3 else "",
            "volts": plain(volts_v),
            "locked": show(locked_a),
            "hp": show(power_hp),
            "kva": show(kva),
            "letter": letter,
        },
        uses=("locked_rotor_measured_a", "power_hp"),
        marks=marks,
    )
