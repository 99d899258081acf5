"""Entries' subjects as plain values, to be stored with the revision they belong to."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from evencoil.acts.model import Row, Rules, Source, Stage, Wire, Work

__all__ = ["work_as_json", "work_from_json"]


def work_as_json(work: Work) -> dict[str, Any]:
    """Return what entries can be about as plain values.

    Parameters
    ----------
    work : Work
        Of one revision.
    """
    rules = work.rules
    return {
        "sources": {
            name: {
                "kind": one.kind,
                "isolator": one.isolator,
                "points": list(one.points),
                "wait_s": one.wait_s,
            }
            for name, one in work.sources.items()
        },
        # lists: a store of plain values may not keep the order of names
        "wires": [
            {"id": name, "ends": list(one.ends), "scope": one.scope}
            for name, one in work.wires.items()
        ],
        "rows": [
            {"id": name, "wires": list(one.wires), "min": one.least, "max": one.most}
            for name, one in work.rows.items()
        ],
        "items": list(work.items),
        "expect": {name: dict(one) for name, one in work.expect.items()},
        "stages": [
            {
                "id": name,
                "live": list(one.live),
                "scope": list(one.scope),
                "needs": list(one.needs),
            }
            for name, one in work.stages.items()
        ],
        "rules": {
            "dead_limit_v": rules.dead_limit_v,
            "two_person": sorted(rules.two_person),
            "torque": sorted(rules.torque),
            "two_sign": rules.two_sign,
            "has_license": rules.has_license,
            "is_rehearsed": rules.is_rehearsed,
        },
    }


def work_from_json(told: Mapping[str, Any]) -> Work:
    """Return what entries can be about from plain values.

    Parameters
    ----------
    told : mapping
        From `work_as_json`.
    """
    rules = told["rules"]
    return Work(
        sources={
            name: Source(
                kind=one["kind"],
                isolator=one["isolator"],
                points=tuple(one["points"]),
                wait_s=float(one["wait_s"]),
            )
            for name, one in told["sources"].items()
        },
        wires={
            name: Wire(ends=(one["ends"][0], one["ends"][1]), scope=one["scope"])
            for name, one in _by_id(told["wires"])
        },
        rows={
            name: Row(wires=tuple(one["wires"]), least=one["min"], most=one["max"])
            for name, one in _by_id(told["rows"])
        },
        items=tuple(told["items"]),
        expect=told["expect"],
        stages={
            one["id"]: Stage(
                live=tuple(one["live"]), scope=tuple(one["scope"]), needs=tuple(one["needs"])
            )
            for one in told["stages"]
        },
        rules=Rules(
            dead_limit_v=rules["dead_limit_v"],
            two_person=frozenset(rules["two_person"]),
            torque=frozenset(rules["torque"]),
            two_sign=rules["two_sign"],
            has_license=rules["has_license"],
            is_rehearsed=rules["is_rehearsed"],
        ),
    )


def _by_id(told: Any) -> list[tuple[str, Any]]:
    """Return names and values of a list, or of what an earlier version stored by name."""
    if isinstance(told, Mapping):
        return list(told.items())
    return [(str(one["id"]), one) for one in told]
