"""One process that answers: refusals, faults, an end before its time, askers that go away."""

from __future__ import annotations

import time

import pytest

from api.problems import ProblemError
from desk import seat as module
from desk.child import NICE
from desk.seat import GoneError, Seat
from desk.tests import works


@pytest.fixture(scope="module")
def seat():
    """A process of its own for these tests."""
    one = Seat()
    one.start()
    yield one
    one.end()


def asked(seat, work, *args, is_gone=lambda: False, tell=lambda *_: None):
    """Return status and body."""
    return seat.ask(work, args, is_gone, tell)


def test_it_answers_behind_everything_that_serves_people(seat):
    """An answer; the process stands back and is another one than this."""
    assert asked(seat, works.doubles, 21) == (200, 42)
    assert asked(seat, works.who)[1][1] == NICE


def test_refusals_and_faults_leave_it_up(seat):
    """A refusal has its words, a fault is told as one, too much memory is refused."""
    process = asked(seat, works.who)[1][0]
    status, body = asked(seat, works.refuses)
    assert (status, body["field"]) == (422, "starter")
    assert body["detail"]
    assert body["hint"]
    assert asked(seat, works.breaks) == (0, "ZeroDivisionError('a fault')")
    status, body = asked(seat, works.hogs)
    assert (status, body["code"]) == (422, "too_large")
    assert asked(seat, works.who)[1][0] == process


def test_a_process_that_ends_is_started_again_and_not_for_ever(seat):
    """A question that ends its process twice is refused; the next one is answered."""
    with pytest.raises(ProblemError) as refused:
        asked(seat, works.dies)
    assert refused.value.status == 503
    assert asked(seat, works.doubles, 4) == (200, 8)


def test_whoever_goes_away_stops_the_work(seat):
    """One that looks up stops at once and its process stays; one that does not is ended."""
    process = asked(seat, works.who)[1][0]
    told = []
    since = time.monotonic()
    with pytest.raises(GoneError):
        asked(
            seat,
            works.tells_for,
            30,
            is_gone=lambda: len(told) > 1,
            tell=lambda done, of: told.append((done, of)),
        )
    assert time.monotonic() - since < 10
    assert all(of == 3000 and 0 <= done < of for done, of in told)
    assert asked(seat, works.who)[1][0] == process

    with pytest.raises(GoneError):
        asked(seat, works.is_deaf, 60, is_gone=lambda: True)
    assert asked(seat, works.who)[1][0] != process


def test_what_takes_too_long_is_stopped_with_the_reason(seat, monkeypatch):
    """The limit, what to do, and a process for the next question."""
    asked(seat, works.doubles, 1)
    monkeypatch.setattr(module, "MOST_S", 0.3)
    with pytest.raises(ProblemError) as refused:
        asked(seat, works.is_deaf, 60)
    assert refused.value.body["code"] == "too_long"
    monkeypatch.setattr(module, "MOST_S", 60.0)
    assert asked(seat, works.doubles, 5) == (200, 10)
