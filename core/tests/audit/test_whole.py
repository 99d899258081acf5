"""Many jobs together: counts are their lines', two counts are one, the worst is first."""

import csv
import io
from collections import Counter

from hypothesis import given, settings
from hypothesis import strategies as st

from evencoil.audit import (
    HEADS,
    STATES,
    TOPICS,
    AuditLine,
    FactNeed,
    JobAudit,
    Place,
    Tally,
    audit_csv,
    changes,
    headline,
    line_rank,
)
from evencoil.base import say

LINE = st.builds(
    AuditLine,
    topic=st.sampled_from(TOPICS),
    key=st.sampled_from(["a", "b", "c", "d"]),
    state=st.sampled_from(STATES[:5]),
    said=st.text(max_size=12),
    guesses=st.sampled_from([(), ("30 °C assumed.",)]),
)
NEED = st.builds(
    FactNeed,
    fact=st.sampled_from(["ambient_c", "supply.text", "coils"]),
    said=st.text(max_size=8),
    withheld=st.integers(0, 6),
    assumed=st.integers(0, 6),
)


@st.composite
def audits(draw):
    """Draw an audit whose states are those of its lines."""
    lines = draw(st.lists(LINE, max_size=6, unique_by=lambda line: (line.topic, line.key)))
    states = dict.fromkeys(TOPICS, "holds")
    for line in lines:
        states[line.topic] = min(states[line.topic], line.state, key=STATES.index)
    needs = draw(st.lists(NEED, max_size=3, unique_by=lambda need: need.fact))
    return JobAudit(states=states, lines=tuple(lines), needs=tuple(needs), is_played=True)


PLACED = st.tuples(
    st.builds(
        Place,
        job=st.uuids().map(str),
        tag=st.text(max_size=8),
        machine=st.sampled_from(["Kiln 1", "Stack", ""]),
        panel=st.sampled_from(["MCC-1", ""]),
    ),
    audits(),
)


def counted(pairs):
    """Return the tally of some jobs."""
    tally = Tally()
    for place, audit in pairs:
        tally.add(place, audit)
    return tally


def read(tally):
    """Return everything a tally says."""
    return (
        tally.total,
        tally.jobs,
        tally.topics,
        tally.machines,
        tally.panels,
        (tally.open_jobs, tally.open_machines, tally.open_panels),
        {need.fact: (need.jobs, need.cost) for need in tally.needs()},
    )


@given(st.lists(PLACED, max_size=8))
@settings(max_examples=60, deadline=None)
def test_counts_are_of_the_jobs_themselves(pairs):
    """Every job is counted once: over all, in each topic, in its machine and its panel."""
    tally = counted(pairs)
    assert tally.total == len(pairs)
    assert tally.jobs == Counter(audit.state for _, audit in pairs)
    for topic in TOPICS if pairs else ():
        assert tally.topics[topic].total() == len(pairs)
    assert sum(counts.total() for counts in tally.machines.values()) == len(pairs)
    assert sum(counts.total() for counts in tally.panels.values()) == len(pairs)
    some = [
        place for place, audit in pairs if {"unknown", "not_recorded"} & set(audit.states.values())
    ]
    assert tally.open_jobs == len(some) == tally.open_machines.total()
    assert tally.open_panels == Counter(place.panel for place in some)
    for need in tally.needs():
        own = [one for _, audit in pairs for one in audit.needs if one.fact == need.fact]
        assert need.jobs == len(own)
        assert need.cost == sum(one.withheld + one.assumed for one in own)
    costs = [need.cost for need in tally.needs()]
    assert costs == sorted(costs, reverse=True)


@given(st.lists(PLACED, max_size=6), st.lists(PLACED, max_size=6))
@settings(max_examples=40, deadline=None)
def test_parts_add_up_to_the_whole(first, second):
    """However an audit is divided among workers, the sum is the same."""
    tally = counted(first)
    tally.merge(counted(second))
    assert read(tally) == read(counted([*first, *second]))


@given(st.lists(LINE, max_size=12))
def test_the_worst_comes_first(lines):
    """State before guesses before topic."""
    ordered = sorted(lines, key=line_rank)
    states = [STATES.index(line.state) for line in ordered]
    assert states == sorted(states)
    for state in STATES:
        guesses = [bool(line.guesses) for line in ordered if line.state == state]
        assert guesses == sorted(guesses)


@given(audits(), audits())
@settings(max_examples=60, deadline=None)
def test_changes_lead_from_one_audit_to_the_other(before, after):
    """What was, with the changes applied, is what is."""
    state = {(line.topic, line.key): line.state for line in before.lines}
    for change in changes({"a": before.lines}, {"a": after.lines}):
        place = (change.line.topic, change.line.key)
        assert state.pop(place, "") == change.before
        if change.after:
            state[place] = change.after
    assert state == {(line.topic, line.key): line.state for line in after.lines}


@given(st.text(max_size=20), st.text(max_size=20))
def test_a_table_of_it_reads_back_and_holds_no_formula(machine, said):
    """Whatever a plant calls its machines: one row, the cells as they were, nothing to be run."""
    line = AuditLine(topic="wire", key="existing_cable", state="fails", said=said)
    text = audit_csv([(Place(job="1", tag="M-1", machine=machine), line)])
    head, row = list(csv.reader(io.StringIO(text, newline="")))
    assert tuple(head) == HEADS
    cells = dict(zip(HEADS, row, strict=True))
    assert cells["machine"].removeprefix("'") == machine.removeprefix("'")
    assert cells["what"].removeprefix("'") == said.removeprefix("'")
    assert cells["topic"] == "Wire"
    assert cells["state"] == "fails"
    for cell in row:
        assert cell.strip()[:1] not in {"=", "+", "@"} or len(cell.strip()) == 1


def test_the_headline_says_what_is_not_known_of_those_that_fail_too():
    """One fails and its disconnect is not recorded: it counts in both."""
    tally = Tally()
    states = {"overload": "fails", "disconnect": "not_recorded"}
    tally.add(Place(job="1", tag="A"), JobAudit(states=states, lines=(), needs=(), is_played=True))
    tally.unread = 1
    assert say(headline(tally)) == "1 of 2 motors fail, 0 in doubt; of 2 something is not known"
    whole = Tally()
    assert say(headline(whole)) == "No motor was audited"
    good = JobAudit(states={"wire": "guess"}, lines=(), needs=(), is_played=True)
    whole.add(Place(job="1", tag="A"), good)
    assert say(headline(whole)) == (
        "1 motor held against the rules, none fails; 1 on assumed facts"
    )
    supposed = say(headline(whole, is_supposed=True))
    assert supposed.startswith("If it were so, 0 of 1 motor would fail")
