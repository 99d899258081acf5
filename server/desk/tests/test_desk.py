"""Who is answered next, what is kept, and what is told of a question under way."""

from __future__ import annotations

import threading

import pytest
from hypothesis import given
from hypothesis import strategies as st

from api.problems import ProblemError
from desk import answer as module
from desk.desk import MOST_EACH, MOST_WAITING, SEATS_EACH, Desk, Ticket
from desk.seat import GoneError, Seat
from desk.tests import works
from tests_support import caller, signed_in

BODY = {"plate": {"text": "15 HP 460 V 19.3 A 3 PH"}, "starter": {"standard_circuit": "3A"}}


def next_of(seats, running, waiting):
    """Return who is next, of (person, plant) under way and waiting in the order they came."""
    desk = Desk(seats)
    desk._idle = desk._idle[len(running) :]
    desk._running = [Ticket(*one, place) for place, one in enumerate(running)]
    desk._waiting = [Ticket(*one, 100 + place) for place, one in enumerate(waiting)]
    found = desk._next()
    return None if found is None else (found.person, found.plant)


def test_next_is_who_has_least_under_way():
    """By hand: first come, then who has nothing under way, then who is of another plant."""
    ann, ben, cid = ("ann", "here"), ("ben", "here"), ("cid", "there")
    assert next_of(3, [], [ann, ben]) == ann
    assert next_of(3, [ann], [ann, ann, ben]) == ben
    assert next_of(4, [ann], [ann, ben, cid]) == cid
    # a second seat for one person while nobody else waits, no third
    assert next_of(4, [ann], [ann]) == ann
    assert next_of(4, [ann, ann], [ann]) is None
    # one seat is left for another plant
    assert next_of(3, [ann, ben], [ben, ann]) is None
    assert next_of(3, [ann, ben], [ben, cid]) == cid
    assert next_of(3, [ann, ben, cid], [cid]) is None
    # one seat in all is everybody's
    assert next_of(1, [], [ann]) == ann


people = st.tuples(st.sampled_from("abcd"), st.sampled_from(["here", "there"]))


@given(st.integers(1, 4), st.lists(people, max_size=4), st.lists(people, max_size=8))
def test_nobody_takes_all(seats, running, waiting):
    """Whoever is next has no more under way than anybody who could be next."""
    running = running[:seats]
    found = next_of(seats, running, waiting)
    if found is None:
        return
    assert found in waiting
    assert len(running) < seats
    own = sum(one[0] == found[0] for one in running)
    assert own < SEATS_EACH
    if own:
        others = [one for one in waiting if one[1] == found[1] and one[0] != found[0]]
        assert all(any(one[0] == other[0] for one in running) for other in others)


def test_a_line_that_is_too_long_is_refused_and_moves_on(monkeypatch):
    """Six of one person wait, twelve of all; who goes away leaves the line."""
    goes_on = threading.Event()

    def ask(self, work, args, is_gone, tell):
        goes_on.wait(20)
        return 200, work(*args, tell)

    monkeypatch.setattr(Seat, "ask", ask)
    desk = Desk(1)
    gone = threading.Event()
    replies = []

    def one(person, is_gone=lambda: False):
        try:
            replies.append(
                desk.ask(works.doubles, (1,), person=person, plant="here", is_gone=is_gone)
            )
        except GoneError:
            replies.append("gone")

    def starts(person, **how):
        before = len(desk._waiting) + len(desk._running)
        thread = threading.Thread(target=one, args=(person,), kwargs=how)
        thread.start()
        while len(desk._waiting) + len(desk._running) == before:
            threading.Event().wait(0.01)
        return thread

    threads = [starts("ann") for _ in range(1 + MOST_EACH)]
    with pytest.raises(ProblemError, match="6 of yours wait") as refused:
        desk.ask(works.doubles, (1,), person="ann", plant="here")
    assert refused.value.status == 429
    threads += [starts(f"p{place}") for place in range(MOST_WAITING - MOST_EACH - 1)]
    leaves = starts("zed", is_gone=gone.is_set)
    with pytest.raises(ProblemError, match="12 questions wait"):
        desk.ask(works.doubles, (1,), person="new", plant="here")
    gone.set()
    leaves.join(5)
    assert replies == ["gone"]
    goes_on.set()
    for thread in threads:
        thread.join(5)
    assert replies.count((200, 2)) == len(threads)
    assert desk._waiting == desk._running == []


def test_an_answer_is_kept_by_what_decides_it(client, monkeypatch):
    """The same again is answered without work; other inputs or rules are worked anew."""

    def ask(kind="checks", body=BODY):
        return client.post(f"/api/w/here/{kind}", body, content_type="application/json")

    first = ask()
    assert first.status_code == 200
    assert {one["device"] for one in first.json()["isolations"]}

    def nobody(*_args, **_more):
        raise AssertionError("worked again")

    monkeypatch.setattr(module.desk, "ask", nobody)
    assert ask().content == first.content
    for other in (
        lambda: ask("dead"),
        lambda: ask(body={**BODY, "supply": {"text": "240 delta"}}),
    ):
        with pytest.raises(AssertionError, match="worked again"):
            other()
    ruth = signed_in(caller("here", "ruth", "reviewer"))
    ruth.patch("/api/w/here/rules", {"line_names": "R-Y-B"}, content_type="application/json")
    with pytest.raises(AssertionError, match="worked again"):
        ask()


def test_a_question_is_told_to_whoever_asked_it(client, here):
    """Nothing known before; then what was told last; another person is told nothing."""
    place = "/api/w/here/questions/a1-b2"
    assert client.get(place).json() == {"state": "unknown", "done": 0, "of": 0}
    module.cache.set(module._place(here, "a1-b2"), {"state": "running", "done": 30, "of": 90})
    assert client.get(place).json() == {"state": "running", "done": 30, "of": 90}
    other = signed_in(caller("here", "ben"))
    assert other.get(place).json()["state"] == "unknown"
    assert client.get("/api/w/here/questions/Not%20A%20Name").status_code == 422
    assert client.get("/api/w/there/questions/a1-b2").status_code == 404


@pytest.mark.parametrize("name", ["", "a b", "x" * 65, "né", "../x"])
def test_a_name_that_is_none_is_told_nothing_of(here, name, rf, monkeypatch):
    """Whatever stands in the header: no key of the cache is made of it."""
    kept = []
    monkeypatch.setattr(module, "_TELLS_S", 0)
    monkeypatch.setattr(module.cache, "set", lambda key, *_: kept.append(key), raising=False)
    module._teller(rf.get("/", headers={"X-Question": name}), here)("running", 1, 2)
    assert kept == []
    module._teller(rf.get("/", headers={"X-Question": "a1-B2"}), here)("running", 1, 2)
    assert len(kept) == 1


def test_who_closed_the_connection_gets_no_answer(client):
    """Given up while it waits; nothing is kept."""
    body = {**BODY, "supply": {"text": "208Y/120"}}
    before = module.desk
    module.desk = Desk(1)
    module.desk._idle.clear()
    try:
        answer = client.post(
            "/api/w/here/dead",
            body,
            content_type="application/json",
            **{"waitress.client_disconnected": lambda: True},
        )
    finally:
        module.desk = before
    assert answer.status_code == 499
    assert answer.json()["code"] == "gone"
