"""Putting a rehearsal on record: it is played again here, and judged."""

from __future__ import annotations

from contextlib import suppress
from itertools import chain
from typing import Any

from pydantic import Field

from answers.routers.circuit import MOST_US, ActIn
from api.schemas import Schema
from evencoil.base import CoreError, Message, RefusedError
from evencoil.circuit import netlist_fingerprint
from evencoil.job import rehearsed_motor
from evencoil.rehearsal import MOST_ACTS, ScenarioAct, Stage, missing_of
from jobs.models import JobMotor
from jobs.store import kept, work_out_kept
from panel.models import Rehearsal
from people.access import Caller
from people.actions import Action

__all__ = ["RecordRehearsal", "RehearsalIn", "carried_over"]


class RehearsalIn(Schema):
    """What was played, from the start."""

    actions: list[ActIn] = Field(max_length=MOST_ACTS)
    until: int = Field(ge=0, le=MOST_US)


class RecordRehearsal(Action[Rehearsal]):
    """Play a scenario on the circuit as it is kept, and put it on record if it is whole."""

    name = "rehearsal on record"

    def __init__(
        self, caller: Caller, link: JobMotor, actions: list[dict[str, Any]], until_us: int
    ) -> None:
        super().__init__(caller)
        self.link, self.actions, self.until_us = link, actions, until_us

    @property
    def target(self) -> str:
        """Return the job."""
        return str(self.link)

    def perform(self) -> Rehearsal:
        """Judge it as it plays here, never as a screen says it did.

        Raises
        ------
        CoreError
            If there is no circuit, or something is missing in the rehearsal.
        """
        now = kept(self.link, self.caller.works)
        worked = work_out_kept(now, self.caller.works)
        circuit = worked.starter.required()
        stage = Stage(circuit, motor=rehearsed_motor(now.inputs, worked).motor)
        acts = [
            ScenarioAct(at_us=one["t"], do=one["do"], on=one["on"], word=one["word"])
            for one in self.actions
        ]
        trace = stage.play(acts, until_us=self.until_us)
        # a circuit that is wrong, or starts by itself and nobody accepted it, comes first
        wrong = (one.message for one in worked.starter.problems() if one.level == "error")
        missing = next(chain(wrong, missing_of(circuit, trace)), None)
        if missing is not None:
            raise RefusedError(
                Message("rehearsal.record.missing", {"what": str(missing)}),
                field="actions",
                hint=Message("rehearsal.record.hint"),
            )
        return Rehearsal.objects.create(
            link=self.link,
            netlist=netlist_fingerprint(circuit),
            actions=self.actions,
            until_us=self.until_us,
            by=self.caller.user,
        )


def carried_over(caller: Caller, link: JobMotor) -> None:
    """Play the last rehearsal on record on the drawing as it is now, and record it if it holds.

    Two lines that changed places change the drawing, and no button: what was rehearsed is tried
    again rather than believed.
    """
    last = link.rehearsals.order_by("-id").first()
    if last is not None:
        with suppress(CoreError):
            RecordRehearsal(caller, link, last.actions, last.until_us).perform()
