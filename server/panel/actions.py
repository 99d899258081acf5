"""Taking what people did at a panel: one job at a time, each entry with its answer."""

from __future__ import annotations

from typing import Any

from evencoil.acts import receive
from jobs.models import JobMotor
from panel.log import entry_of, log_of, newest_revision, role_in_acts
from panel.models import Act
from panel.swapped import redraw_found, redraw_swapped
from people.access import Caller
from people.actions import Action

__all__ = ["TakeActs"]


class TakeActs(Action[list[str]]):
    """Take entries in the order they were made; each is answered by itself."""

    name = "entries at the panel"

    def __init__(self, caller: Caller, link: JobMotor, items: list[dict[str, Any]]) -> None:
        super().__init__(caller)
        self.link, self.items = link, items

    @property
    def target(self) -> str:
        """Return the job."""
        return str(self.link)

    def perform(self) -> list[str]:
        """Answer and keep each; two devices of one job wait for each other."""
        link = JobMotor.objects.select_for_update().get(pk=self.link.pk)
        newest_revision(self.caller, link)
        log, rows = log_of(link)
        n = max((row.n for row in rows), default=0)
        answers = []
        made: list[Act] = []
        for item in self.items:
            n += 1
            row = Act(
                link=link,
                n=n,
                by=self.caller.user,
                role=role_in_acts(self.caller.role),
                # over this door nothing counts as made over the network at once
                **{**item, "is_online": False},
            )
            is_known = log.knows(str(row.uid))
            row.answer = receive(log, entry_of(row))
            answers.append(row.answer)
            if not is_known and row.answer != "history_missing":
                made.append(row)
                if self._redrawn(link, row):
                    Act.objects.bulk_create(made)
                    made = []
                    newest_revision(self.caller, link)
                    log, _ = log_of(link)
        Act.objects.bulk_create(made)
        return answers

    def _redrawn(self, link: JobMotor, row: Act) -> bool:
        """Let the drawing follow an entry that changes it, and tell whether it had to."""
        if not row.answer.startswith("kept"):
            return False
        if row.kind == "swap_done":
            redraw_swapped(self.caller, link, row)
        elif row.kind == "different_here" and row.body.get("to_end"):
            redraw_found(self.caller, link, row)
        else:
            return False
        return True
