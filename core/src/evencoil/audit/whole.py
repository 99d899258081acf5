"""Many jobs together: how many hold, which facts cost the most, what changed since the last time.

Counts and lists come from the same lines, so that no headline says another number than its list.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal

from evencoil.audit.job_audit import AuditLine, FactNeed, JobAudit
from evencoil.audit.topics import AuditState, Topic
from evencoil.base import Message

__all__ = [
    "Change",
    "Place",
    "PlantNeed",
    "Tally",
    "changes",
    "doubtful_in",
    "headline",
]


#: states of a topic of which too little is known to say that it holds or fails
_OPEN: frozenset[AuditState] = frozenset({"unknown", "not_recorded"})


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """Which job a line belongs to: its key, and where the motor is."""

    job: str
    tag: str
    machine: str = ""
    panel: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlantNeed:
    """A fact that is unknown in some jobs, and what that costs together.

    Attributes
    ----------
    fact, said, step : str
        As `FactNeed`; ``said`` is that of the first job.
    jobs, withheld, assumed : int
        Jobs without it, figures that cannot be found, figures on a guess.
    """

    fact: str
    said: str
    step: str
    jobs: int
    withheld: int
    assumed: int

    @property
    def cost(self) -> int:
        """Return how many figures it holds up or makes uncertain."""
        return self.withheld + self.assumed


@dataclass(slots=True)
class Tally:
    """Counts over many jobs, filled one job at a time; two of them can be added.

    Attributes
    ----------
    jobs : Counter of str
        Worst state to jobs.
    topics : dict of str to Counter of str
        Topic to state to jobs.
    machines : dict of str to Counter of str
        Machine to worst state to jobs; ``panels`` the same of panels.
    open_jobs : int
        Jobs of which something is not known, whatever else is found in them;
        ``open_machines`` and ``open_panels`` by where they are.
    unread : int
        Jobs that could not be read at all.
    """

    jobs: Counter[AuditState] = field(default_factory=Counter)
    topics: dict[Topic, Counter[AuditState]] = field(default_factory=dict)
    machines: dict[str, Counter[AuditState]] = field(default_factory=dict)
    panels: dict[str, Counter[AuditState]] = field(default_factory=dict)
    open_jobs: int = 0
    open_machines: Counter[str] = field(default_factory=Counter)
    open_panels: Counter[str] = field(default_factory=Counter)
    unread: int = 0
    _needs: dict[str, PlantNeed] = field(default_factory=dict)

    @property
    def total(self) -> int:
        """Return how many jobs were counted, those that could not be read among them."""
        return self.jobs.total() + self.unread

    def add(self, place: Place, audit: JobAudit) -> None:
        """Count a job.

        Parameters
        ----------
        place : Place
            Where it is.
        audit : JobAudit
            What was found in it.
        """
        worst = audit.state
        self.jobs[worst] += 1
        self.machines.setdefault(place.machine, Counter())[worst] += 1
        self.panels.setdefault(place.panel, Counter())[worst] += 1
        if _OPEN & set(audit.states.values()):
            self.open_jobs += 1
            self.open_machines[place.machine] += 1
            self.open_panels[place.panel] += 1
        for topic, state in audit.states.items():
            self.topics.setdefault(topic, Counter())[state] += 1
        for need in audit.needs:
            self._need(need, 1)

    def _need(self, need: FactNeed | PlantNeed, jobs: int) -> None:
        known = self._needs.get(need.fact)
        self._needs[need.fact] = PlantNeed(
            fact=need.fact,
            said=need.said if known is None else known.said,
            step=need.step,
            jobs=jobs + (0 if known is None else known.jobs),
            withheld=need.withheld + (0 if known is None else known.withheld),
            assumed=need.assumed + (0 if known is None else known.assumed),
        )

    def merge(self, other: Tally) -> None:
        """Add what was counted elsewhere.

        Parameters
        ----------
        other : Tally
            Of other jobs; it stays as it is.
        """
        self.jobs.update(other.jobs)
        for topic, counts in other.topics.items():
            self.topics.setdefault(topic, Counter()).update(counts)
        for own, theirs in ((self.machines, other.machines), (self.panels, other.panels)):
            for name, counts in theirs.items():
                own.setdefault(name, Counter()).update(counts)
        self.unread += other.unread
        self.open_jobs += other.open_jobs
        self.open_machines.update(other.open_machines)
        self.open_panels.update(other.open_panels)
        for need in other.needs():
            self._need(need, need.jobs)

    def needs(self) -> tuple[PlantNeed, ...]:
        """Return the unknown facts, the costliest first."""
        return tuple(sorted(self._needs.values(), key=lambda one: (-one.cost, one.fact)))


def doubtful_in(counts: Mapping[AuditState, int]) -> int:
    """Return of how many jobs a person has to look: doubtful, or failing on assumed facts.

    Parameters
    ----------
    counts : mapping
        State to jobs.
    """
    return counts.get("fails_if", 0) + counts.get("doubt", 0)


def headline(tally: Tally, *, is_supposed: bool = False) -> Message:
    """Return how a plant stands in one sentence; what was not tried is part of it.

    Parameters
    ----------
    tally : Tally
        Of every job that was audited.
    is_supposed : bool
        Whether something was supposed: then nothing of it is said as if it were so.
    """
    params = {
        "fails": str(tally.jobs["fails"]),
        "total": str(tally.total),
        "doubt": str(doubtful_in(tally.jobs)),
        "open": str(tally.open_jobs + tally.unread),
        "guess": str(tally.jobs["guess"]),
    }
    if not tally.total:
        return Message("audit.headline.none")
    if is_supposed:
        return Message("audit.headline.if", params)
    left = tally.total - tally.jobs["holds"] - tally.jobs["guess"]
    return Message("audit.headline.open" if left else "audit.headline.holds", params)


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """A line that came, went, or is of another state than in an earlier audit.

    Attributes
    ----------
    job : str
        Key of the job.
    line : AuditLine
        As it is now; of one that went, as it was.
    before : str
        State in the earlier audit, empty if it was not there.
    after : str
        State now, empty if it is gone.
    """

    job: str
    line: AuditLine
    before: AuditState | Literal[""]
    after: AuditState | Literal[""]


def changes(
    before: Mapping[str, Iterable[AuditLine]], after: Mapping[str, Iterable[AuditLine]]
) -> Iterator[Change]:
    """Yield what differs between two audits, in the jobs that are in both.

    Parameters
    ----------
    before : mapping
        Job to its lines in the earlier audit.
    after : mapping
        Job to its lines now. A job in one of the two alone was added or taken away: its lines
        are no change of anything.
    """
    for job, lines in after.items():
        if job not in before:
            continue
        was = {(line.topic, line.key): line for line in before[job]}
        now = {(line.topic, line.key): line for line in lines}
        for place, line in now.items():
            old = was.get(place)
            if old is None:
                yield Change(job=job, line=line, before="", after=line.state)
            elif old.state != line.state:
                yield Change(job=job, line=line, before=old.state, after=line.state)
        for place, line in was.items():
            if place not in now:
                yield Change(job=job, line=line, before=line.state, after="")
