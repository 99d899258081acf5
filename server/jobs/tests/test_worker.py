"""What a worker left when it died is taken up again, and not for ever."""

import pytest
from django_tasks import ResultStatus
from django_tasks.backends.database.models import DBTaskResult

from jobs.lines import work_out_lines
from jobs.management.commands.worker import TRIES, take_up


@pytest.mark.django_db
def test_a_task_whose_worker_died_is_ready_again_until_it_failed_too_often():
    """Waiting and done ones stay as they are."""
    work_out_lines.enqueue(1)
    work_out_lines.enqueue(2)
    waiting, task = DBTaskResult.objects.order_by("enqueued_at")
    for number in range(TRIES - 1):
        task.claim(f"worker-{number}")
        assert take_up() == 1
        task.refresh_from_db()
        assert task.status == ResultStatus.READY
    task.claim("worker-last")
    assert take_up() == 0
    task.refresh_from_db()
    assert task.status == ResultStatus.FAILED
    waiting.refresh_from_db()
    assert waiting.status == ResultStatus.READY
    assert take_up() == 0
