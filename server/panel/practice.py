"""Practice instruments at the panel: they read the job's model, and nothing is kept of it."""

from __future__ import annotations

from random import SystemRandom

from api.schemas import Schema
from evencoil.acts import Work, expected_in, figure, judged, work_from_json
from evencoil.job import stand_in
from panel.models import PanelRevision
from panel.staged import VERDICTS

__all__ = ["PracticeReadingOut", "practiced"]


class PracticeReadingOut(Schema):
    """What a practice instrument shows on the job's own model: it is kept nowhere."""

    value: str
    unit: str
    said: str
    verdict: str


def practiced(
    revision: PanelRevision, kind: str, read_at: str, stage: str, temp_c: float
) -> PracticeReadingOut:
    """Return what a practice instrument shows, held against what the reading should be.

    Parameters
    ----------
    read_at : str
        Row or item; empty for a result of a stage.
    temp_c : float
        Of the winding [C].

    Raises
    ------
    CoreError
        If no practice instrument reads this, or the model has no figure for it.
    """
    expected = _expected(work_from_json(revision.body["work"]), kind, read_at, stage)
    found = stand_in(kind, expected, SystemRandom(), temp_c)
    told = None
    if found.unit:
        told = judged(figure(found.value), expected, {"temp_c": str(temp_c)})
    return PracticeReadingOut(
        value=found.value, unit=found.unit, said=found.said, verdict=VERDICTS[told]
    )


def _expected(work: Work, kind: str, read_at: str, stage: str) -> dict[str, object] | None:
    if kind == "dead_reading":
        row = work.rows.get(read_at)
        return None if row is None else {"unit": "ohm", "min": row.least, "max": row.most}
    known = work.expect.get(read_at) if read_at else expected_in(work, stage, kind)
    return None if known is None else dict(known)
