"""Who is answered next: some seats, a line in front of them, and no one who takes all.

A person has one seat while somebody else waits, and two at most; a plant leaves one seat to
others. Next is whoever has least under way: of their plant, then of themselves, then who came
first.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from itertools import count
from threading import Condition
from typing import Any

from api.problems import ProblemError
from desk.child import Reply, answered
from desk.seat import LOOKS_S, GoneError, Seat

__all__ = ["MOST_EACH", "MOST_WAITING", "Desk", "Ticket"]

#: questions that wait in one serving process, of one person and of all
MOST_EACH, MOST_WAITING = 6, 12
#: seats that one person has at once
SEATS_EACH = 2


@dataclass(eq=False, slots=True)
class Ticket:
    """A question in the line: whose it is, of which plant, and when it came."""

    person: Hashable
    plant: Hashable
    came: int


class Desk:
    """Seats of one serving process; none means that questions are answered in place."""

    def __init__(self, seats: int) -> None:
        self.seats = seats
        self._idle = [Seat() for _ in range(seats)]
        self._turn = Condition()
        self._waiting: list[Ticket] = []
        self._running: list[Ticket] = []
        self._came = count()

    def open(self) -> None:
        """Start the first process before anybody asks."""
        if self._idle:
            self._idle[-1].start()

    def ahead(self, ticket: Ticket) -> int:
        """Return how many questions are answered before this one, as it looks now."""
        with self._turn:
            return sum(one.came < ticket.came for one in self._waiting)

    def ask(
        self,
        work: Callable[..., Any],
        args: tuple[Any, ...],
        *,
        person: Hashable,
        plant: Hashable,
        is_gone: Callable[[], bool] = lambda: False,
        tell: Callable[[str, int, int], None] = lambda *_: None,
    ) -> Reply:
        """Return the answer of a piece of work when it is its turn.

        Parameters
        ----------
        work : callable
            ``work(*args, tell)``, found by its name in the process that answers.
        args : tuple
            What it is given; copied there.
        person, plant : hashable
            Whose question it is.
        is_gone : callable, optional
            Tells whether whoever asked went away.
        tell : callable, optional
            Told ``waiting`` with how many are ahead, ``running`` with how far it is of how much.

        Raises
        ------
        GoneError
            If whoever asked went away.
        ProblemError
            429 if too many questions wait, 422 if it takes too long, 503 if its process ends.
        """
        if not self.seats:
            return answered(work, args, lambda done, of: tell("running", done, of))
        ticket = self._in_line(person, plant)
        seat = self._seat(ticket, is_gone, tell)
        try:
            tell("running", 0, 0)
            return seat.ask(work, args, is_gone, lambda done, of: tell("running", done, of))
        finally:
            with self._turn:
                self._running.remove(ticket)
                self._idle.append(seat)
                self._turn.notify_all()

    def _in_line(self, person: Hashable, plant: Hashable) -> Ticket:
        with self._turn:
            own = sum(one.person == person for one in self._waiting)
            if own >= MOST_EACH or len(self._waiting) >= MOST_WAITING:
                whose = f"{own} of yours" if own >= MOST_EACH else f"{len(self._waiting)} questions"
                raise ProblemError(
                    429,
                    code="busy",
                    detail=f"{whose} wait for a calculation already.",
                    field="",
                    hint="Ask again in a few seconds.",
                )
            ticket = Ticket(person, plant, next(self._came))
            self._waiting.append(ticket)
            return ticket

    def _next(self) -> Ticket | None:
        """Return who has the next seat; None while no one may have one."""
        if not self._idle:
            return None

        def under_way(ticket: Ticket) -> tuple[int, int]:
            return (
                sum(one.plant == ticket.plant for one in self._running),
                sum(one.person == ticket.person for one in self._running),
            )

        # a seat is left for another plant, and a person's second one waits for the others
        may = [
            (under_way(one), one.came, one)
            for one in self._waiting
            if under_way(one)[0] < max(1, self.seats - 1) and under_way(one)[1] < SEATS_EACH
        ]
        return min(may, key=lambda one: one[:2])[2] if may else None

    def _seat(
        self,
        ticket: Ticket,
        is_gone: Callable[[], bool],
        tell: Callable[[str, int, int], None],
    ) -> Seat:
        """Wait until it is a question's turn; it leaves the line, whatever happens."""
        try:
            while True:
                with self._turn:
                    if self._next() is ticket:
                        self._running.append(ticket)
                        # the one that answered last is there already
                        return self._idle.pop()
                    self._turn.wait(LOOKS_S)
                if is_gone():
                    raise GoneError
                tell("waiting", self.ahead(ticket), 0)
        finally:
            with self._turn:
                self._waiting.remove(ticket)
                self._turn.notify_all()
