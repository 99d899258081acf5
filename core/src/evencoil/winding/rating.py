"""For what line volts each connection of a winding is made, read from the nameplate.

A nameplate column with a sign (``220-240 D / 380-415 Y``) says it outright. Without
signs the lead count and the ratio of the two voltages say it, or the question
is put. What no one stamped follows from the coil: it is made for the same volts
in every connection.

Units: volts [V].
Source: wye and delta differ by the root of three, series and parallel halves by
two (textbook polyphase circuits; NEMA MG 1 part 2).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Literal

from evencoil.base import Message, MissingError, RefusedError, plain, show
from evencoil.plate import Band, Nameplate
from evencoil.winding.coils import Winding
from evencoil.winding.connections import Connection, run_joinings

__all__ = ["Rating", "RunShape", "rating_of"]

RunShape = Literal["wye", "delta"]
_TWO = (Decimal("1.9"), Decimal("2.1"))
_ROOT3 = (Decimal("1.65"), Decimal("1.82"))
_NAME_OF = {
    1: {"Y": "wye", "D": "delta", "YY": "", "DD": ""},
    2: {
        "Y": "series_wye",
        "YY": "parallel_wye",
        "D": "series_delta",
        "DD": "parallel_delta",
    },
}


@dataclass(frozen=True, slots=True)
class Rating:
    """Line volts of each connection, as a range, and what stands on an inference.

    Attributes
    ----------
    line_v : mapping
        From a connection's name to its lowest and highest rated line volts. [V]
    stamped : frozenset of str
        Names that the nameplate itself gives.
    notes : tuple of Message
        What was inferred and not read.
    """

    line_v: Mapping[str, tuple[float, float]]
    stamped: frozenset[str] = frozenset()
    notes: tuple[Message, ...] = field(default=())

    def line_band(self, known: Connection) -> tuple[float, float]:
        """Return the line volts a connection is made for, lowest and highest [V]."""
        return self.line_v[known.name.removesuffix("_crossed")]

    def nearest_line_v(self, known: Connection, supply_v: float) -> float:
        """Return the rated line volts of a connection that lie nearest to a supply [V]."""
        low, high = self.line_band(known)
        return min(max(supply_v, low), high)

    def off(self, known: Connection, supply_v: float) -> float:
        """Return how far a supply lies outside a connection's range, as a signed part."""
        rated = self.nearest_line_v(known, supply_v)
        return (supply_v - rated) / rated


def _refused(code: str, **params: str) -> RefusedError:
    return RefusedError(
        Message(f"rating.{code}", params),
        field="volts_v",
        hint=Message(f"rating.{code}.hint", params),
    )


def _missing(code: str, field_name: str, **params: str) -> MissingError:
    return MissingError(
        Message(f"rating.{code}", params),
        field=field_name,
        hint=Message(f"rating.{code}.hint", params),
    )


def _signs(plate: Nameplate) -> list[str]:
    """Return the sign of each column, or empty text where none is stamped."""
    own = [band.sign for band in plate.volts_v]
    if any(own):
        return own
    said = plate.connection_signs
    if len(said) == len(plate.volts_v):
        return list(said)
    return [""] * len(plate.volts_v)


def _by_signs(winding: Winding, plate: Nameplate, signs: Sequence[str]) -> dict[str, Band]:
    known = {item.name for item in run_joinings(winding.kind)}
    halves = winding.halves
    if halves == 1 and "wye" not in known:
        known |= {"wye"} if winding.is_wye else set()
    found: dict[str, Band] = {}
    for band, sign in zip(plate.volts_v, signs, strict=True):
        name = _NAME_OF[halves].get(sign, "")
        if name not in known:
            raise _refused(
                "sign",
                sign=sign,
                volts=str(band),
                count=str(len(winding.leads)),
                kinds=", ".join(sorted(known)).replace("_", " "),
            )
        found[name] = band
    return found


def _three(winding: Winding, bands: Sequence[Band]) -> dict[str, Band]:
    if len(bands) > 1:
        raise RefusedError(
            Message("leads.too_few", {"count": str(len(winding.leads))}),
            field="leads",
            hint=Message("leads.too_few.hint"),
        )
    return {"wye" if winding.is_wye else "delta": bands[0]}


def _ratio(bands: Sequence[Band]) -> Decimal:
    return bands[-1].high / bands[0].high


def _six(bands: Sequence[Band], notes: list[Message], shape: RunShape | None) -> dict[str, Band]:
    if len(bands) == 1:
        if shape is None:
            notes.append(Message("rating.six_delta", {"volts": str(bands[0])}))
        return {shape or "delta": bands[0]}
    if len(bands) == 2 and _ROOT3[0] <= _ratio(bands) <= _ROOT3[1]:
        return {"delta": bands[0], "wye": bands[1]}
    raise _refused(
        "six",
        low=str(bands[0]),
        high=str(bands[-1]),
        ratio=show(_ratio(bands)),
    )


def _halves(winding: Winding, bands: Sequence[Band], shape: RunShape | None) -> dict[str, Band]:
    """Return the columns of a winding of two halves a phase."""
    count = str(len(winding.leads))
    if len(bands) == 4 and len(winding.leads) == 12:
        return dict(
            zip(
                ("parallel_delta", "parallel_wye", "series_delta", "series_wye"), bands, strict=True
            )
        )
    if len(bands) == 1:
        raise _missing("one_voltage", "volts_v", volts=str(bands[0]), count=count)
    if len(bands) > 2 or not _TWO[0] <= _ratio(bands) <= _TWO[1]:
        if len(winding.leads) == 12 and len(bands) == 2 and _ROOT3[0] <= _ratio(bands) <= _ROOT3[1]:
            raise _missing("twelve_root3", "volts_v", low=str(bands[0]), high=str(bands[1]))
        raise RefusedError(
            Message(
                "leads.ratio",
                {"high": str(bands[-1]), "low": str(bands[0]), "count": count},
            ),
            field="volts_v",
            hint=Message("leads.ratio.hint"),
        )
    if len(winding.leads) == 12 and shape is None:
        raise _missing("twelve_shape", "leads.run_shape", low=str(bands[0]), high=str(bands[1]))
    runs = shape if len(winding.leads) == 12 else "wye" if winding.is_wye else "delta"
    return {f"parallel_{runs}": bands[0], f"series_{runs}": bands[1]}


def _speeds(winding: Winding, bands: Sequence[Band]) -> dict[str, Band]:
    if len(bands) > 2 or (len(bands) == 2 and winding.kind != "2-speed-2-winding"):
        raise _refused("two_speed", low=str(bands[0]), high=str(bands[-1]))
    return {known.name: bands[-1] for known in run_joinings(winding.kind)}


def _single(winding: Winding, bands: Sequence[Band]) -> dict[str, Band]:
    is_dual = winding.halves == 2
    if is_dual:
        if len(bands) == 1:
            raise _missing(
                "one_voltage", "volts_v", volts=str(bands[0]), count=str(len(winding.leads))
            )
        if len(bands) != 2 or not _TWO[0] <= bands[-1].high / bands[0].high <= _TWO[1]:
            raise _refused("single_ratio", low=str(bands[0]), high=str(bands[-1]))
        return {
            known.name: bands["parallel" not in known.name] for known in run_joinings(winding.kind)
        }
    if len(bands) > 1:
        raise _refused("single_one", count=str(len(winding.leads)))
    return {known.name: bands[0] for known in run_joinings(winding.kind)}


def rating_of(winding: Winding, plate: Nameplate, shape: RunShape | None = None) -> Rating:
    """Return the line volts that each connection of a winding is made for.

    Parameters
    ----------
    winding : Winding
        The coils.
    plate : Nameplate
        With its volts, and signs where stamped.
    shape : str or None
        Whether the motor runs in wye or in delta, where a person said so
        because the nameplate does not.

    Returns
    -------
    Rating
        For every connection to run with and, where it has one, to start with.

    Raises
    ------
    CoreError
        If the nameplate gives no volts, its volts or signs do not fit the winding,
        or it leaves open what a column stands for.
    """
    bands = sorted(plate.volts_v, key=lambda band: band.high)
    if not bands:
        raise MissingError(
            Message("plate.no_volts"), field="volts_v", hint=Message("plate.no_volts.hint")
        )
    notes: list[Message] = []
    signs = _signs(plate)
    stamped: dict[str, Band]
    if winding.phases == 1:
        stamped = _single(winding, bands)
    elif winding.is_two_speed:
        stamped = _speeds(winding, bands)
    elif winding.kind == "part-winding":
        if len(bands) > 1:
            raise _refused("part", low=str(bands[0]), high=str(bands[-1]))
        stamped = {"part_winding_run": bands[0], "part_winding_start": bands[0]}
    elif all(signs):
        stamped = _by_signs(winding, plate, signs)
    elif len(winding.leads) == 3:
        stamped = _three(winding, bands)
    elif winding.kind == "6":
        stamped = _six(bands, notes, shape)
    else:
        stamped = _halves(winding, bands, shape)
    return Rating(_all(winding, stamped), frozenset(stamped), tuple(notes))


def _all(winding: Winding, stamped: Mapping[str, Band]) -> dict[str, tuple[float, float]]:
    """Add what follows from the coil to what is stamped; refuse columns that contradict."""
    line = {name: (float(band.low), float(band.high)) for name, band in stamped.items()}
    known = {item.name: item for item in run_joinings(winding.kind)}
    given = [name for name in stamped if name in known]
    if winding.phases == 3 and not winding.is_two_speed and given:
        factors = {name: known[name].factor for name in given}
        coil = {name: line[name][1] / factors[name] for name in given}
        least, most = min(coil, key=coil.__getitem__), max(coil, key=coil.__getitem__)
        # a range of volts under one sign may overlap what the other sign asks
        lowest = line[most][0] / factors[most]
        if lowest > coil[least] * 1.1:
            raise _refused(
                "columns",
                one=plain(Decimal(round(line[least][1]))),
                other=plain(Decimal(round(line[most][1]))),
                coil=f"{coil[least]:.0f}",
                coil_other=f"{coil[most]:.0f}",
            )
        first = given[0]
        for name, item in known.items():
            scale = item.factor / factors[first]
            line.setdefault(name, (line[first][0] * scale, line[first][1] * scale))
    if "parallel_wye" in line:
        line["half_wye_start"] = line["parallel_wye"]
    return line
