"""The worker: takes up what nobody does any more, then does what is asked for.

Workers on several machines share one queue. Each has a name of its own, and says every few
seconds that it is there; what is under way by one that has not been seen for a minute, or by an
earlier one of the same name, belongs to nobody.
"""

from __future__ import annotations

import logging
import os
import socket
import threading
from datetime import timedelta
from typing import Any

from django.core.management import BaseCommand, CommandParser, call_command
from django.db import DatabaseError, close_old_connections, connection
from django.utils import timezone
from django_tasks import ResultStatus
from django_tasks.backends.database.models import DBTaskResult

from desk.child import stand_back
from jobs.models import WorkerSeen

__all__ = ["LOST_S", "TRIES", "Command", "say_there", "take_up", "worker_name"]

#: a task whose worker died under it so often is left as failed
TRIES = 3
#: how often a worker says that it is there, and when one counts as lost [s]
SAYS_S, LOST_S = 10, 60
_log = logging.getLogger("evencoil.worker")


def worker_name() -> str:
    """Return what this worker is called: its machine, and ``EVENCOIL_WORKER`` for more of them."""
    return f"{socket.gethostname()[:40]}-{os.environ.get('EVENCOIL_WORKER', '1')[:20]}"


def take_up(own: str = "") -> int:
    """Make ready again what a lost worker was doing; return how many.

    Parameters
    ----------
    own : str
        Name of a worker that begins just now: whatever is under way by that name is an earlier
        one's.
    """
    seen = timezone.now() - timedelta(seconds=LOST_S)
    there = set(WorkerSeen.objects.filter(at__gte=seen).values_list("name", flat=True)) - {own}
    under_way = [
        task
        for task in DBTaskResult.objects.filter(status=ResultStatus.RUNNING)
        if not task.worker_ids or task.worker_ids[-1] not in there
    ]
    again = [task for task in under_way if len(task.worker_ids) < TRIES]
    for task in under_way:
        status = ResultStatus.READY if task in again else ResultStatus.FAILED
        # only if nobody else took it up meanwhile
        DBTaskResult.objects.filter(
            pk=task.pk, status=ResultStatus.RUNNING, worker_ids=task.worker_ids
        ).update(status=status)
    return len(again)


def say_there(name: str) -> None:
    """Say that a worker is there.

    Parameters
    ----------
    name : str
        What it is called.
    """
    WorkerSeen.objects.update_or_create(name=name, defaults={"at": timezone.now()})


def _watch(name: str, ended: threading.Event) -> None:
    """Say every few seconds that this worker is there, and take up what lost ones left."""
    while not ended.wait(SAYS_S):
        close_old_connections()
        try:
            say_there(name)
            take_up()
        except DatabaseError:
            # the worker itself says what is wrong with the database
            _log.warning("%s could not say that it is there", name)
    connection.close()


class Command(BaseCommand):
    """Do the work of a plant that nobody waits for."""

    help = "Take up what an earlier worker left, and work."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take how often the queue is looked at [s]."""
        parser.add_argument("--interval", type=float, default=1.0)

    def handle(self, *args: Any, **options: Any) -> None:
        """Work until told to end."""
        del args
        stand_back()
        name = worker_name()
        take_up(name)
        say_there(name)
        call_command("prune_db_task_results", verbosity=0)
        ended = threading.Event()
        threading.Thread(target=_watch, args=(name, ended), daemon=True).start()
        try:
            call_command(
                "db_worker",
                interval=options["interval"],
                verbosity=options["verbosity"],
                worker_id=name,
            )
        finally:
            ended.set()
