"""Over the network only: sending back, another's lock, and the signature with its record."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable
from typing import Any

from api.problems import ProblemError
from desk.child import Reply
from evencoil.acts import Log, receive
from evencoil.base import __version__
from evencoil.codebook import digests
from evencoil.job import canonical
from jobs.models import JobMotor
from jobs.store import as_job_file, kept
from panel.log import entry_of, log_of, newest_revision, role_in_acts
from panel.models import Act
from panel.record import hash_of, record_of
from panel.schemas import said_answer
from paper.actions import keep_issue, next_issue, printed_of
from paper.models import Issue
from paper.pack import Head, printed_pack
from people.access import Caller
from people.actions import Action
from plant.profile import rules_of

__all__ = ["ONLINE_KINDS", "SignJob", "TakeOnline"]

#: made and answered at once, each by its own operation
ONLINE_KINDS = ("foreign_lock_removed", "sent_back")


class TakeOnline(Action[str]):
    """Take one entry that is never made without network."""

    name = "entry over the network"

    def __init__(self, caller: Caller, link: JobMotor, item: dict[str, Any]) -> None:
        super().__init__(caller)
        self.link, self.item = link, item

    @property
    def target(self) -> str:
        """Return the kind and the job."""
        return f"{self.item['kind']} {self.link}"

    def perform(self) -> str:
        """Answer and keep it.

        Raises
        ------
        ProblemError
            422 where it is refused: nothing is kept then.
        """
        link = JobMotor.objects.select_for_update().get(pk=self.link.pk)
        newest_revision(self.caller, link)
        return _taken(self.caller, link, self.item)


def _row(caller: Caller, link: JobMotor, item: dict[str, Any], n: int) -> Act:
    return Act(
        link=link,
        n=n,
        by=caller.user,
        role=role_in_acts(caller.role),
        **{**item, "is_online": True},
    )


def _answered(log: Log, row: Act) -> str:
    """Return the answer to an entry.

    Raises
    ------
    ProblemError
        422 where it is refused.
    """
    answer = receive(log, entry_of(row))
    if answer.startswith("refused") or answer == "history_missing":
        raise ProblemError(
            422,
            code="refused",
            detail=said_answer(answer, row.body),
            field=answer,
            hint="Look at the panel as it is now, and try again.",
        )
    return answer


def _taken(caller: Caller, link: JobMotor, item: dict[str, Any]) -> str:
    log, rows = log_of(link)
    row = _row(caller, link, item, max((one.n for one in rows), default=0) + 1)
    is_known = log.knows(str(row.uid))
    row.answer = _answered(log, row)
    if not is_known:
        row.save()
    return row.answer


class SignJob(Action[Issue]):
    """Sign a job: its record is printed, kept for ever, and the signature covers it."""

    name = "sign"

    def __init__(
        self, caller: Caller, link: JobMotor, item: dict[str, Any], in_turn: Callable[..., Reply]
    ) -> None:
        super().__init__(caller)
        self.link, self.item, self.in_turn = link, item, in_turn

    @property
    def target(self) -> str:
        """Return motor and job."""
        return str(self.link)

    def perform(self) -> Issue:
        """Try the signature, print what it covers, then sign exactly that.

        Raises
        ------
        ProblemError
            422 where something is open, unseen or not judged, or the role does not sign.
        """
        link = JobMotor.objects.select_for_update().get(pk=self.link.pk)
        caller, works = self.caller, self.caller.works
        revision, _ = newest_revision(caller, link)
        log, rows = log_of(link)
        file = as_job_file(link, works)
        head = Head(
            works=works,
            by=str(caller.user),
            number=link.number,
            issue_n=next_issue(link),
            kind="signed",
        )
        record = record_of(works, list(link.panel_revisions.order_by("n")), log, rows)
        record["signer"] = {
            "name": str(caller.user),
            "license": self.item["body"].get("license", ""),
            "accepts": self.item["body"].get("accepts", []),
        }
        # refused before anything is printed, and once more with what was printed
        _answered(log, _row(caller, link, self.item, 0))
        reply = self.in_turn(printed_pack, head, file, kept(link, works).inputs, record)
        data, results = printed_of(reply)
        sha256 = hashlib.sha256(data).hexdigest()
        covers = {
            "inputs": json.loads(canonical(file)),
            "results": results,
            "work": revision.body["work"],
            "core": __version__,
            "tables": dict(digests()),
            "rules": rules_of(works),
            "pdf": sha256,
            "entries": sorted(hash_of(row) for row in rows),
        }
        told = json.dumps(covers, sort_keys=True, default=str)
        self.item["body"] |= {
            "fingerprint": hashlib.sha256(told.encode()).hexdigest(),
            "pdf_sha256": sha256,
            "issue": str(head.issue_n),
        }
        _taken(caller, link, self.item)
        return keep_issue(caller, link, head, file, data, results)
