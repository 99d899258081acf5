"""The run-up of a job: what its plate, leads, supply and load say together."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import CoreError
from evencoil.job.inputs import JobInputs
from evencoil.job.worked import Worked
from evencoil.leads import Derived, derive
from evencoil.run_up import (
    METHODS,
    Asked,
    Facts,
    LostPhase,
    Method,
    RunUpSheet,
    TimerAdvice,
    advise,
    find_facts,
    lost_phase,
    run_up_sheet,
)
from evencoil.winding import StartMethod

__all__ = ["JobRunUp", "run_up_of"]

_STARTS: dict[Method, StartMethod] = {"wye_delta": "wye_delta", "part_winding": "part_winding"}


@dataclass(frozen=True, slots=True)
class JobRunUp:
    """A job's motor, ready to run up every way it can be started."""

    facts: Facts
    states_of: dict[Method, Derived | CoreError]

    def sheet(self) -> RunUpSheet:
        """Return all ways to start side by side."""
        return run_up_sheet(self.facts, self.states_of)

    def advice(self, method: Method) -> TimerAdvice | None:
        """Return the timer's setting of one way; None where it has no timer."""
        states = self.states_of[method]
        return None if isinstance(states, CoreError) else advise(self.facts, method, states)

    def lost_phase(self) -> LostPhase:
        """Return what a lost line does."""
        return lost_phase(self.facts)


def run_up_of(inputs: JobInputs, worked: Worked) -> JobRunUp:
    """Return the motor of a job, ready to run.

    Parameters
    ----------
    inputs : JobInputs
        As entered.
    worked : Worked
        The same, calculated.

    Raises
    ------
    CoreError
        If something is missing, or such a motor is not calculated.
    """
    found: dict[StartMethod, Derived | CoreError | None] = {
        start: _derived(inputs, worked, start)
        for start in ("full_voltage", "wye_delta", "part_winding")
    }
    full = found["full_voltage"]
    verdict, measured = worked.verdict, inputs.size.measured_start
    locked: Decimal | None = None
    if measured is not None and verdict is not None:
        locked = round(measured.amps_a * verdict.plate_volts.high / measured.volts_v, 1)
    overload = inputs.size.overload
    facts = find_facts(
        Asked(
            plate=worked.reading.plate,
            supply=worked.supply,
            verdict=verdict,
            winding=worked.box.winding,
            rating=worked.box.rating,
            states=full if isinstance(full, Derived) else None,
            load=inputs.load,
            fault_current_a=inputs.supply.fault_current_a,
            trip_class=None if overload is None else overload.trip_class,
            measured_locked_a=locked,
        )
    )
    states_of: dict[Method, Derived | CoreError] = {}
    for method in METHODS:
        states = found[_STARTS.get(method, "full_voltage")]
        if states is not None:
            states_of[method] = states
    return JobRunUp(facts, states_of)


def _derived(inputs: JobInputs, worked: Worked, start: StartMethod) -> Derived | CoreError | None:
    """Return the connections of one way to start, why there are none, or None if too early."""
    box = worked.box
    if box.winding is None or box.rating is None or worked.supply is None or worked.verdict is None:
        return None
    try:
        return derive(
            box.winding,
            rating=box.rating,
            supply=worked.supply,
            verdict=worked.verdict,
            start_method=start,
            is_reverse=inputs.leads.direction == "reverse",
            swap=worked.profile.swap_lines,
        )
    except CoreError as refused:
        return refused
