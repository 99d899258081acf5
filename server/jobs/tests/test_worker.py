"""What a worker left when it died is taken up again, and not for ever."""

from datetime import timedelta

import pytest
from django.utils import timezone
from django_tasks import ResultStatus
from django_tasks.backends.database.models import DBTaskResult

from jobs.lines import work_out_lines
from jobs.management.commands.worker import LOST_S, TRIES, say_there, take_up, worker_name
from jobs.models import WorkerSeen


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


@pytest.mark.django_db
def test_what_a_worker_that_is_there_does_stays_its_own():
    """Another one begins: only what the lost one left is taken up, and its own name's."""
    for place in range(3):
        work_out_lines.enqueue(place)
    here, lost, mine = DBTaskResult.objects.order_by("enqueued_at")
    here.claim("kiln-1")
    lost.claim("stack-1")
    mine.claim("stack-2")
    say_there("kiln-1")
    say_there("stack-2")
    old = timezone.now() - timedelta(seconds=LOST_S + 1)
    WorkerSeen.objects.create(name="stack-1", at=old)
    assert take_up() == 1
    assert take_up() == 0
    assert take_up("stack-2") == 1
    for task, status in (
        (here, ResultStatus.RUNNING),
        (lost, ResultStatus.READY),
        (mine, ResultStatus.READY),
    ):
        task.refresh_from_db()
        assert task.status == status


@pytest.mark.django_db
def test_a_worker_says_again_that_it_is_there(monkeypatch):
    """By the name of its machine and its number there; twice is one row."""
    monkeypatch.setenv("EVENCOIL_WORKER", "7")
    assert worker_name().endswith("-7")
    assert len(worker_name()) <= 64
    say_there(worker_name())
    first = WorkerSeen.objects.get().at
    say_there(worker_name())
    assert WorkerSeen.objects.get().at > first
