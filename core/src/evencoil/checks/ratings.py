"""Checks of protective devices against what they protect, as far as both were entered.

A value that the device library or a standard circuit fills in was never entered for the job, and
is not judged (`Graph.stated`).

Units: amps [A]. Source: NEC 430.32 (overload), 430.52(C) with its exceptions (at most 400 % of
the full-load current for fuses and inverse-time breakers, 1,700 % for an instantaneous trip),
450.3(B) and 430.72(C) (500 % of the primary current below 2 A, 250 % above with secondary
protection; 167 % of a secondary below 9 A, 125 % from there).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from evencoil.checks.model import Problem, problem
from evencoil.checks.reach import Edge, Graph, once
from evencoil.checks.transformer import primary_volts
from evencoil.circuit import Device, Edit, has_two_speeds
from evencoil.solver import constants

__all__ = ["rating_problems", "setting_problems", "starting_amps"]

_CEILING = 4.0
#: instantaneous trip: 1,700 % with the highest exception; an inverse-time breaker of 400 %
#: trips at once at about ten times its own rating
_MAGNETIC_CEILING = 40.0
_DIAL_BAND = (0.9, 1.15)


def _behind(graph: Graph, item: Device) -> list[Device]:
    """Return the motors that a power device carries the whole current of."""

    def conducts(edge: Edge) -> bool:
        is_way = edge.link.kind in {"pole", "heat", "fuse", "resistor"}
        return edge.device.id != item.id and (is_way or edge.device.type == "autox")

    own = {
        net
        for edge in graph.edges
        if edge.device.id == item.id and edge.link.kind in {"pole", "heat", "fuse"}
        for net in (edge.one, edge.other)
    }
    without = graph.spread(graph.line_nets(), conducts)
    near = graph.spread(own - without, conducts)
    return [
        motor
        for motor in graph.circuit.netlist.devices
        if motor.type.startswith("motor")
        and {graph.net(motor.id, end) for end in motor.terminals} & near
        and not {graph.net(motor.id, end) for end in motor.terminals if end != "PE"} & without
    ]


def _amps(motor: Device) -> float:
    return float(motor.parameters.get("fla") or 0)


def starting_amps(motors: list[Device]) -> float:
    """Return the most that motors draw at a start: one starting, the others running [A].

    Parameters
    ----------
    motors : list of Device
        Behind one protective device.
    """
    locked = constants()["locked_times"]
    running = sum(_amps(one) for one in motors)
    return max((running + (locked - 1) * _amps(one) for one in motors), default=0.0)


@once
def rating_problems(graph: Graph) -> tuple[Problem, ...]:
    """Go through H22 (manual starters), E05 (branch circuit) and E06 (control fuses).

    Parameters
    ----------
    graph : Graph
        The circuit.
    """
    return tuple(_found(graph))


def _found(graph: Graph) -> Iterator[Problem]:
    for item in graph.of_type("cb3", "fdisc", "mms", "manual"):
        motors = _behind(graph, item)
        full = sum(_amps(one) for one in motors)
        # without amps on the plate the motor's are the library's, and judge nothing
        is_known = graph.is_stated is None or all(graph.is_stated(one.id, "fla") for one in motors)
        if full and is_known:
            yield from _dial(graph, item, motors, full)
            yield from _branch(graph, item, motors, full)
    for item in graph.of_type("xfmr"):
        yield from _control_fuses(graph, item)


def _dial(graph: Graph, item: Device, motors: list[Device], full: float) -> Iterator[Problem]:
    dial = graph.stated(item, "iset") if item.type in {"mms", "manual"} else None
    if dial is not None and not any(has_two_speeds(one) for one in motors):
        yield from setting_problems(graph, item.id, [one.id for one in motors], dial, full)


def setting_problems(
    graph: Graph, overload: str, motors: Sequence[str], dial_a: float, full_a: float
) -> Iterator[Problem]:
    """Find an overload that is set for another current than it carries, H22.

    Parameters
    ----------
    graph : Graph
        The circuit.
    overload : str
        Relay or manual starter.
    motors : sequence of str
        Behind it.
    dial_a : float
        Its setting. [A]
    full_a : float
        The full-load current through it. [A]
    """
    part = dial_a / full_a
    low, high = _DIAL_BAND
    if low <= part <= high:
        return
    amps = f"{full_a:.1f}"
    fix = Edit(id=f"fix.{overload}.iset", kind="set", device=overload, parameters={"iset": amps})
    yield problem(
        graph.circuit,
        "H22",
        "error" if part > high else "doubt",
        "setting",
        overload,
        *motors,
        edits=(fix,),
        set=f"{dial_a:g}",
        amps=amps,
        percent=f"{part * 100:.0f}",
    )


def _branch(graph: Graph, item: Device, motors: list[Device], full: float) -> Iterator[Problem]:
    names = [one.id for one in motors]
    start = starting_amps(motors)
    magnetic = graph.stated(item, "mag") if item.type in {"cb3", "mms"} else None
    if magnetic is not None and magnetic < start:
        yield problem(
            graph.circuit,
            "E05",
            "error",
            "trips_on_start",
            item.id,
            *names,
            set=f"{magnetic:g}",
            start=f"{start:.0f}",
        )
    most = _MAGNETIC_CEILING * full
    if magnetic is not None and magnetic > most:
        yield problem(
            graph.circuit,
            "E05",
            "error",
            "magnetic_high",
            item.id,
            *names,
            set=f"{magnetic:g}",
            times=f"{magnetic / full:.0f}",
            full=f"{full:g}",
        )
    rating = graph.stated(item, "a") if item.type in {"cb3", "fdisc"} else None
    if rating is not None and rating > _CEILING * full and rating > 15:
        yield problem(
            graph.circuit,
            "E05",
            "error",
            "branch_high",
            item.id,
            *names,
            set=f"{rating:g}",
            percent=f"{rating / full * 100:.0f}",
            full=f"{full:g}",
        )
    if rating is not None and rating < full:
        yield problem(
            graph.circuit,
            "E05",
            "error",
            "branch_low",
            item.id,
            *names,
            set=f"{rating:g}",
            full=f"{full:g}",
        )


def _control_fuses(graph: Graph, item: Device) -> Iterator[Problem]:
    """Compare the fuses next to a transformer with its rated currents."""
    power = float(item.parameters.get("va") or 0)
    volts = primary_volts(graph, item.id)
    secondary = float(item.parameters.get("sec") or 120)
    primary = tuple(end for end in item.terminals if end.startswith("H"))
    for ends, rated_v in ((primary, volts), (("X1", "X2"), secondary)):
        nets = {graph.net(item.id, end) for end in ends}
        for fuse in graph.of_type("fuse"):
            own = {graph.net(fuse.id, end) for end in ("1", "2")}
            rating = graph.stated(fuse, "a")
            if not own & nets or not rated_v or not rating:
                continue
            if power:
                yield from _against(
                    graph, item, fuse, rating, power / rated_v, is_primary=ends[0] == "H1"
                )
            elif rating > _MOST_UNKNOWN_A:
                yield problem(
                    graph.circuit, "E06", "error", "fuse_far", fuse.id, item.id, set=f"{rating:g}"
                )


#: no control transformer is protected by more, whatever its VA
_MOST_UNKNOWN_A = 30.0


def _against(
    graph: Graph, item: Device, fuse: Device, rating: float, amps: float, *, is_primary: bool
) -> Iterator[Problem]:
    small, large = (5.0, 2.5) if is_primary else (1.67, 1.25)
    times = small if amps < (2 if is_primary else 9) else large
    # the next standard size may be above the limit; twice that is no rounding
    is_high = rating > 2 * times * amps and rating > 1
    is_low = rating < amps
    if not (is_high or is_low):
        return
    yield problem(
        graph.circuit,
        "E06",
        "error",
        "fuse_high" if is_high else "fuse_low",
        fuse.id,
        item.id,
        set=f"{rating:g}",
        rated=f"{amps:.2f}",
        limit=f"{times * amps:.2f}",
        percent=f"{times * 100:.0f}",
    )
