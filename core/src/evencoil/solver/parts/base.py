"""What every device is in a run: links to the network, and a small state.

A part is called when it is due, when it is operated, and after each
solving of the network. It changes its own branches and says what happened.
Times are whole microseconds.
"""

from __future__ import annotations

from typing import Any, ClassVar

from evencoil.circuit import Device, Link, links_of
from evencoil.solver.plant import Plant
from evencoil.solver.run import Run

__all__ = ["Part", "number"]


def number(device: Device, name: str, default: float = 0.0) -> float:
    """Return a parameter as a number.

    Parameters
    ----------
    device : Device
        Whose parameters.
    name : str
        Which.
    default : float
        If it is not set.
    """
    text = device.parameters.get(name, "")
    return float(text) if text else default


class Part:
    """One device in a run. Subclasses say how it behaves.

    Attributes
    ----------
    branches : dict
        Link name to branch number, for links that are plain branches.
    verbs : tuple of str
        What an operator, or a fault, can do to it.
    kept : tuple of str
        Names of the attributes that make its state.
    """

    kept: ClassVar[tuple[str, ...]] = ()
    verbs: ClassVar[tuple[str, ...]] = ()
    #: what it does by itself matters to others only if a branch or a source changes
    is_quiet: ClassVar[bool] = False
    #: link kinds that become plain branches at rest, open or closed
    plain: ClassVar[tuple[str, ...]] = (
        "pole",
        "no",
        "nc",
        "no_early",
        "nc_late",
        "timed_no",
        "timed_nc",
    )

    def __init__(self, plant: Plant, device: Device, place: int) -> None:
        self.plant = plant
        self.device = device
        self.id = device.id
        self.place = place
        self.links: tuple[Link, ...] = links_of(device)
        self.branches: dict[str, int] = {}
        #: link to what is wrong with it: open, closed or worn
        self.failed: dict[str, str] = {}
        #: failed link to whether its device wants it closed
        self.meant: dict[str, bool] = {}
        for link in self.links:
            if link.kind in self.plain:
                self.branches[link.name] = plant.branch(
                    plant.node(device.id, link.a), plant.node(device.id, link.b)
                )
        self.begin()

    def begin(self) -> None:
        """Set the state of the first instant; branches are set in `rest`."""

    def rest(self, run: Run) -> None:
        """Put the branches of the first instant."""
        for link in self.links:
            if link.name in self.branches:
                self.put(run, link, is_closed=link.kind in {"nc", "nc_late", "timed_nc"})

    def ohm_of(self, link: Link) -> float:
        """Return the ohms of a closed link."""
        return self.plant.constants["pole_ohm" if link.kind == "pole" else "contact_ohm"]

    def put(self, run: Run, link: Link, *, is_closed: bool) -> bool:
        """Open or close a link, as far as it still does; tell whether that changed anything."""
        wrong = self.failed.get(link.name, "")
        if wrong:
            self.meant[link.name] = is_closed
        if wrong in {"open", "closed"}:
            is_closed = wrong == "closed"
        ohm = self.plant.constants["worn_ohm"] if wrong == "worn" else self.ohm_of(link)
        return run.switch(self.branches[link.name], 1 / ohm if is_closed else 0.0)

    def take_off(self, run: Run, *, is_off: bool) -> bool:
        """Take a plug-in device or a sensor off its wires: every contact of it is open."""
        names = [link.name for link in self.links if link.name in self.branches]
        for name in names:
            self.fail(run, f"{name} {'open' if is_off else 'ok'}")
        return bool(names)

    def fail(self, run: Run, word: str) -> bool:
        """Let a contact or pole fail: ``13-14 open``, ``closed``, ``worn``, or ``ok`` again.

        What it should do is asked of its device again at once. False if there is no such link.
        """
        name, _, how = word.rpartition(" ")
        link = next((one for one in self.links if one.name == name), None)
        if link is None or name not in self.branches or how not in {"open", "closed", "worn", "ok"}:
            return False
        wants = self.meant[name] if name in self.failed else self.is_closed(run, name)
        self.failed.pop(name, None)
        if how != "ok":
            self.failed[name] = how
            self.meant[name] = wants
        if self.put(run, link, is_closed=wants):
            run.tell(self, name, "closed" if self.is_closed(run, name) else "open")
        return True

    def is_closed(self, run: Run, name: str) -> bool:
        """Tell whether a link conducts."""
        return run.admittance[self.branches[name]] != 0

    def due(self) -> int | None:
        """Return when something of its own happens next [us], or None."""
        return None

    def phase(self) -> tuple[Any, ...]:
        """Return what tells two of its states apart, whatever the clock says."""
        return (self.due() is not None,)

    def fire(self, run: Run) -> None:
        """Do what is due now."""

    def observe(self, run: Run) -> None:
        """Look at the solved network; may set new due times and change branches."""

    def act(self, run: Run, verb: str, word: str) -> bool:
        """Do what an operator or a fault does; False if it cannot be done to this."""
        del run, verb, word
        return False

    def word(self, run: Run) -> str:
        """Return its state in one word, empty if it has none worth telling."""
        del run
        return ""

    def tells(self, run: Run) -> dict[str, str]:
        """Return further states by name."""
        del run
        return {}

    def save(self) -> list[Any]:
        """Return its state as plain values, in the order of `kept`."""
        return [getattr(self, name) for name in self.kept]

    def load(self, values: list[Any]) -> None:
        """Take a state back."""
        for name, value in zip(self.kept, values, strict=True):
            setattr(self, name, value)

    def volts_across(self, run: Run, a: str, b: str) -> float:
        """Return the volts between two of its terminals, alternating or direct [V]."""
        one, other = self.plant.node(self.id, a), self.plant.node(self.id, b)
        solved = run.solution
        found = abs(solved.volts[one] - solved.volts[other])
        if solved.steady is not None:
            found = max(found, abs(solved.steady[one] - solved.steady[other]))
        return found

    def amps_through(self, run: Run, branch: int) -> float:
        """Return the amps through one of its branches [A]."""
        start, end = self.plant.ends[branch]
        volts = run.solution.volts
        found = abs((volts[start] - volts[end]) * run.admittance[branch])
        if run.solution.steady is not None:
            steady = run.solution.steady
            found = max(found, abs((steady[start] - steady[end]) * run.conductance[branch]))
        return found
