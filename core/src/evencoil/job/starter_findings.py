"""What does not fit between a drawn starter and its job."""

from __future__ import annotations

from dataclasses import replace
from functools import partial

from evencoil.base import Finding, Level, Message, finding, say
from evencoil.checks import restarts_of
from evencoil.circuit import Circuit
from evencoil.job.choosing import hazards_of_entry
from evencoil.job.drawn_sizes import heaters_lie
from evencoil.job.work_out import Worked
from evencoil.starters import AcceptedInput, CatalogueEntry, StarterInputs

__all__ = [
    "accessory_findings",
    "fit_finding",
    "fit_findings",
    "hazard_findings",
    "heater_findings",
]

_LEADS_OF = {
    "motor6": (6, 12),
    "motorpw": (6, 9, 12),
    "motor2s": (6,),
    "motor2w": (6,),
}


#: accessory leads of a motor, and the devices by which a drawing wires them
_WIRED_AS = {
    "thermostat": {"thermostat"},
    "thermistor": {"ptc", "ptcrelay"},
    "rtd": {"rtdmon"},
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
    kinds = {item.type for item in entry.circuit.netlist.devices if item.type.startswith("motor")}
    leads = worked.reading.plate.leads
    for kind in sorted(kinds):
        wanted = _LEADS_OF.get(kind)
        if wanted and leads is not None and leads not in wanted:
            found.append(
                fit_finding(
                    "leads",
                    "refusal",
                    id=entry.id,
                    leads=str(leads),
                    wanted=" or ".join(str(count) for count in wanted),
                )
            )
    is_single = kinds == {"motor1"}
    phases = worked.reading.plate.phases
    if phases is not None and (phases == 1) != is_single:
        found.append(fit_finding("phases", "refusal", id=entry.id, phases=str(phases)))
    if len([item for item in entry.circuit.netlist.devices if item.type == "motor3"]) > 1:
        found.append(fit_finding("several", "note", id=entry.id))
    return found


def hazard_findings(
    circuit: Circuit, entry: CatalogueEntry, inputs: StarterInputs
) -> list[Finding]:
    """Return what the circuit does that nobody asked for, and who accepted it.

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
        else:
            found.append(_restart(name, "open", "doubt", hazard=said))
    return found


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
    drawn = heaters_lie(circuit)
    step = next((step for step in worked.steps if step.id == "heater_place"), None)
    entered = str(step.value) if step is not None else "line"
    if drawn is None or entered == drawn:
        return []
    places = {name: say(Message(f"heaters_lie.{name}")) for name in (drawn, entered)}
    return [fit_finding("heater_place", "doubt", drawn=places[drawn], entered=places[entered])]


def _restart(name: str, code: str, level: Level, **params: str) -> Finding:
    found = finding("restart", "starter.accepted", code, level, **params)
    return replace(found, code=f"restart.{name}")
