"""One job held against the rules: what fails, what is doubtful, what nobody knows.

Nothing is judged twice: verdicts are those of the Size sheet, findings those of nameplate, supply,
leads, starter and checks. An audit adds what they leave unsaid: where nothing was recorded,
nothing was held against anything, which is neither good nor bad.

Source: 430 and the sections that each verdict cites.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from evencoil.audit.topics import STATES, TOPICS, AuditState, Topic, topic_of
from evencoil.base import CoreError, Finding, Message, Refusal, Step, say
from evencoil.checks import Problem
from evencoil.job import JobInputs, JobStarter, Worked

__all__ = ["AuditLine", "FactNeed", "JobAudit", "audit_job", "line_rank"]

#: most characters of a key; two that begin alike are numbered
_KEY = 300
#: a recommendation of the code, no rule
_ADVICE = {"total_drop_percent"}
#: verdicts on what is installed: without any of them nothing was judged
_INSTALLED: dict[Topic, tuple[str, ...]] = {
    "wire": ("existing_cable",),
    "device": ("existing_device",),
    "overload": ("existing_heaters", "relay_dial"),
    "disconnect": ("motor_disconnect_place", "disconnect_kind", "existing_plug"),
    "fault": ("device_interrupting", "starter_short_circuit"),
}
_SCREEN: dict[Topic, str] = {
    "starter": "starter",
    "supply": "plate",
    "leads": "leads",
    "nameplate": "plate",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class AuditLine:
    """One thing that does not simply hold.

    Attributes
    ----------
    topic : str
        One of `TOPICS`.
    key : str
        What it is, the same in every audit of this job as long as it is the same thing.
    state : str
        ``fails``, ``fails_if``, ``doubt``, ``unknown`` or ``not_recorded``.
    said, do : str
        What is the matter, and what to do; ``do`` is empty where ``said`` tells it.
    guesses : tuple of str
        Assumed facts that it stands on: with the true ones it may hold.
    rule : str
        The section, empty where no code says it.
    step : str
        The screen where it is seen.
    """

    topic: Topic
    key: str
    state: AuditState
    said: str
    do: str = ""
    guesses: tuple[str, ...] = ()
    rule: str = ""
    step: str = "size"


@dataclass(frozen=True, slots=True, kw_only=True)
class FactNeed:
    """A fact that nobody entered, by what it costs.

    Attributes
    ----------
    fact : str
        The input, or the assumed step.
    said : str
        What is missing, in words.
    withheld : int
        Figures that cannot be found without it.
    assumed : int
        Figures that stand on a guess of it.
    step : str
        The screen where it is entered.
    """

    fact: str
    said: str
    withheld: int = 0
    assumed: int = 0
    step: str = "size"

    @property
    def cost(self) -> int:
        """Return how many figures it holds up or makes uncertain."""
        return self.withheld + self.assumed


@dataclass(frozen=True, slots=True, kw_only=True)
class JobAudit:
    """A job held against the rules.

    Attributes
    ----------
    states : dict of str to str
        Topic to its state; a topic that does not concern this job is left out.
    lines : tuple of AuditLine
        Worst first.
    needs : tuple of FactNeed
        Unknown facts, the costliest first.
    is_played : bool
        Whether the starter was run, and not only read off its drawing.
    """

    states: dict[Topic, AuditState]
    lines: tuple[AuditLine, ...]
    needs: tuple[FactNeed, ...]
    is_played: bool

    @property
    def state(self) -> AuditState:
        """Return the worst state of all topics."""
        return min(self.states.values(), key=STATES.index, default="not_recorded")


def audit_job(
    inputs: JobInputs,
    worked: Worked,
    *,
    is_played: bool = True,
    is_stale: bool = False,
    problems_of: Callable[[JobStarter], Sequence[Problem]] | None = None,
) -> JobAudit:
    """Return what fails, is doubtful or unknown in one job.

    Parameters
    ----------
    inputs : JobInputs
        What people entered.
    worked : Worked
        The job, calculated from them.
    is_played : bool
        False to read the starter off its drawing alone, which is ten times as fast and misses
        what only running shows.
    is_stale : bool
        Whether the motor has a newer nameplate than the job uses.
    problems_of : callable, optional
        Returns what the checks find on a starter, for a caller that keeps them; without it they
        are made.
    """
    starter = worked.starter
    roots = _roots(worked)
    leads = tuple(_leads(worked))
    found = [
        *_nameplate(worked),
        *_supply(worked),
        *leads,
        *_verdicts(worked),
        *_withheld(worked, roots),
    ]
    is_played = is_played and starter.circuit is not None and worked.supply_refusal is None
    if starter.circuit is None:
        found += _no_starter(inputs, starter)
    elif is_played:
        found += _starter(starter, (problems_of or JobStarter.problems)(starter))
    else:
        found += _starter(starter, starter.drawn_problems)
    if is_stale:
        said = say(Message("next.stale"))
        found.append(
            AuditLine(topic="nameplate", key="stale", state="doubt", said=said, step="plate")
        )
    found += _not_recorded(inputs, worked, is_leads_told=bool(leads))
    return JobAudit(
        states={topic: _state(topic, found, worked) for topic in _topics_of(inputs, worked)},
        lines=tuple(sorted(_once(found), key=line_rank)),
        needs=_needs(worked, found, roots),
        is_played=is_played,
    )


def line_rank(line: AuditLine) -> int:
    """Return a number that orders lines of a job and of all jobs, the worst first.

    Parameters
    ----------
    line : AuditLine
        Its state counts first, then whether it stands on guesses, then its topic.
    """
    by_state = STATES.index(line.state) * 2 + bool(line.guesses)
    return by_state * len(TOPICS) + TOPICS.index(line.topic)


def _once(lines: Sequence[AuditLine]) -> Iterator[AuditLine]:
    """Yield lines with keys of their own: a second one of the same kind is numbered."""
    seen: Counter[tuple[str, str]] = Counter()
    for line in lines:
        place = (line.topic, line.key)
        seen[place] += 1
        yield line if seen[place] == 1 else replace(line, key=f"{line.key}#{seen[place]}")


def _topics_of(inputs: JobInputs, worked: Worked) -> list[Topic]:
    """Return what concerns this job: no drive and no control circuit, no line about them."""
    size = inputs.size
    there = {
        "control": size.control is not None or "control_conductor" in worked.trail,
        "drive": size.drive is not None or "drive_output" in worked.trail,
    }
    return [topic for topic in TOPICS if there.get(topic, True)]


def _guesses(step: Step) -> tuple[str, ...]:
    said = (say(mark.message) for mark in step.marks if mark.kind in {"assumed", "doubted"})
    return tuple(dict.fromkeys(said))


def _told(topic: Topic, found: Finding, state: AuditState, key: str) -> AuditLine:
    return AuditLine(
        topic=topic,
        key=key,
        state=state,
        said=say(found.message),
        do="" if found.hint is None else say(found.hint),
        step=_SCREEN[topic],
    )


def _finding(topic: Topic, found: Finding) -> Iterator[AuditLine]:
    """Yield a finding as a line, if it asks for anything."""
    if found.level not in {"agrees", "note"}:
        state: AuditState = "fails" if found.level == "refusal" else "doubt"
        yield _told(topic, found, state, found.code)


def _missing(topic: Topic, key: str, state: AuditState, sentence: str) -> AuditLine:
    """Return a line for what was never entered: its sentence, and the hint of that."""
    return AuditLine(
        topic=topic,
        key=key,
        state=state,
        said=say(Message(sentence)),
        do=say(Message(f"{sentence}.hint")),
        step=_SCREEN.get(topic, "size"),
    )


def _refused(topic: Topic, refusal: Refusal, key: str, step: str) -> AuditLine:
    """Return a refusal as a line: a missing fact, or one that the rules do not reach."""
    return AuditLine(
        topic=topic,
        key=key,
        state="unknown",
        said=refusal.detail,
        do=refusal.hint,
        step=step,
    )


def _nameplate(worked: Worked) -> Iterator[AuditLine]:
    reading = worked.reading
    if not reading.text.strip():
        yield _missing("nameplate", "empty", "unknown", "audit.no_plate")
    for found in reading.findings:
        yield from _finding("nameplate", found)
    if isinstance(worked.estimate, CoreError):
        yield _refused("nameplate", Refusal.of(worked.estimate), "trust", "plate")


def _supply(worked: Worked) -> Iterator[AuditLine]:
    refusal = worked.supply_refusal
    if refusal is not None:
        line = _refused("supply", refusal, "supply", "plate")
        # a supply that is known and refused is none to leave the motor on
        yield line if refusal.code == "missing" else replace(line, state="fails")
    for found in worked.supply_checks:
        yield from _finding("supply", found)


def _leads(worked: Worked) -> Iterator[AuditLine]:
    box = worked.box
    if box.is_disputed:
        yield AuditLine(
            topic="leads",
            key="disputed",
            state="doubt",
            said=say(Message("headline.leads.differs")),
            step="leads",
        )
    if box.outcome_error is not None:
        yield _refused("leads", Refusal.of(box.outcome_error), "joined", "leads")
    elif box.derived_error is not None and not _is_told(box.derived_error, worked):
        yield _refused("leads", Refusal.of(box.derived_error), "connection", "leads")
    outcome = box.outcome
    # wrong volts on every coil of a wrong supply are not the joints' fault
    if outcome is not None and outcome.verdict == "wrong" and worked.supply_refusal is None:
        first = outcome.findings[0]
        yield _told("leads", first, "fails", f"joined.{first.code}")


def _is_told(error: CoreError, worked: Worked) -> bool:
    """Tell whether the supply says the same already, or nothing was entered yet."""
    first = worked.supply_refusal
    return error.code == "missing" or (first is not None and first.detail == str(error))


def _verdicts(worked: Worked) -> Iterator[AuditLine]:
    """Yield every verdict of the Size sheet that fails."""
    for step in worked.trail:
        topic = topic_of(step.id)
        if step.verdict != "fails" or topic is None:
            continue
        guesses = _guesses(step)
        fails: AuditState = "fails_if" if guesses else "fails"
        yield AuditLine(
            topic=topic,
            key=step.id,
            state="doubt" if step.id in _ADVICE else fails,
            said=say(step.working),
            guesses=guesses,
            rule=str(step.rule or ""),
        )


def _withheld(worked: Worked, roots: Mapping[str, Refusal]) -> Iterator[AuditLine]:
    """Yield why figures are withheld, each reason once: what waits for another is told there."""
    seen = set()
    first = worked.supply_refusal
    if first is not None:
        seen.add(first.detail)
    for line in worked.figures:
        topic = topic_of(line.id)
        if line.refusal is None or topic is None or roots[line.id] != line.refusal:
            continue
        if line.refusal.detail not in seen:
            seen.add(line.refusal.detail)
            yield _refused(topic, line.refusal, f"withheld.{line.id}", "size")


def _roots(worked: Worked) -> dict[str, Refusal]:
    """Return for each withheld figure the refusal with which the waiting begins."""
    withheld = {line.id: line.refusal for line in worked.figures if line.refusal is not None}
    known = dict(withheld)
    # an input that is asked for by one figure and waited for by others under its step's name
    for one in withheld.values():
        if one.field.startswith("size."):
            known.setdefault(one.field.removeprefix("size.").replace(".", "_"), one)

    def root(refusal: Refusal) -> Refusal:
        for _ in known:
            behind = known.get(refusal.field) if refusal.code == "missing" else None
            if behind is None or behind == refusal:
                break
            refusal = behind
        return refusal

    return {name: root(refusal) for name, refusal in withheld.items()}


def _no_starter(inputs: JobInputs, starter: JobStarter) -> Iterator[AuditLine]:
    if not inputs.starter.standard_circuit:
        yield _missing("starter", "none", "not_recorded", "audit.no_starter")
    elif starter.refusal is not None:
        yield _refused("starter", Refusal.of(starter.refusal), "refused", "starter")


def _starter(starter: JobStarter, problems: Sequence[Problem]) -> Iterator[AuditLine]:
    for found in starter.findings:
        yield from _finding("starter", found)
    for one in problems:
        if one.level == "note":
            continue
        places = ",".join((*one.devices, *one.terminals))
        yield AuditLine(
            topic="starter",
            key=f"{one.rule}.{one.message.id}:{places}"[:_KEY],
            state="fails" if one.level == "error" else "doubt",
            said=say(one.message),
            do=say(one.change),
            rule=one.rule,
            step="drawings",
        )


def _recorded(inputs: JobInputs) -> dict[Topic, bool]:
    """Return of what is installed whether anybody entered anything."""
    size = inputs.size
    there, place, heater, overload = size.existing, size.place, size.heater, size.overload
    return {
        "wire": there is not None and there.cable is not None,
        "device": there is not None and there.device_a is not None,
        "overload": (there is not None and there.trip_a is not None)
        or (heater is not None and bool(heater.code))
        or (overload is not None and overload.low_a is not None),
        "disconnect": (place is not None and (place.motor_ft is not None or place.kind is not None))
        or (there is not None and there.plug_a is not None),
        "fault": size.fault is not None or inputs.supply.fault_current_a is not None,
    }


def _not_recorded(inputs: JobInputs, worked: Worked, *, is_leads_told: bool) -> Iterator[AuditLine]:
    """Yield what nobody entered, so that nothing was held against anything."""
    missing = [topic for topic, is_recorded in _recorded(inputs).items() if not is_recorded]
    outcome = worked.box.outcome
    is_held = worked.supply_refusal is not None and worked.supply_refusal.code != "missing"
    is_open = outcome is None or outcome.verdict == "open"
    if is_open and not (is_held or is_leads_told or inputs.leads.joints):
        missing.append("leads")
    for topic in missing:
        yield _missing(topic, "not_recorded", "not_recorded", f"audit.not_recorded.{topic}")


def _state(topic: Topic, lines: Sequence[AuditLine], worked: Worked) -> AuditState:
    """Return the worst state of a topic; what holds on a guess is no proof."""
    own = [line.state for line in lines if line.topic == topic]
    if own:
        return min(own, key=STATES.index)
    if not _is_held(topic, worked):
        # what waits for nameplate or supply is told there
        return "unknown"
    if topic == "nameplate":
        return "guess" if worked.reading.assumed else "holds"
    held = [step for step in worked.trail if step.verdict and topic_of(step.id) == topic]
    return "guess" if any(_guesses(step) for step in held) else "holds"


def _is_held(topic: Topic, worked: Worked) -> bool:
    """Tell whether anything says that a topic holds: that nothing speaks against it is not it."""
    outcome = worked.box.outcome
    if topic == "nameplate":
        return bool(worked.reading.text.strip()) and not worked.reading.missing
    if topic == "supply":
        return worked.supply is not None and worked.supply_refusal is None
    if topic == "leads":
        return outcome is not None and outcome.verdict == "right"
    if topic == "starter":
        # played on a wrong supply it would be told off for what the supply does
        return worked.starter.circuit is not None and worked.supply_refusal is None
    if topic in _INSTALLED:
        return any(step.verdict and step.id in _INSTALLED[topic] for step in worked.trail)
    return any(line.step is not None and topic_of(line.id) == topic for line in worked.figures)


def _needs(
    worked: Worked, lines: Sequence[AuditLine], roots: Mapping[str, Refusal]
) -> tuple[FactNeed, ...]:
    """Return the unknown facts of a job, the costliest first."""
    withheld: Counter[str] = Counter()
    assumed: Counter[str] = Counter()
    said: dict[str, str] = {}
    for line in worked.figures:
        root = roots.get(line.id)
        if root is not None and root.code == "missing":
            withheld[root.field] += 1
            said.setdefault(root.field, root.detail)
        if line.step is None or line.step not in worked.trail:
            continue
        for mark in worked.trail[line.step].marks:
            if mark.kind == "assumed":
                assumed[mark.origin] += 1
                said.setdefault(mark.origin, say(mark.message))
    for one in lines:
        if one.state == "not_recorded" and one.topic in _INSTALLED:
            withheld[f"installed.{one.topic}"] += 1
            said[f"installed.{one.topic}"] = one.said
    facts = [
        FactNeed(
            fact=fact,
            said=text,
            withheld=withheld[fact],
            assumed=assumed[fact],
            step="plate" if fact.split(".")[0] in {"plate", "supply"} else "size",
        )
        for fact, text in said.items()
    ]
    return tuple(sorted(facts, key=lambda one: (-one.cost, one.fact)))
