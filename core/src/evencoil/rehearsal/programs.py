"""What the programs of an installation show, frame by frame."""

from __future__ import annotations

from typing import Any

from evencoil.rehearsal.trace import ProgramFrame
from evencoil.solver import Plant, ProgrammableRelay

__all__ = ["ProgramLook"]


class ProgramLook:
    """Looks at every programmable relay, and tells what differs from the look before.

    Parameters
    ----------
    plant : Plant
        With its relays.
    """

    def __init__(self, plant: Plant) -> None:
        """Begin without anything seen."""
        self.relays = [part for part in plant.parts if isinstance(part, ProgrammableRelay)]
        self._shown: dict[str, tuple[bool, dict[str, str], dict[int, str]]] = {}
        self._levels: list[Any] = []
        self._states: dict[str, Any] = {}
        #: networks that were looked at so far: what a picture of a long program costs
        self.work = 0

    def is_changed(self) -> bool:
        """Tell whether something went on or off since the last look."""
        return bool(self.relays) and self._look() != self._levels

    def _look(self) -> list[Any]:
        return [
            part.live.levels(part.relay.machine) if part.has_program_running else None
            for part in self.relays
        ]

    def frames(self) -> dict[str, ProgramFrame]:
        """Return what every program shows that differs from the last time; all at the first."""
        self._levels = self._look()
        found = {}
        for part in self.relays:
            before = self._shown.get(part.id)
            state = (part.has_program_running, part.relay.machine.state())
            if before is not None and self._states.get(part.id) == state:
                continue
            self._states[part.id] = state
            self.work += len(part.live.networks)
            now = _shown(part)
            self._shown[part.id] = now
            is_running, values, flows = now
            # what stops and what begins is told whole
            if before is not None and before[0] == is_running:
                values = {name: told for name, told in values.items() if before[1][name] != told}
                flows = {place: told for place, told in flows.items() if before[2][place] != told}
                if not values and not flows:
                    continue
            found[part.id] = ProgramFrame(is_running=is_running, values=values, flows=flows)
        return found


def _shown(part: ProgrammableRelay) -> tuple[bool, dict[str, str], dict[int, str]]:
    if not part.has_program_running:
        return False, {}, {}
    machine = part.relay.machine
    return True, part.live.values(machine), dict(enumerate(part.live.flows(machine)))
