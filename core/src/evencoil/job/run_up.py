"""The run-up of a job: what its plate, leads, supply and load say together."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace
from decimal import Decimal

from evencoil.base import CoreError, Message, RefusedError
from evencoil.job.inputs import JobInputs
from evencoil.job.worked import Worked
from evencoil.leads import Derived, derive
from evencoil.run_up import (
    TAPS,
    Asked,
    Facts,
    FaultSheet,
    Method,
    MethodSheet,
    Restart,
    RunUpSheet,
    StartParts,
    TimerAdvice,
    advise,
    fault_sheet,
    find_facts,
    method_sheet,
    methods_of,
    restarts,
    run_up_sheet,
)
from evencoil.starters import entry_of, start_of
from evencoil.winding import StartMethod

__all__ = ["JobRunUp", "run_up_of"]

_STARTS: dict[Method, StartMethod] = {"wye_delta": "wye_delta", "part_winding": "part_winding"}


@dataclass(frozen=True, slots=True)
class JobRunUp:
    """A job's motor, ready to run up every way it can be started.

    ``own`` is the way of this job: the box as wrongly joined, or the start its leads are for.
    """

    facts: Facts
    states_of: dict[Method, Derived | CoreError]
    own: Method

    def sheet(self) -> RunUpSheet:
        """Return all ways to start side by side."""
        return run_up_sheet(self.facts, self.states_of)

    def own_sheet(self) -> MethodSheet | None:
        """Return the job's own way to start alone; None where this motor does not have it."""
        states = self._states(self.own)
        return None if states is None else method_sheet(self.facts, self.own, states)

    def advice(self, method: Method) -> TimerAdvice | None:
        """Return the timer's setting of one way; None where it has no timer."""
        states = self._states(method)
        return None if states is None else advise(self.facts, method, states)

    def _states(self, method: Method) -> Derived | None:
        """Return the connections of one way to start; None where this motor does not have it."""
        states = self.states_of.get(method)
        return None if isinstance(states, CoreError) else states

    def restart(self) -> Restart | None:
        """Return how often the job's own way can be gone; None where it does not get through."""
        states, sheet = self._states(self.own), self.own_sheet()
        if states is None or sheet is None or self.own == "as_joined":
            return None
        return restarts(self.facts, self.own, states, sheet)

    def faults(self) -> FaultSheet:
        """Return what each fault does, running and before the start."""
        return fault_sheet(self.facts)


def _is_on_drive(worked: Worked) -> bool:
    """Tell whether the drawn starter is a drive that nothing leads past."""
    circuit = worked.starter.circuit
    ids = {} if circuit is None else {item.id: item.type for item in circuit.netlist.devices}
    return "drive" in ids.values() and "bypass" not in ids


def run_up_of(inputs: JobInputs, worked: Worked, *, is_on_line: bool = True) -> JobRunUp:
    """Return the motor of a job, ready to run.

    Parameters
    ----------
    inputs : JobInputs
        As entered.
    worked : Worked
        The same, calculated.
    is_on_line : bool
        It is asked what the motor does on the lines; False for the motor alone.

    Raises
    ------
    CoreError
        If something is missing, or such a motor is not calculated, or a drive starts it.
    """
    if is_on_line and _is_on_drive(worked):
        raise RefusedError(
            Message("run_up.drive"),
            field="starter.standard_circuit",
            hint=Message("run_up.drive.hint_drawn"),
        )
    found: dict[StartMethod, Derived | CoreError | None] = {
        start: _derived(worked, start) for start in ("full_voltage", "wye_delta", "part_winding")
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
            heaters=None if overload is None else overload.place,
            measured_locked_a=locked,
            device_kind=worked.kind,
            device_a=_device_a(worked),
            start_parts=_start_parts(inputs),
        )
    )
    states_of: dict[Method, Derived | CoreError] = {}
    joined = _as_joined(worked, facts)
    if joined is not None:
        states_of["as_joined"] = joined
    for method in methods_of(facts):
        states = found[_STARTS.get(method, "full_voltage")]
        if states is not None:
            states_of[method] = states
    return JobRunUp(facts, states_of, _own(inputs, facts, joined))


def _device_a(worked: Worked) -> Decimal | None:
    """Return the rating of fuses or breaker, where the sizes got that far [A]."""
    step = next((one for one in worked.trail if one.id == "protection_device_a"), None)
    return step.value if step is not None and isinstance(step.value, Decimal) else None


def _start_parts(inputs: JobInputs) -> StartParts:
    """Return what was found to start a single-phase motor."""
    single = inputs.leads.single
    if single is None:
        return StartParts()
    return StartParts(
        capacitors=single.capacitors,
        switch=single.switch,
        start_uf=single.start_uf,
        run_uf=single.run_uf,
    )


def _own(inputs: JobInputs, facts: Facts, joined: Derived | None) -> Method:
    """Return the way this job's motor is to be started, as far as it is said."""
    if joined is not None:
        return "as_joined"
    plain = methods_of(facts)
    if "full_voltage" not in plain or facts.kind == "wound":
        return plain[0]
    start: str = inputs.leads.start_method
    # without a standard circuit, what the leads are joined for counts
    with suppress(CoreError):
        start = start_of(entry_of(inputs.starter.standard_circuit))
    tap = inputs.size.start.tap_percent if inputs.size.start is not None else Decimal(65)
    if start == "autotransformer":
        return min(TAPS, key=lambda one: abs(TAPS[one] - tap))
    return next((one for one in _STARTS if one == start), "full_voltage")


def _as_joined(worked: Worked, facts: Facts) -> Derived | None:
    """Return the box as its joints were made, if they are wrong and no starter switches them.

    A right box runs as derived; one that is not joined yet does not run at all.
    """
    box = worked.box
    made = tuple(joint.as_core() for joint in worked.joints)
    outcome = box.outcome
    if not made or box.is_switched or outcome is None or outcome.verdict != "wrong":
        return None
    known = replace(facts.connection, name="as_joined", joints=made)
    return Derived(states={"run": known}, of="run", line_volts_v=facts.line_v)


def _derived(worked: Worked, start: StartMethod) -> Derived | CoreError | None:
    """Return the connections of one way to start, why there are none, or None if too early.

    Forward, whichever way the job turns: forward is the way the machine is to turn.
    """
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
            swap=worked.profile.swap_lines,
        )
    except CoreError as refused:
        return refused
