"""Answer a drill, share the own history, set a drill."""

from __future__ import annotations

from django.utils import timezone

from drills.models import DrillAnswer, DrillBox, DrillSet, HiddenFault
from evencoil.practice import drill, due_after, judge, next_box
from people.access import Caller
from people.actions import Action
from people.models import Role

__all__ = ["AnswerDrill", "HideFault", "SetDrill", "ShareHistory"]


class AnswerDrill(Action[DrillAnswer]):
    """Judge an answer by the live rule, keep it, and move its box."""

    name = "answer a drill"

    def __init__(self, caller: Caller, kind: str, seed: int, setting: str, given: str) -> None:
        super().__init__(caller)
        self.drill = drill(kind, seed, setting)
        self.given = given
        #: where it stands now; there once it was done
        self.box = DrillBox(person=caller.user, kind=self.drill.kind)

    @property
    def target(self) -> str:
        """Return the kind alone: what a person knows is theirs."""
        return "practice"

    def perform(self) -> DrillAnswer:
        """Keep it; the box moves up only when it is due, and back with every wrong answer."""
        one, person = self.drill, self.caller.user
        verdict = judge(one, self.given)
        today = timezone.localdate()
        box, is_new = DrillBox.objects.select_for_update().get_or_create(
            person=person, kind=one.kind, defaults={"due": today}
        )
        if is_new or box.due <= today or not verdict.is_right:
            box.box = next_box(box.box, is_right=verdict.is_right)
            box.due = due_after(box.box, today)
            box.save()
        self.box = box
        return DrillAnswer.objects.create(
            works=self.caller.works,
            person=person,
            kind=one.kind,
            seed=one.seed,
            setting=one.setting,
            given=self.given[:160],
            right=one.right[:160],
            is_right=verdict.is_right,
            slip=verdict.slip,
        )


class ShareHistory(Action[int]):
    """Share the own history with the works' reviewers, or take that back."""

    name = "share practice"

    def __init__(self, caller: Caller, *, is_shared: bool) -> None:
        super().__init__(caller)
        self.is_shared = is_shared

    @property
    def target(self) -> str:
        """Return nothing of what was practiced."""
        return "practice"

    def perform(self) -> int:
        """Mark every own answer given at this works."""
        own = DrillAnswer.objects.filter(works=self.caller.works, person=self.caller.user)
        return own.update(is_shared=self.is_shared)


class SetDrill(Action[DrillSet]):
    """Set a drill for everyone of the works."""

    name = "set a drill"
    least_role = Role.REVIEWER

    def __init__(self, caller: Caller, kind: str, seed: int, setting: str, note: str) -> None:
        super().__init__(caller)
        self.drill, self.note = drill(kind, seed, setting), note

    @property
    def target(self) -> str:
        """Return the kind."""
        return self.drill.kind

    def perform(self) -> DrillSet:
        """Keep it."""
        one = self.drill
        return DrillSet.objects.create(
            works=self.caller.works,
            kind=one.kind,
            seed=one.seed,
            setting=one.setting,
            note=self.note,
            by=self.caller.user,
        )


class HideFault(Action[HiddenFault]):
    """Hide a fault in a circuit for the people of the works."""

    name = "hide a fault"

    def __init__(self, caller: Caller, circuit: str, fault: str) -> None:
        super().__init__(caller)
        self.circuit, self.fault = circuit, fault

    @property
    def target(self) -> str:
        """Return the circuit alone: the fault is hidden."""
        return self.circuit

    def perform(self) -> HiddenFault:
        """Keep it."""
        return HiddenFault.objects.create(
            works=self.caller.works,
            circuit=self.circuit,
            fault=self.fault,
            by=self.caller.user,
        )
