"""Which windings have this many leads, and what rules each of them out.

Six leads may be wye-delta, part-winding, or four kinds of two-speed motor. Plate
words, the number of speeds and the ohm pattern decide; where they do not, the
reading that would is named.

Units: none. Source: terminal marking, NEMA MG 1 part 2; continuity between the
leads of each winding kind follows from its coils.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError, Message, MissingError, OutOfRangeError, RefusedError
from evencoil.plate import Nameplate
from evencoil.winding.coils import KINDS, Winding, WindingKind, winding_of

__all__ = ["LookAlike", "continuity_groups", "kind_from_plate", "lead_counts", "look_alikes"]

_TWO_SPEED_WORDS = {
    "constant_torque": "2-speed-ct",
    "variable_torque": "2-speed-vt",
    "constant_power": "2-speed-cp",
    "two_winding": "2-speed-2-winding",
}


#: signs that a kind cannot have
_SIGNS_AGAINST = {
    "part-winding": {"D", "DD"},
    "9-wye": {"D", "DD"},
    "9-delta": {"Y", "YY"},
    "3-wye": {"D"},
    "3-delta": {"Y"},
}


@dataclass(frozen=True, slots=True)
class LookAlike:
    """A winding kind with as many leads, and why it is out if it is."""

    kind: WindingKind
    reason: Message | None

    @property
    def is_possible(self) -> bool:
        """Tell whether nothing rules it out."""
        return self.reason is None


def continuity_groups(winding: Winding) -> tuple[int, ...]:
    """Return how many leads ring together in each group, largest first.

    Parameters
    ----------
    winding : Winding
        With all its leads apart.
    """
    owner: dict[str, str] = {}

    def root(point: str) -> str:
        while owner.setdefault(point, point) != point:
            point = owner[point]
        return point

    for coil in winding.coils:
        owner[root(coil.start)] = root(coil.end)
    counts = Counter(root(lead) for lead in winding.leads)
    return tuple(sorted(counts.values(), reverse=True))


def _speeds(plate: Nameplate) -> int:
    """Return how many speeds the nameplate tells of; 0 if it tells none."""
    if len(plate.frequency_hz) > 1 and len(plate.speed_rpm) == len(plate.frequency_hz):
        return 1
    powers = max(len(plate.power_hp), len(plate.power_kw))
    return max(len(plate.speed_rpm), powers if len(plate.frequency_hz) < 2 else 0)


def _signs(plate: Nameplate) -> set[str]:
    return {sign for sign in (*plate.connection_signs, *(b.sign for b in plate.volts_v)) if sign}


def _by_speed(kind: str, plate: Nameplate) -> Message | None:
    count, is_two = _speeds(plate), kind.startswith("2-speed")
    if is_two and count == 1:
        return Message("alike.one_speed")
    if not is_two and count == 2:
        return Message("alike.two_speeds")
    rpm = sorted(plate.speed_rpm)
    if is_two and len(rpm) == 2:
        ratio = rpm[1] / rpm[0]
        if kind != "2-speed-2-winding" and not Decimal("1.8") <= ratio <= Decimal("2.2"):
            return Message("alike.speed_ratio", {"low": str(rpm[0]), "high": str(rpm[1])})
    return None


def _by_power(kind: str, plate: Nameplate) -> Message | None:
    """Two-speed torque kinds by the powers: half, a quarter, or the same at low speed."""
    powers = sorted(plate.power_hp or plate.power_kw)
    if kind not in {"2-speed-ct", "2-speed-vt", "2-speed-cp"} or len(plate.speed_rpm) != 2:
        return None
    if len(powers) == 1:
        return None if kind == "2-speed-cp" else Message("alike.same_power")
    if len(powers) != 2:
        return None
    ratio = powers[1] / powers[0]
    fits = {
        "2-speed-ct": Decimal("1.4") <= ratio <= Decimal("2.8"),
        "2-speed-vt": ratio > Decimal("2.8"),
        "2-speed-cp": ratio < Decimal("1.4"),
    }
    if fits[kind]:
        return None
    return Message("alike.power", {"low": str(powers[0]), "high": str(powers[1])})


def _by_volts(kind: str, plate: Nameplate) -> Message | None:
    volts = sorted(plate.volts_v, key=lambda band: band.high)
    if len(volts) < 2 or not kind.startswith(("part", "2-speed")):
        return None
    return Message("alike.two_voltages", {"low": str(volts[0]), "high": str(volts[-1])})


def _by_words(kind: str, plate: Nameplate) -> Message | None:
    words = set(plate.words)
    wanted = {_TWO_SPEED_WORDS[word] for word in words if word in _TWO_SPEED_WORDS}
    if "part_winding" in words:
        wanted.add("part-winding")
    if "wye_delta" in words:
        wanted |= {"6", "12"}
    if wanted and kind not in wanted:
        return Message("alike.words")
    signs = _signs(plate)
    forbidden = _SIGNS_AGAINST.get(kind)
    return Message("alike.sign") if forbidden is not None and signs & forbidden else None


def look_alikes(plate: Nameplate, count: int, groups: Sequence[int] = ()) -> tuple[LookAlike, ...]:
    """Return every winding kind of this many leads, each with what rules it out.

    Parameters
    ----------
    plate : Nameplate
        Its speeds, powers, volts, signs and words.
    count : int
        Leads of the winding, without heater and thermostat leads.
    groups : sequence of int
        How many leads ring together in each group, where that was read.

    Returns
    -------
    tuple of LookAlike
        In the order of `KINDS`.
    """
    found = []
    for winding in KINDS.values():
        if len(winding.leads) != count:
            continue
        reason: Message | None = None
        if plate.phases is not None and plate.phases != winding.phases:
            reason = Message("alike.phases", {"phases": str(plate.phases)})
        elif plate.phases is None and winding.phases == 1 and count in {2, 4, 6}:
            reason = None if count != 6 else Message("alike.phases", {"phases": "3"})
        if reason is None and groups:
            own = continuity_groups(winding)
            if tuple(sorted(groups, reverse=True)) != own:
                reason = Message("alike.groups", {"groups": " + ".join(map(str, own))})
        for test in (_by_words, _by_speed, _by_power, _by_volts):
            reason = reason or test(winding.kind, plate)
        found.append(LookAlike(winding.kind, reason))
    return tuple(found)


def _names(kinds: Iterable[str]) -> str:
    return ", ".join(str(Message(f"kind_name.{kind}")) for kind in kinds)


def kind_from_plate(plate: Nameplate, chosen: str | None, groups: Sequence[int] = ()) -> Winding:
    """Return the winding kind that a person chose or plate and readings decide.

    Parameters
    ----------
    plate : Nameplate
        Lead count, speeds, signs and words.
    chosen : str or None
        A kind that a person settled.
    groups : sequence of int
        How many leads ring together in each group, where that was read.

    Returns
    -------
    Winding
        The coils.

    Raises
    ------
    CoreError
        If the lead count is missing or unknown, contradicts the choice, or
        leaves several kinds open: the reading that settles it is named.
    """
    if chosen is not None:
        winding = winding_of(chosen)
        if plate.leads is not None and len(winding.leads) != plate.leads:
            raise RefusedError(
                Message(
                    "leads.kind_contradicts",
                    {"kind": _names([chosen]), "count": str(plate.leads)},
                ),
                field="leads.winding",
                hint=Message("leads.kind_contradicts.hint"),
            )
        if groups and tuple(sorted(groups, reverse=True)) != continuity_groups(winding):
            raise RefusedError(
                Message(
                    "leads.groups_contradict",
                    {
                        "kind": _names([chosen]),
                        "found": " + ".join(map(str, groups)),
                        "own": " + ".join(map(str, continuity_groups(winding))),
                    },
                ),
                field="leads.groups",
                hint=Message("leads.groups_contradict.hint"),
            )
        return winding
    if plate.leads is None:
        raise MissingError(
            Message("leads.no_count"), field="leads", hint=Message("leads.no_count.hint")
        )
    alike = look_alikes(plate, plate.leads, groups)
    if not alike:
        raise _no_kind(plate.leads)
    left = [item.kind for item in alike if item.is_possible]
    if len(left) == 1:
        return KINDS[left[0]]
    if plate.leads == 3 and set(left) >= {"3-wye", "3-delta"}:
        # the joints are the same for both; `Box.note` says that wye is shown
        return KINDS["3-wye"]
    raise _open(plate.leads, left)


def lead_counts(phases: int | None) -> tuple[int, ...]:
    """Return every number of leads that a winding of some phases can have, smallest first.

    Parameters
    ----------
    phases : int or None
        1 or 3; None for both.
    """
    return tuple(sorted({len(one.leads) for one in KINDS.values() if phases in (None, one.phases)}))


def _no_kind(count: int) -> CoreError:
    return OutOfRangeError(
        Message("leads.count", {"count": str(count)}),
        field="leads",
        hint=Message("leads.count.hint", {"counts": ", ".join(map(str, lead_counts(None)))}),
    )


def _open(count: int, left: Sequence[WindingKind]) -> CoreError:
    if not left:
        return RefusedError(
            Message("leads.none_fits", {"count": str(count)}),
            field="leads.winding",
            hint=Message("leads.none_fits.hint"),
        )
    if count == 9:
        return MissingError(
            Message("leads.wye_or_delta", {"count": str(count)}),
            field="leads.winding",
            hint=Message("leads.wye_or_delta.hint"),
        )
    groups = {kind: continuity_groups(KINDS[kind]) for kind in left}
    settles = "leads.look_alike.ohms" if len(set(groups.values())) > 1 else "leads.look_alike.words"
    patterns = "; ".join(
        f"{' + '.join(map(str, group))}: {_names(k for k in left if groups[k] == group)}"
        for group in dict.fromkeys(groups.values())
    )
    return MissingError(
        Message("leads.look_alike", {"count": str(count), "kinds": _names(left)}),
        field="leads.winding",
        hint=Message(settles, {"patterns": patterns}),
    )
