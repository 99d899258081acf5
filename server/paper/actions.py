"""Printing and issuing for wiring: an immutable issue each time."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable
from typing import Any

from django.db.models import Max

from api.problems import ProblemError
from desk.child import Reply, answered
from evencoil.base import __version__, say
from evencoil.codebook import digests
from evencoil.job import SCHEMA, JobFile, canonical, fingerprint
from jobs.models import JobMotor
from jobs.store import add_input, as_job_file, kept, work_out_kept
from paper.models import Issue
from paper.pack import Head, printed_pack
from people.access import Caller
from people.actions import Action
from people.models import Role
from people.roles import need_signer

__all__ = ["IssueForWiring", "PrintPack", "keep_issue", "next_issue", "printed_of"]

#: does a piece of heavy work with what it is given, and returns status and body
InTurn = Callable[..., Reply]


def at_once(work: Callable[..., Any], *args: Any) -> Reply:
    """Do it here and now."""
    return answered(work, args, lambda *_: None)


def next_issue(link: JobMotor) -> int:
    """Return the number of the next issue of a job."""
    return (Issue.objects.filter(link=link).aggregate(n=Max("n"))["n"] or 0) + 1


def printed_of(reply: Reply) -> tuple[bytes, dict[str, Any]]:
    """Return the PDF and what is in it.

    Raises
    ------
    ProblemError
        What was refused while it was printed.
    """
    status, body = reply
    if status != 200:
        raise ProblemError(status, **body)
    data, results = body
    return data, results


def keep_issue(
    caller: Caller, link: JobMotor, head: Head, file: JobFile, data: bytes, results: dict[str, Any]
) -> Issue:
    """Keep what was printed, as it was, for ever."""
    return Issue.objects.create(
        link=link,
        n=head.issue_n,
        kind=head.kind,
        schema=SCHEMA,
        inputs=json.loads(canonical(file)),
        results=results,
        fingerprint=fingerprint(file),
        core_version=__version__,
        table_digests=dict(digests()),
        pdf=data,
        sha256=hashlib.sha256(data).hexdigest(),
        by=caller.user,
    )


class PrintPack(Action[Issue]):
    """Print the field pack: what is printed is saved as it was."""

    name = "print"
    kind = "print"

    def __init__(self, caller: Caller, link: JobMotor, in_turn: InTurn = at_once) -> None:
        super().__init__(caller)
        self.link = link
        self.in_turn = in_turn

    @property
    def target(self) -> str:
        """Return motor and job."""
        return str(self.link)

    def perform(self) -> Issue:
        """Calculate, print, store."""
        works = self.caller.works
        file = as_job_file(self.link, works)
        n = next_issue(self.link)
        head = Head(
            works=works,
            by=str(self.caller.user),
            number=self.link.number,
            issue_n=n,
            kind=self.kind,
        )
        printed = self.in_turn(printed_pack, head, file, kept(self.link, works).inputs, None)
        return keep_issue(self.caller, self.link, head, file, *printed_of(printed))


class IssueForWiring(PrintPack):
    """Issue for wiring: as printing, and the wire numbers are frozen."""

    name = "issue for wiring"
    kind = "wiring"
    least_role = Role.ELECTRICIAN

    def perform(self) -> Issue:
        """Freeze the numbers, then issue.

        Raises
        ------
        ProblemError
            422 while the drawing has something to corrected.
        """
        works = self.caller.works
        need_signer(self.caller, "Issuing for wiring")
        now = kept(self.link, works)
        starter = work_out_kept(now, works).starter
        if starter.circuit is None or starter.numbered is None:
            raise ProblemError(
                422,
                code="missing",
                detail="No starter is chosen yet.",
                field="starter.standard_circuit",
                hint="Choose one on the Starter step.",
            )
        open_ = [found.message for found in starter.findings if found.level in {"doubt", "refusal"}]
        # what plays wrong holds it back as well as what is drawn wrong
        wrong = [one for one in starter.problems() if one.level == "error"]
        open_ += [one.message for one in sorted(wrong, key=lambda one: one.is_played)]
        if open_:
            raise ProblemError(
                422,
                code="blocked",
                detail=f"The drawing is not complete: {say(open_[0])}",
                field="starter",
                hint="Correct it on Drawings, then issue it.",
            )
        frozen = {
            terminal: starter.numbered.number_of[net]
            for terminal, net in starter.numbered.net_of.items()
            if net in starter.numbered.number_of
        }
        fixed = now.inputs.starter.model_copy(update={"frozen": frozen})
        add_input(self.link, "starter", fixed, now.versions["starter"].n, self.caller)
        return super().perform()
