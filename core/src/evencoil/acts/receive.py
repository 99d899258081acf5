"""An entry arrives: kept, kept in doubt, a duplicate, superseded, refused, or asked for again.

A closing counts at once and from anywhere; only its shape can refuse it. An opening counts
with its role, its history and its guard. A refused entry keeps its id and its place in the
order; what is not stored can be sent again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import Any

from evencoil.acts.figures import OPEN, FigureError, figure, is_within, judged
from evencoil.acts.hands import hands, is_good_check, is_live_reading, lock_states
from evencoil.acts.kinds import KINDS, RANK, RESULTS, Kind
from evencoil.acts.model import Entry
from evencoil.acts.past import Log, View
from evencoil.acts.results import expected_of_entry
from evencoil.acts.stages import forbids, open_stages, open_trips
from evencoil.acts.state import opens, to_judge

__all__ = ["is_opening", "receive"]

#: openings that are no hand on a wire, no lock and no stage: they come too late after a signature
_TOO_LATE = {
    "torqued",
    "factory_link_verified",
    "dead_reading",
    "insulation_reading",
    "ground_continuity",
    "coil_ohms",
    "covers_on",
    "people_clear",
    "reset",
    *RESULTS,
}


def receive(log: Log, entry: Entry) -> str:
    """Return the answer to an entry, and keep it as that answer says.

    Parameters
    ----------
    log : Log
        Everything that was received before.
    entry : Entry
        With its person and role as the server knows them.

    Returns
    -------
    str
        ``kept``, ``kept:`` with what its guard found, ``duplicate``, ``superseded``,
        ``refused:`` with the reason, or ``history_missing``.
    """
    if log.knows(entry.id):
        known = log.entry(entry.id)
        return "duplicate" if known.content() == entry.content() else "refused:id_reused"
    wrong, doubt = _shape(log, entry), ""
    opens_door = not wrong and is_opening(log, entry)
    if opens_door and any(not log.knows(name) for name in entry.based_on):
        return "history_missing"
    if opens_door:
        wrong, doubt = _guard(log, entry)
    elif not wrong:
        wrong = _closing_guard(log, entry)
    is_late = opens_door and not wrong and _is_too_late(log, entry)
    log.add(entry, counts=not wrong, is_superseded=is_late)
    if wrong:
        return f"refused:{wrong}"
    if is_late:
        return "superseded"
    return f"kept:{doubt}" if doubt else "kept"


def is_opening(log: Log, entry: Entry) -> bool:
    """Tell whether an entry would open a door: for hands, or for power.

    Parameters
    ----------
    log : Log
        What came before.
    entry : Entry
        Of a right shape.
    """
    body, work = entry.body, log.work
    if entry.kind in _CLOSINGS:
        return False
    if entry.kind in _SAYS:
        return bool(_SAYS[entry.kind](body))
    if entry.kind == "meter_live":
        return is_good_check(body, work.rules.dead_limit_v)
    if entry.kind == "dead_point":
        return not is_live_reading(log.now(), entry)
    return _is_as_expected(log, entry)


def _is_as_expected(log: Log, entry: Entry) -> bool:
    """Tell whether a reading is what it should be; true of an entry that is no reading."""
    body, work = entry.body, log.work
    if entry.kind == "dead_reading":
        row = work.rows.get(str(entry.about["row"]))
        return row is None or is_within(figure(body["value"]), row.least, row.most)
    if entry.kind in _JUDGED:
        known = expected_of_entry(log, work, entry)
        return judged(figure(body["value"]), known, body) is not False
    return True


#: kinds that shut a door, or neither open nor shut one; a lock is off for hands whoever reports
#: it, and for power only by its owner
_CLOSINGS = {
    "lock_off",
    "different_here",
    "source_listed",
    "left_panel",
    "trip",
    "correction",
    "sent_back",
    "photo",
    "stage_closed",
    "heater_seen",
    "setting_seen",
    "conductor_recorded",
    "color_seen",
}
#: kinds whose body says which it is
_SAYS: Mapping[str, Callable[[Mapping[str, Any]], object]] = {
    "landed": lambda body: body.get("ok"),
    "control_result": lambda body: body.get("ok"),
    "factory_link_verified": lambda body: body.get("ok"),
    "bump_result": lambda body: body.get("turn") == body.get("wanted"),
    "vibration": lambda body: body.get("ok"),
    "note": lambda body: body.get("clears") or body.get("accepts"),
}
#: kinds with a figure that is held against what is expected
_JUDGED = {
    "insulation_reading",
    "ground_continuity",
    "coil_ohms",
    "volts",
    "amps",
    "start_amps",
    "start_time",
    "speed",
    "joint_check",
}


def _shape(log: Log, entry: Entry) -> str:
    """Return what is wrong with the form of an entry, empty if nothing is."""
    kind = KINDS.get(entry.kind)
    if kind is None:
        return "kind"
    if not 1 <= entry.rev <= log.rev:
        return "revision"
    if any(name not in entry.about for name in kind.about) and kind.or_about not in entry.about:
        return "no_such_entry"
    return _figures(kind, entry.body) or _named(log, entry) or _reasons(entry)


def _figures(kind: Kind, body: Mapping[str, Any]) -> str:
    """Return what is wrong with the figures of an entry."""
    for name, (unit, least, most) in kind.figures.items():
        if name not in body:
            if name == "value":
                return "out_of_range"
            continue
        try:
            value = figure(body[name])
        except FigureError as wrong:
            return str(wrong.args[0])
        if unit and name == "value" and body.get("unit") != unit:
            return "unit"
        if value == OPEN:
            if not kind.can_be_open:
                return "out_of_range"
        elif not Decimal(least) <= value <= Decimal(most):
            return "out_of_range"
    return ""


def _named(log: Log, entry: Entry) -> str:
    """Return what an entry names that is not there."""
    about, work = entry.about, log.works[entry.rev - 1]
    if "wire" in about:
        wire = str(about["wire"])
        if not any(wire in known.wires for known in log.works):
            return "no_such_wire"
        known = work.wires.get(wire)
        is_other = known is not None and set(about.get("ends", ())) != set(known.ends)
        if entry.kind == "landed" and is_other:
            return "ends_not_of_revision"
    return _listed(log, entry)


def _listed(log: Log, entry: Entry) -> str:
    """Return which row, stage, opening or lock an entry names that is not there."""
    about, work = entry.about, log.works[entry.rev - 1]
    if "row" in about and not any(about["row"] in known.rows for known in log.works):
        return "no_such_row"
    if entry.kind == "stage_opened" and about["stage"] not in work.stages:
        return "no_such_entry"
    for name, kind in (("opened", "stage_opened"), ("trip", "trip")):
        known = about.get(name)
        if known is not None and not (log.knows(known) and log.entry(known).kind == kind):
            return "no_such_entry"
    if entry.kind == "foreign_lock_removed" and about["lock"] not in lock_states(log.now()):
        return "no_such_lock"
    return ""


def _reasons(entry: Entry) -> str:
    """Return whether an entry lacks the reason it needs."""
    if entry.kind == "correction" and not str(entry.body.get("reason", "")).strip():
        return "reason_missing"
    if entry.kind == "foreign_lock_removed":
        body = entry.body
        whole = str(body.get("reason", "")).strip() and body.get("tried") and body.get("witness")
        return "" if whole and body.get("area_checked") else "reason_missing"
    return ""


def _guard(log: Log, entry: Entry) -> tuple[str, str]:
    """Return why an opening is refused, and why it is kept in doubt; both empty if neither."""
    kind = KINDS[entry.kind]
    past = log.past_of_new(entry.based_on, entry.rev)
    has_role = RANK[entry.role] >= RANK[_role_of(entry, kind)]
    if entry.kind == "stage_opened":
        found = next(forbids(past, str(entry.about["stage"])), "")
        return "", (f"blocked:{found}" if found else "") if has_role else "role"
    if not has_role:
        return "role", ""
    if kind.needs_hands and (open_stages(past) or entry.by not in hands(past)):
        # a hand was on the wire all the same: that counts, the landing does not
        is_two_sided = entry.kind in {"landed", "swap_done"}
        return ("", "not_proven") if is_two_sided else ("not_proven", "")
    return _other_guard(log, entry, past), ""


def _other_guard(log: Log, entry: Entry, past: View) -> str:
    """Return why an opening that is no stage and no hand in a box is refused."""
    if KINDS[entry.kind].is_online:
        return _online(log, entry)
    opened = entry.about.get("opened")
    if entry.kind in RESULTS and opened is not None and not _is_open(past, str(opened)):
        return "no_stage_open"
    if entry.kind == "insulation_reading" and entry.body.get("connected") != []:
        # a tester on electronics destroys it, and what it reads is no winding
        return "disconnect_first"
    return _reset(past, entry) if entry.kind == "reset" else ""


def _role_of(entry: Entry, kind: Kind) -> Any:
    if entry.kind == "note":
        return "reviewer" if entry.body.get("accepts") else "electrician"
    if entry.kind == "lock_on" and entry.body.get("place") == "not_connected":
        # no lock hangs there: that nothing is connected is for an electrician to say
        return "electrician"
    return kind.role


def _is_open(past: View, opened: str) -> bool:
    return any(one.id == opened for one in open_stages(past))


def _reset(past: View, entry: Entry) -> str:
    """From the second trip of a device on, volts and amps that saw each come before a reset."""
    trips = [one for one in past.of("trip") if one.about["device"] == entry.about["device"]]
    waiting = [one for one in open_trips(past) if one in trips]
    if not waiting:
        return "blocked:no_trip"
    if len(trips) < 2:
        return ""
    for kind in ("volts", "amps"):
        if not any(all(past.log.saw(one, trip) for trip in waiting) for one in past.of(kind)):
            return f"blocked:{kind}"
    return ""


def _closing_guard(log: Log, entry: Entry) -> str:
    """Return why a closing is refused: online kinds, and a stranger's correction."""
    kind = KINDS[entry.kind]
    if kind.is_online:
        if RANK[entry.role] < RANK[kind.role]:
            return "role"
        return _online(log, entry)
    if entry.kind == "correction":
        known = str(entry.body.get("of", ""))
        if not log.knows(known):
            return "no_such_entry"
        if log.entry(known).by != entry.by and entry.role != "reviewer":
            return "role"
    return ""


def _online(log: Log, entry: Entry) -> str:
    """Return why an entry that needs the network is refused."""
    if not entry.is_online:
        return "online_only"
    if entry.kind == "foreign_lock_removed":
        lock = log.entry(str(entry.about["lock"]))
        if lock.by == entry.by:
            return "your_own_lock"
        if entry.body["witness"] in {lock.by, entry.by}:
            return "reason_missing"
    if entry.kind == "signed":
        return _signing(log, entry)
    return ""


def _signing(log: Log, entry: Entry) -> str:
    """Return why a job cannot be signed by this person now."""
    view, rules = log.now(), log.work.rules
    past = log.past_of_new(entry.based_on, entry.rev)
    accepted = {str(name) for name in entry.body.get("accepts", ())}
    own = [
        one
        for kind, known in KINDS.items()
        if known.needs_hands or kind in RESULTS
        for one in view.of(kind)
        if one.by == entry.by
    ]
    wrong = (
        (not entry.body.get("reauth"), "sign_in_again"),
        (rules.has_license and not str(entry.body.get("license", "")).strip(), "license_missing"),
        (past.mask != view.mask or entry.rev != log.rev, "changed_after_opened"),
        (next(opens(view), None) is not None, "open_items"),
        (any(name not in accepted for name, _, _ in to_judge(view)), "not_judged"),
        (rules.two_sign and bool(own), "own_work"),
    )
    return next((reason for is_so, reason in wrong if is_so), "")


def _is_too_late(log: Log, entry: Entry) -> bool:
    """Tell whether an opening for power had not seen the signature that stands."""
    signed = log.now().of("signed")
    if not signed or entry.kind not in _TOO_LATE:
        return False
    past = log.past_of_new(entry.based_on, entry.rev)
    return not past.has(signed[-1])
