"""The worker: takes up what an earlier one left, then does what is asked for."""

from __future__ import annotations

from typing import Any

from django.core.management import BaseCommand, CommandParser, call_command
from django_tasks import ResultStatus
from django_tasks.backends.database.models import DBTaskResult

from desk.child import stand_back

__all__ = ["TRIES", "Command", "take_up"]

#: a task whose worker died under it so often is left as failed
TRIES = 3


def take_up() -> int:
    """Make ready again what a worker that died was doing; return how many.

    A plant has one worker, so whatever is under way when it starts belongs to nobody.
    """
    under_way = list(DBTaskResult.objects.filter(status=ResultStatus.RUNNING))
    again = [task for task in under_way if len(task.worker_ids) < TRIES]
    for task in under_way:
        task.status = ResultStatus.READY if task in again else ResultStatus.FAILED
        task.save(update_fields=["status"])
    return len(again)


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
        take_up()
        call_command("prune_db_task_results", verbosity=0)
        call_command("db_worker", interval=options["interval"], verbosity=options["verbosity"])
