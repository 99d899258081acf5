"""The stages of energizing as they are sent: what to do, and what was read."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from api.schemas import Schema
from evencoil.acts import (
    OPEN,
    RESULTS,
    Entry,
    Log,
    PanelState,
    expected_in,
    figure,
    is_result_good,
    place_of,
    rolled_leads,
    turns_as_before,
)
from evencoil.base import (
    CAUSE_PERCENT,
    DERATE_PERCENT,
    MOST_PERCENT,
    Message,
    say,
    unbalance_of_three,
)
from panel.models import PanelRevision

__all__ = ["VERDICTS", "PanelStageOut", "said_result", "stages_out"]


class PanelResultOut(Schema):
    """One result of a stage: where, between what, and what was read last."""

    id: str
    kind: str
    at: str
    said: str
    unit: str
    is_needed: bool
    min: str | None
    max: str | None
    likely: str
    value: str
    verdict: str


class PanelStageOut(Schema):
    """One step of energizing, and how it stands.

    ``remedy`` is what hands may change because of it: ``swap`` two lines, ``roll`` the leads, or
    nothing. ``opened`` is the opening that results belong to: the one that is open, else the last.
    """

    id: str
    said: str
    state: str
    feeds: list[str]
    says: list[str]
    results: list[PanelResultOut]
    told: list[str]
    remedy: str
    opened: str
    is_open: bool
    opened_by: str


def stages_out(
    revision: PanelRevision, log: Log, state: PanelState, names: Mapping[str, str]
) -> list[PanelStageOut]:
    """Return every stage in order."""
    return [_stage(one, log, state, names) for one in revision.body.get("stages", [])]


def _stage(
    told: Mapping[str, Any], log: Log, state: PanelState, names: Mapping[str, str]
) -> PanelStageOut:
    view = log.now()
    openings = [one for one in view.of("stage_opened") if one.about["stage"] == told["id"]]
    closed = {one.about["opened"] for one in view.of("stage_closed")}
    standing = [one for one in openings if one.id not in closed]
    newest = standing or openings
    opening = newest[-1] if newest else None
    inside: list[Entry] = []
    if opening is not None:
        inside = [
            one
            for one in view.of(*RESULTS)
            if one.about.get("opened") == opening.id and not view.is_corrected(one)
        ]
    results = [_result(one, told["id"], log, inside) for one in told["results"]]
    return PanelStageOut(
        id=told["id"],
        said=told["said"],
        state=state.stages.get(told["id"], "not_done"),
        feeds=told["feeds"],
        says=told["says"],
        results=results,
        told=[
            say(one) for one in (*_told(results), *_bumped(log, inside), *_rolled(log, told["id"]))
        ],
        remedy=_remedy(results, log),
        opened="" if opening is None else opening.id,
        is_open=bool(standing),
        opened_by="" if opening is None else names.get(opening.by, opening.by),
    )


def _remedy(results: list[PanelResultOut], log: Log) -> str:
    """Return what mends or tells apart what was read; empty for nothing."""
    bumps = [one for one in results if one.kind == "bump_result" and one.value]
    turns = {one.value.partition(" ")[0] for one in bumps}
    if bumps and all(one.verdict == "wrong" for one in bumps) and len(turns) == len(bumps):
        return "swap"
    amps = [figure(one.value) for one in results if one.kind == "amps" and one.value]
    if len(amps) != 3 or OPEN in amps:
        return ""
    percent, rolled = unbalance_of_three(amps), rolled_leads(log.now())
    is_told = rolled is not None and rolled.why != "unclear"
    return "roll" if percent is not None and percent > CAUSE_PERCENT and not is_told else ""


def _bumped(log: Log, inside: list[Entry]) -> Iterator[Message]:
    """Go through what the bumps say beside each other, and beside how it ran before."""
    bumps = [one for one in inside if one.kind == "bump_result"]
    newest = {place_of(one): str(one.body.get("turn", "")) for one in bumps}
    if len(newest) == 2 and len(set(newest.values())) == 1:
        yield Message("panel.bump.same_way")
    for one in bumps[-1:]:
        same = turns_as_before(log.now(), one)
        if same is not None:
            before = [note.body for note in log.now().of("note") if note.body.get("ran_before")][-1]
            yield Message(
                "panel.bump.as_before" if same else "panel.bump.other",
                {"turn": str(before["turn"]), "seen_from": f"seen from the {before['viewpoint']}"},
            )


def _rolled(log: Log, stage: str) -> Iterator[Message]:
    """Go through what rolling the leads told, at the stage that was read on both sides of it."""
    found = rolled_leads(log.now())
    if found is not None and found.stage == stage:
        yield Message(
            f"panel.rolled.{found.why}",
            {
                name: " / ".join(f"{one:f}" for one in read)
                for name, read in (("before", found.before), ("after", found.after))
            },
        )


def _result(told: Mapping[str, Any], stage: str, log: Log, inside: list[Entry]) -> PanelResultOut:
    found = [one for one in inside if one.kind == told["kind"] and place_of(one) == told["at"]]
    known = expected_in(log.work, stage, told["kind"]) or {}
    value, verdict = "", ""
    if found:
        value = said_result(found[-1])
        verdict = VERDICTS[is_result_good(log.now(), found[-1])]
    return PanelResultOut(
        **told,
        min=known.get("min"),
        max=known.get("max"),
        likely=known.get("likely", ""),
        value=value,
        verdict=verdict,
    )


def said_result(one: Entry) -> str:
    """Return what was read, or which of two it was, in words."""
    body = one.body
    if one.kind == "vibration" and body.get("mm_s"):
        return str(body["mm_s"])
    if one.kind in {"control_result", "vibration"}:
        return say(Message("panel.result.ok" if body.get("ok") else "panel.result.not_ok"))
    if one.kind == "bump_result":
        return f"{body.get('turn', '')} ({body.get('wanted', '')})"
    return str(body.get("order") or body.get("value", ""))


#: what a verdict of the core is called on the screen
VERDICTS = {True: "good", False: "wrong", None: "not_judged"}


def _told(results: list[PanelResultOut]) -> Iterator[Message]:
    """Go through what three readings of volts or amps say together."""
    for kind in ("volts", "amps"):
        values = [one.value for one in results if one.kind == kind and one.value]
        figures = [figure(one) for one in values]
        if len(figures) != 3 or OPEN in figures:
            continue
        percent = unbalance_of_three(figures)
        if percent is None:
            continue
        name = kind
        if kind == "volts" and percent > DERATE_PERCENT:
            name = "most" if percent > MOST_PERCENT else "derate"
        if kind == "amps" and percent > CAUSE_PERCENT:
            name = "roll"
        yield Message(
            f"panel.balance.{name}",
            {"percent": f"{percent:.2g}", "values": " / ".join(values)},
        )
    yield from _joints(results)


#: between joints that carry the same current (trade practice) [K]
_LOOK_K, _NOW_K = 4, 15


def _joints(results: list[PanelResultOut]) -> Iterator[Message]:
    """Go through what the joints of each device say beside each other."""
    read: dict[str, list[PanelResultOut]] = {}
    for one in results:
        if one.kind == "joint_check" and one.value:
            read.setdefault(one.at.rpartition(" ")[0], []).append(one)
    for device, alike in read.items():
        if len(alike) < 2:
            continue
        warmest = max(alike, key=lambda one: figure(one.value))
        spread = figure(warmest.value) - min(figure(one.value) for one in alike)
        name = "alike" if spread < _LOOK_K else "look" if spread <= _NOW_K else "now"
        yield Message(
            f"panel.joints.{name}",
            {"device": device, "at": warmest.at, "spread": f"{spread:f}"},
        )
