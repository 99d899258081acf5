"""What does not fit between a drawn starter and its job."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import partial

from evencoil.base import Finding, Level, Message, finding, say
from evencoil.checks import Graph, restarts_of, waiting_isolators
from evencoil.circuit import Circuit, links_of
from evencoil.job.choosing import hazards_of_entry
from evencoil.job.drawn_sizes import heaters_lie
from evencoil.job.motor_facts import motor_facts
from evencoil.job.worked import Worked
from evencoil.starters import AcceptedInput, CatalogueEntry, StarterInputs, misfit

__all__ = [
    "accessory_findings",
    "fit_finding",
    "fit_findings",
    "grounded_line_findings",
    "hazard_findings",
    "heater_findings",
]


#: accessory leads of a motor, and the devices by which a drawing wires them
_WIRED_AS = {
    "thermostat": {"thermostat"},
    "thermistor": {"ptc", "ptcrelay"},
    "rtd": {"rtd", "rtdmon"},
    "space_heater": {"heater"},
}


fit_finding = partial(finding, "fit", "starter")


def fit_findings(entry: CatalogueEntry, worked: Worked) -> list[Finding]:
    """Return whether the standard circuit fits this motor and this supply.

    Parameters
    ----------
    entry : CatalogueEntry
        The standard circuit.
    worked : Worked
        The job, calculated.
    """
    found = []
    reason = misfit(entry, motor_facts(worked))
    if reason is not None:
        code = reason.id.removeprefix("fit.")
        found.append(fit_finding(code, "refusal", **reason.params))
    if len([item for item in entry.circuit.netlist.devices if item.type == "motor3"]) > 1:
        found.append(fit_finding("several", "note", id=entry.id))
    return found


def hazard_findings(
    circuit: Circuit, entry: CatalogueEntry, inputs: StarterInputs
) -> list[Finding]:
    """Return what the circuit does that no one asked for, and who accepted it.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    entry : CatalogueEntry
        The standard circuit.
    inputs : StarterInputs
        Holds the accepted hazards.
    """
    found = []
    taken: dict[str, AcceptedInput] = {one.hazard: one for one in inputs.accepted}
    restarts: tuple[str, ...] = restarts_of(circuit)
    if "plugged" in hazards_of_entry(entry.id):
        restarts = (*restarts, "plugged")
    for name in restarts:
        said = say(Message(f"restart.{name}"))
        if name == "estop_release":
            found.append(_restart(name, "estop_release.never", "refusal", id=entry.id))
        elif name in taken:
            one = taken[name]
            found.append(_restart(name, "accepted", "note", hazard=said, by=one.by, why=one.why))
        elif name == "isolator_back":
            waiting = waiting_isolators(Graph(circuit))
            tags = ", ".join(circuit.tags.get(one, one) for one in waiting)
            is_test = _is_test_fed(circuit, waiting)
            code = "test_feed" if is_test else "isolator"
            found.append(_restart(name, code, "doubt", hazard=said, tags=tags))
        else:
            found.append(_restart(name, "open", "doubt", hazard=said))
    return found


def _is_test_fed(circuit: Circuit, switches: Sequence[str]) -> bool:
    """Tell whether each of some switches feeds the controls only while it is open."""
    items = [circuit.netlist.device(name) for name in switches]
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    return bool(items) and all(
        any(
            link.kind.startswith("nc") and f"{item.id}.{link.a}" in wired for link in links_of(item)
        )
        for item in items
    )


def accessory_findings(circuit: Circuit, worked: Worked) -> list[Finding]:
    """Return which accessories of the motor the drawing leaves unwired (rule H38).

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    worked : Worked
        The job, calculated.
    """
    there = set(worked.reading.plate.accessories)
    there |= {one.given.kind for one in worked.box.accessories}
    types = {item.type for item in circuit.netlist.devices}
    return [
        fit_finding("accessory", "doubt", kind=say(Message(f"accessory.{kind}")))
        for kind, wanted in _WIRED_AS.items()
        if kind in there and not types & wanted
    ]


def heater_findings(circuit: Circuit, worked: Worked) -> list[Finding]:
    """Return where the sizes set the overload for another place than the drawing.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    worked : Worked
        The job, calculated.
    """
    drawn = heaters_lie(Graph(circuit))
    trail = worked.trail
    entered = trail["heater_place"].text if "heater_place" in trail else "line"
    if drawn is None or entered == drawn:
        return []
    places = {name: say(Message(f"heaters_lie.{name}")) for name in (drawn, entered)}
    return [fit_finding("heater_place", "doubt", drawn=places[drawn], entered=places[entered])]


#: the grounded line of a netlist's corner-grounded supply
_GROUNDED = "L2"
_LINE_POLE = {"L1": ("1", "2"), "L2": ("3", "4"), "L3": ("5", "6")}


#: devices that sense an overload; without any the fuses are the overload protection
_SENSING = {"olr", "mms", "manual"}


def grounded_line_findings(circuit: Circuit, worked: Worked) -> list[Finding]:
    """Return what must not lie in the grounded line of a corner-grounded delta.

    No fuse, 240.22, unless the fuses are the overload protection: then 430.36 asks for one there
    as well. No pole that opens it alone.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    worked : Worked
        The job, calculated.
    """
    if worked.supply is None or worked.supply.system != "corner_grounded":
        return []
    nets = circuit.netlist.nets()
    supply = next((item for item in circuit.netlist.devices if item.type == "supply"), None)
    if supply is None or _GROUNDED not in supply.terminals:
        return []
    grounded, fused, alone = _in_grounded_line(circuit, {nets[f"{supply.id}.{_GROUNDED}"]})
    by_fuse = not any(item.type in _SENSING for item in circuit.netlist.devices)
    found = []
    said = ", ".join(circuit.tags.get(name, name) for name in fused)
    if fused and not by_fuse:
        found.append(fit_finding("grounded_fuse", "doubt", tags=said))
    if by_fuse and not fused and any(item.type == "fdisc" for item in circuit.netlist.devices):
        found.append(fit_finding("grounded_no_fuse", "doubt"))
    if alone:
        tags = ", ".join(circuit.tags.get(name, name) for name in alone)
        found.append(fit_finding("grounded_pole", "refusal", tags=tags))
    return found if grounded else []


def _in_grounded_line(
    circuit: Circuit, grounded: set[int]
) -> tuple[set[int], list[str], list[str]]:
    """Return the grounded nets, the fuses in them, and the single poles that open them alone."""
    nets = circuit.netlist.nets()
    fused: list[str] = []
    alone: list[str] = []
    # the main switch hands its line on from the upper to the lower end of the pole
    for item in circuit.netlist.devices:
        if item.type not in {"fdisc", "cb3", "isolator"}:
            continue
        for near, far in _LINE_POLE.values():
            ends = [f"{item.id}.{end}" for end in (near, far)]
            if all(end in nets for end in ends) and nets[ends[0]] in grounded:
                grounded.add(nets[ends[1]])
                if item.type == "fdisc":
                    fused.append(item.id)
                if item.parameters.get("poles") == "1":
                    alone.append(item.id)
    fused += [
        item.id
        for item in circuit.netlist.devices
        if item.type == "fuse" and {nets[f"{item.id}.{end}"] for end in item.terminals} & grounded
    ]
    return grounded, fused, alone


def _restart(name: str, code: str, level: Level, **params: str) -> Finding:
    found = finding("restart", "starter.accepted", code, level, **params)
    return replace(found, code=f"restart.{name}")
