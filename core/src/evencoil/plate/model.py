"""What a nameplate says, as data.

Units: power [hp] and [kW], volts [V], amps [A], speed [rpm], frequency [Hz],
temperatures [C], efficiency and power factor [percent].
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from decimal import Decimal
from typing import Literal

from evencoil.base import Finding, Message, plain

__all__ = ["Assumed", "Band", "Lexeme", "Missing", "Nameplate", "PlateReading", "Token"]

Status = Literal["understood", "doubted", "unread"]


@dataclass(frozen=True, slots=True)
class Band:
    """One figure or one range on a nameplate, with the connection sign beside it.

    ``208-230`` is a range of 208 to 230; ``460`` has ``low == high``; ``sign``
    is ``D``, ``DD``, ``Y`` or ``YY`` where one was stamped.
    """

    low: Decimal
    high: Decimal
    sign: str = ""

    def __str__(self) -> str:
        """Return the figure, or the range with a hyphen, as stamped."""
        low = plain(self.low)
        return low if self.low == self.high else f"{low}-{plain(self.high)}"

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
    efficiency_percent: Decimal | None = None
    power_factor_percent: Decimal | None = None
    frame: str | None = None
    enclosure: str | None = None
    connection_signs: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    accessories: tuple[str, ...] = ()
    is_premium_efficiency: bool = False
    is_thermally_protected: bool = False

    @property
    def is_hermetic(self) -> bool:
        """Tell whether this is a hermetic compressor's plate (Article 440)."""
        return bool(self.rated_load_amps_a) and not (self.power_hp or self.power_kw)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlateReading:
    """The nameplate, each piece of its text, what is missing, and what was checked.

    ``assumed`` names the fields that stand on a guess; ``other`` is the same
    motor's rating at the nameplate's other frequency, where it has two columns.
    """

    text: str
    plate: Nameplate
    tokens: tuple[Token, ...]
    missing: tuple[Missing, ...]
    findings: tuple[Finding, ...]
    assumed: tuple[Assumed, ...] = ()
    other: Nameplate | None = None
    spans: dict[str, tuple[int, int]] = field(default_factory=dict)

    def is_assumed(self, name: str) -> bool:
        """Tell whether a field was put in by a person instead of read."""
        return any(item.field == name for item in self.assumed)

    def at(self, frequency_hz: Decimal) -> PlateReading:
        """Return the reading whose rating is for a frequency [Hz], if the nameplate has two."""
        other = self.other
        if other is None or frequency_hz in self.plate.frequency_hz:
            return self
        if frequency_hz not in other.frequency_hz:
            return self
        return replace(self, plate=other, other=self.plate)
