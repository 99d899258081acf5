"""Whether a starter of the catalogue fits a motor and its load."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from evencoil.base import Message, say
from evencoil.sizing import Start
from evencoil.starters.catalogue import CatalogueEntry

__all__ = ["FitFacts", "Load", "is_two_speed", "misfit", "needed_leads", "start_of"]

Load = Literal["unknown", "empty", "loaded"]


_SOFT: dict[str, Start] = {
    "star_delta": "wye_delta",
    "autotransformer": "autotransformer",
    "part_winding": "part_winding",
}


#: leads that must come out of the motor; nothing stands for any
_LEADS = {
    "star_delta": (6, 12),
    "part_winding": (6, 9, 12),
    "two_speed": (6,),
    "1C": (6,),
    "1E": (6,),
    "1D": (6, 12),
}


_KINDS = {
    "star_delta": {"6", "12"},
    "part_winding": {"part-winding", "9-wye", "12"},
    "1C": {"2-speed-ct", "2-speed-vt"},
    "1E": {"2-speed-ct", "2-speed-vt"},
    "1D": {"6", "12"},
    "11A": {"2-speed-ct", "2-speed-vt"},
    "11B": {"2-speed-cp"},
    "11C": {"2-speed-2-winding"},
}


def start_of(entry: CatalogueEntry) -> Start:
    """Return how a circuit brings the motor to the line.

    Parameters
    ----------
    entry : CatalogueEntry
        The circuit.
    """
    return "wye_delta" if entry.id == "1D" else _SOFT.get(entry.group, "full_voltage")


def is_two_speed(entry: CatalogueEntry) -> bool:
    """Tell whether a circuit switches two speeds.

    Parameters
    ----------
    entry : CatalogueEntry
        The circuit.
    """
    return entry.group == "two_speed"


@dataclass(frozen=True, slots=True)
class FitFacts:
    """What decides whether a starter fits: phases, leads, winding, wye-delta fit, load, drive."""

    phases: int | None
    leads: int | None
    kind: str
    delta_fits: bool | None
    load: Load
    is_drive_fed: bool = False


def needed_leads(entry: CatalogueEntry) -> tuple[int, ...]:
    """Return how many leads a circuit needs out of the motor; empty if any number does.

    Parameters
    ----------
    entry : CatalogueEntry
        The standard circuit.
    """
    return _LEADS.get(entry.id) or _LEADS.get(entry.group, ())


def misfit(entry: CatalogueEntry, facts: FitFacts) -> Message | None:
    """Return why a motor's own phases, leads or winding rule a circuit out, None if they fit.

    The one answer to "does this starter fit this motor", for comparing and for the starter
    step. What is not known rules nothing out.

    Parameters
    ----------
    entry : CatalogueEntry
        The standard circuit.
    facts : FitFacts
        What is known of the motor.
    """
    if facts.is_drive_fed:
        return Message("fit.drive", {"id": entry.id})
    if facts.phases and (facts.phases == 1) != (entry.group == "single_phase"):
        return Message("fit.phases", {"id": entry.id, "phases": str(facts.phases)})
    wanted = needed_leads(entry)
    if wanted and facts.leads and facts.leads not in wanted:
        listed = " or ".join(str(count) for count in wanted)
        return Message("fit.leads", {"id": entry.id, "leads": str(facts.leads), "wanted": listed})
    kinds = _KINDS.get(entry.id) or _KINDS.get(entry.group)
    if kinds and facts.kind and facts.kind not in kinds:
        return Message(
            "fit.kind", {"id": entry.id, "kind": say(Message(f"kind_name.{facts.kind}"))}
        )
    if (entry.group == "star_delta" or entry.id == "1D") and facts.delta_fits is False:
        return Message("fit.delta_volts", {"id": entry.id})
    return None
