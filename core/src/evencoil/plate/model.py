"""What a nameplate says, as data.

Units: power [hp] and [kW], volts [V], amps [A], speed [rpm], frequency [Hz],
temperatures [C], efficiency and power factor [percent].
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Literal

from evencoil.base import Finding, Message, plain

__all__ = [
    "Assumed",
    "Band",
    "DriveRange",
    "Lexeme",
    "Missing",
    "Nameplate",
    "PlateReading",
    "Token",
    "Usable",
]

Status = Literal["understood", "doubted", "unread"]


@dataclass(frozen=True, slots=True)
class Band:
    """One figure or one range on a nameplate, with the connection sign beside it.

    ``208-230`` is a range of 208 to 230; ``460`` has ``low == high``; ``sign``
    is ``D``, ``DD``, ``Y`` or ``YY`` where one was stamped. ``is_falling`` marks a range
    stamped from high to low, as amps beside a range of volts.
    """

    low: Decimal
    high: Decimal
    sign: str = ""
    is_falling: bool = False

    def __str__(self) -> str:
        """Return the figure, or the range with a hyphen, as stamped."""
        if self.low == self.high:
            return plain(self.low)
        return f"{plain(self.first)}-{plain(self.last)}"

    @property
    def first(self) -> Decimal:
        """Return the end stamped first."""
        return self.high if self.is_falling else self.low

    @property
    def last(self) -> Decimal:
        """Return the end stamped last."""
        return self.low if self.is_falling else self.high

    def holds(self, value: Decimal) -> bool:
        """Tell whether a value lies in the range, ends included."""
        return self.low <= value <= self.high


@dataclass(frozen=True, slots=True)
class Lexeme:
    """One piece of the text: a number expression, a word, or a separator."""

    kind: Literal["number", "word", "signs", "separator", "glue"]
    text: str
    start: int
    end: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Token:
    """A stretch of the text as a person sees it light up."""

    start: int
    end: int
    text: str
    status: Status
    field: str = ""
    note: Message | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Assumed:
    """A figure that no one read, put in by a person, saying from where."""

    field: str
    value: str
    reason: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Missing:
    """A field the nameplate does not give, and what that costs."""

    field: str
    cost: Message


@dataclass(frozen=True, slots=True, kw_only=True)
class Usable:
    """A supply on which the motor may be used though it is not rated for it."""

    volts_v: Decimal
    amps_a: Decimal | None


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveRange:
    """A range on a drive: kind (CT, VT, CHP or empty), frequencies [Hz] or a ratio to one."""

    kind: str
    low_hz: Decimal | None = None
    high_hz: Decimal | None = None
    ratio: Decimal | None = None


Kind = Literal[
    "",
    "three_phase",
    "two_phase",
    "single_phase",
    "direct_current",
    "synchronous",
    "wound_rotor",
    "torque",
    "compressor",
]


@dataclass(slots=True, kw_only=True)
class Nameplate:
    """What was understood. Empty tuples and None mean: the nameplate does not say."""

    power_hp: tuple[Decimal, ...] = ()
    power_kw: tuple[Decimal, ...] = ()
    volts_v: tuple[Band, ...] = ()
    amps_a: tuple[Band, ...] = ()
    service_factor_amps_a: tuple[Band, ...] = ()
    rated_load_amps_a: tuple[Band, ...] = ()
    selection_amps_a: tuple[Band, ...] = ()
    locked_rotor_amps_a: tuple[Band, ...] = ()
    speed_rpm: tuple[Decimal, ...] = ()
    frequency_hz: tuple[Decimal, ...] = ()
    phases: int | None = None
    service_factor: Decimal | None = None
    code_letter: str | None = None
    design_letter: str | None = None
    insulation_class: str | None = None
    ambient_c: Decimal | None = None
    temperature_rise_c: Decimal | None = None
    duty: str | None = None
    leads: int | None = None
    efficiency_percent: tuple[Decimal, ...] = ()
    power_factor_percent: tuple[Decimal, ...] = ()
    poles: tuple[int, ...] = ()
    usable: tuple[Usable, ...] = ()
    secondary_v: Decimal | None = None
    secondary_a: Decimal | None = None
    field_v: tuple[Decimal, ...] = ()
    field_a: tuple[Decimal, ...] = ()
    field_ohm: tuple[Decimal, ...] = ()
    minimum_circuit_ampacity_a: Decimal | None = None
    maximum_overcurrent_a: Decimal | None = None
    drive_ranges: tuple[DriveRange, ...] = ()
    is_drive_only: bool = False
    max_safe_rpm: Decimal | None = None
    altitude: tuple[Decimal, str] | None = None
    code_letters: tuple[str, ...] = ()
    diagrams: tuple[str, ...] = ()
    marks: dict[str, str] = field(default_factory=dict)
    thermal: str | None = None
    frame: str | None = None
    enclosure: str | None = None
    connection_signs: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    accessories: tuple[str, ...] = ()
    is_premium_efficiency: bool = False

    @property
    def is_thermally_protected(self) -> bool:
        """Tell whether the motor has a protector of its own that opens its circuit."""
        return self.thermal in {"protected", "automatic", "manual", "impedance"}

    @property
    def is_hermetic(self) -> bool:
        """Tell whether this is a hermetic compressor's plate (Article 440).

        Rated-load amps beside horsepower are a compressor too, never a motor of Article 430.
        """
        return bool(self.rated_load_amps_a) or "compressor" in self.words

    @property
    def kind(self) -> Kind:
        """Return what kind of motor this is; empty if neither words nor phases say so."""
        by_word: tuple[tuple[bool, Kind], ...] = (
            (self.is_hermetic, "compressor"),
            ("torque_motor" in self.words, "torque"),
            ("wound_rotor" in self.words or self.secondary_v is not None, "wound_rotor"),
            ("synchronous" in self.words, "synchronous"),
        )
        for is_so, kind in by_word:
            if is_so:
                return kind
        phases: dict[int | None, Kind] = {
            0: "direct_current",
            1: "single_phase",
            2: "two_phase",
            3: "three_phase",
        }
        return phases.get(self.phases, "")

    @property
    def speeds(self) -> int:
        """Return how many speeds the motor itself has.

        Two frequencies, a weakened field and the range of a drive are no speeds.
        """
        if self.phases == 0 or "synchronous" in self.words:
            return 1
        for words, count in (("four_speed", 4), ("three_speed", 3), ("two_speed", 2)):
            if words in self.words:
                return count
        if len(self.poles) > 1:
            return len(self.poles)
        return max(1, len(self.speed_rpm)) if len(self.frequency_hz) <= 1 else 1

    @property
    def torque(self) -> str:
        """Return what a two-speed winding keeps: by its words, or by its two signs."""
        for name in ("constant_torque", "variable_torque", "constant_power"):
            if name in self.words:
                return name
        signs: dict[tuple[str, ...], str] = {
            ("D", "YY"): "constant_torque",
            ("Y", "YY"): "variable_torque",
            ("YY", "D"): "constant_power",
        }
        return signs.get(self.connection_signs, "") if self.speeds == 2 else ""

    @property
    def windings(self) -> int:
        """Return how many windings a motor of several speeds has, 0 where nothing tells."""
        if self.speeds == 1:
            return 0
        if "one_winding" in self.words:
            return 1
        if "two_winding" in self.words or self.speeds > 2:
            return 2
        if self.connection_signs:
            return 1 if self.connection_signs[0] != self.connection_signs[-1] else 2
        return 0

    def amps_at(self, column: int, volts_v: Decimal) -> Decimal | None:
        """Return the amps stamped for the volts in use [A], in stamped order.

        Parameters
        ----------
        column : int
            Which stamped voltage is in use, from 0.
        volts_v : Decimal
            Volts of the supply. [V]

        Returns
        -------
        Decimal or None
            Of a range, the end that belongs to the nearer end of the volts; None if no amps
            belong to that column.
        """
        for usable in self.usable:
            if usable.amps_a is not None and abs(usable.volts_v - volts_v) <= 2:
                return usable.amps_a
        if len(self.amps_a) == len(self.volts_v):
            amps = self.amps_a[column]
        elif len(self.amps_a) == 1 and self.speeds == 1:
            amps = self.amps_a[0]
        else:
            return None
        band = self.volts_v[column]
        is_nearer_first = abs(volts_v - band.first) <= abs(volts_v - band.last)
        return amps.first if is_nearer_first and band.low != band.high else amps.last


@dataclass(frozen=True, slots=True, kw_only=True)
class PlateReading:
    """The nameplate, each piece of its text, what is missing, and what was checked.

    ``assumed`` names the fields that stand on a guess; ``others`` are the same
    motor's ratings at the nameplate's other frequencies.
    """

    text: str
    plate: Nameplate
    tokens: tuple[Token, ...]
    missing: tuple[Missing, ...]
    findings: tuple[Finding, ...]
    assumed: tuple[Assumed, ...] = ()
    others: tuple[Nameplate, ...] = ()
    spans: dict[str, tuple[int, int]] = field(default_factory=dict)

    def is_assumed(self, name: str) -> bool:
        """Tell whether a field was put in by a person instead of read."""
        return any(item.field == name for item in self.assumed)

    def at(self, frequency_hz: Decimal) -> PlateReading:
        """Return the reading whose rating is for a frequency [Hz], if the nameplate has two."""
        if frequency_hz in self.plate.frequency_hz:
            return self
        for other in self.others:
            if frequency_hz in other.frequency_hz:
                rest = (self.plate, *(one for one in self.others if one is not other))
                return replace(self, plate=other, others=rest)
        return self
