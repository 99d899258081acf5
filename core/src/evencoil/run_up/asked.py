"""Everything that a run of a motor is found from, as the steps before give it.

Units: in the names.
"""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from evencoil.leads import Derived
from evencoil.plate import Nameplate, Supply, Verdict
from evencoil.run_up.inputs import LoadInputs
from evencoil.winding import Capacitors, Rating, StartSwitch, Winding

__all__ = ["Asked", "Heaters", "StartParts"]

Heaters = Literal["line", "leg", "half"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StartParts:
    """What starts a single-phase motor, as found in the box; empty while no one looked."""

    capacitors: Capacitors = ""
    switch: StartSwitch = ""
    start_uf: Decimal | None = None
    run_uf: Decimal | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """Everything a run is found from.

    ``heaters`` tells where those of the overload relay lie, if anyone said;
    ``measured_locked_a`` is of a measured start; ``device_kind`` and ``device_a`` are of the
    fuses or the breaker ahead of the motor.
    """

    plate: Nameplate
    supply: Supply | None
    verdict: Verdict | None
    winding: Winding | None
    rating: Rating | None
    states: Derived | None
    load: LoadInputs
    fault_current_a: Decimal | None = None
    trip_class: int | None = None
    heaters: Heaters | None = None
    measured_locked_a: Decimal | None = None
    device_kind: str | None = None
    device_a: Decimal | None = None
    start_parts: StartParts = StartParts()
