"""Who did what and when: set by the server from the session, whatever a request or a file says.

What was recorded here before keeps its author and time. What is new gets the caller's; what was
changed keeps who added it and gets who changed it. From a file nothing counts as accepted,
decided, measured or torqued here: only what was recorded here already stays so.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any, TypeVar, cast

from evencoil.base import Inputs
from evencoil.leads import JointsInputs, LeadsInputs
from evencoil.sizing import SizeInputs
from evencoil.starters import EditInput, StarterInputs
from jobs.models import JobMotor
from jobs.store import newest_of
from people.access import Caller
from people.roles import need_signer

__all__ = ["Stamper", "stamped"]

Record = TypeVar("Record", bound=Inputs)
_STAMPED_FIELDS = {"by", "at", "changed_by", "changed_at"}


@dataclass(frozen=True, slots=True)
class Stamper:
    """Whose change it is, from where, and when."""

    link: JobMotor
    caller: Caller
    is_import: bool = False

    def edit(self, edit: EditInput, known: EditInput | None) -> EditInput:
        """Return an edit with who added it, and who changed it since."""
        own = self.caller.stamp
        if known is None:
            why = edit.why
            if self.is_import:
                said = ", ".join(part for part in (edit.by, edit.at) if part) or "nobody"
                why = f"{edit.why} (imported; the file says {said})".strip()[:200]
            fresh = {**own, "changed_by": "", "changed_at": "", "why": why}
            return edit.model_copy(update=fresh)
        if edit.model_dump(exclude=_STAMPED_FIELDS) == known.model_dump(exclude=_STAMPED_FIELDS):
            return known
        return edit.model_copy(
            update={
                "by": known.by,
                "at": known.at,
                "changed_by": own["by"],
                "changed_at": own["at"],
            }
        )

    def record(self, given: Record, known: Record | None) -> Record | None:
        """Return a record as it was kept, else in the caller's name; none where a file says it."""
        if known is not None:
            return known
        return None if self.is_import else given.model_copy(update=self.caller.stamp)

    def records(self, pairs: Iterable[tuple[Record, Record | None]]) -> tuple[Record, ...]:
        """Return every record that stands, each given with the one that was kept."""
        found = (self.record(given, known) for given, known in pairs)
        return tuple(one for one in found if one is not None)

    def starter(self, given: StarterInputs) -> StarterInputs:
        """Return a starter with its edits, accepted hazards and readings in whose name they are.

        Raises
        ------
        ProblemError
            403 if a hazard is newly accepted by somebody who may not sign.
        """
        before = cast("StarterInputs", newest_of(self.link, "starter"))
        edits = {edit.id: edit for edit in before.edits}
        taken = {(one.hazard, one.why): one for one in before.accepted}
        read = {(one.start, one.end, one.hands, one.ohms): one for one in before.readings}
        accepted = [(one, taken.get((one.hazard, one.why))) for one in given.accepted]
        readings = [
            (one, read.get((one.start, one.end, one.hands, one.ohms))) for one in given.readings
        ]
        if not self.is_import and any(known is None for _, known in accepted):
            need_signer(self.caller, "Accepting a hazard", "starter.accepted")
        return given.model_copy(
            update={
                "edits": tuple(self.edit(edit, edits.get(edit.id)) for edit in given.edits),
                "accepted": self.records(accepted),
                "readings": self.records(readings),
                # numbers are frozen by an issue for wiring, and by nothing else
                "frozen": before.frozen,
            }
        )

    def leads(self, given: LeadsInputs) -> LeadsInputs:
        """Return leads whose decision between maker and derivation carries who and when."""
        if given.followed is None:
            return given
        now, before = given.followed, cast("LeadsInputs", newest_of(self.link, "leads")).followed
        if before is not None and (before.side, before.reason) != (now.side, now.reason):
            before = None
        return given.model_copy(update={"followed": self.record(now, before)})

    def joints(self, given: JointsInputs) -> JointsInputs:
        """Return joints whose torque and tug records carry who and when."""
        before = cast("JointsInputs", newest_of(self.link, "joints"))
        known = {item.joint: item for item in before.work}
        work = []
        for item in given.work:
            old = known.get(item.joint)
            recorded = (item.torque_in_lb, item.tug_held)
            own: dict[str, Any]
            if recorded == (None, None):
                own = {"by": "", "at": ""}
            elif old is not None and (old.torque_in_lb, old.tug_held) == recorded:
                own = {"by": old.by, "at": old.at}
            elif self.is_import:
                own = {"torque_in_lb": None, "tug_held": None, "by": "", "at": ""}
            else:
                own = self.caller.stamp
            work.append(item.model_copy(update=own))
        return given.model_copy(update={"work": tuple(work)})

    def size(self, given: SizeInputs) -> SizeInputs:
        """Return sizes whose record of a motor that would not start carries who and when."""
        if given.no_start is None:
            return given
        before = cast("SizeInputs", newest_of(self.link, "size")).no_start
        if before is not None and before.reason != given.no_start.reason:
            before = None
        return given.model_copy(update={"no_start": self.record(given.no_start, before)})


_BY_STEP: dict[str, Callable[[Stamper, Any], Inputs]] = {
    "leads": Stamper.leads,
    "joints": Stamper.joints,
    "size": Stamper.size,
    "starter": Stamper.starter,
}


def stamped(step: str, given: Inputs, stamper: Stamper) -> Inputs:
    """Return the inputs of a step with every record in whose name it is.

    Parameters
    ----------
    step : str
        Which.
    given : Inputs
        As sent, or as a file says.
    stamper : Stamper
        Who, and from where.
    """
    put = _BY_STEP.get(step)
    return given if put is None else put(stamper, given)
