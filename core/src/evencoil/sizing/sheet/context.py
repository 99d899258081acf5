"""What every further part of the size sheet reads, in one frozen context."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import Figure, Message, MissingError, Step, Trail, figure, wait_for
from evencoil.codebook import Edition, Profile
from evencoil.plate import PlateReading, Supply
from evencoil.sizing.conductor import ConductorFacts
from evencoil.sizing.inputs import SizeInputs
from evencoil.sizing.protection import DeviceKind
from evencoil.winding import StartMethod

__all__ = ["SizeSheet"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SizeSheet:
    """One job's branch circuit, on which the further parts stand.

    Attributes
    ----------
    facts : ConductorFacts
        Material, insulation, number of conductors.
    kind : str
        Kind of fuse or breaker.
    trail : Trail
        Holds the branch circuit; the steps of the parts are added to it.
    connection_v : tuple of Decimal or None
        Ends of the voltage band that the motor is connected for. [V]
    drive_input_v : Decimal or None
        What feeds a drive: the supply, unless the supply is the drive's own output. [V]
    fault_a : Decimal or None
        Available fault current as entered. [A]
    by_transformer_a : Decimal or None
        The most a transformer of the circuit's own can feed. [A]
    """

    reading: PlateReading
    supply: Supply
    size: SizeInputs
    profile: Profile
    facts: ConductorFacts
    kind: DeviceKind
    trail: Trail
    start_method: StartMethod
    connection_v: tuple[Decimal, Decimal] | None = None
    drive_input_v: Decimal | None = None
    fault_a: Decimal | None = None
    by_transformer_a: Decimal | None = None

    @property
    def edition(self) -> Edition:
        """Return the edition whose sections are cited."""
        return self.profile.edition

    @property
    def phases(self) -> int:
        """Return the phases of the nameplate, or else of the supply."""
        return self.reading.plate.phases or self.supply.phases

    def figure(self, name: str, group: str, make: Callable[[], Step | None], *needs: str) -> Figure:
        """Return the figure that a rule makes, or why it is withheld.

        Parameters
        ----------
        name, group : str
            Name of the figure, and the part of the sheet that it stands on.
        make : callable
            Makes its step; None where no locked-rotor current is known.
        needs : str
            Steps that have to be there before.
        """

        def made() -> Step:
            wait_for(self.trail, *needs)
            step = make()
            if step is None:
                raise MissingError(
                    Message("size.no_locked"),
                    field="code_letter",
                    hint=Message("size.no_locked.hint"),
                )
            return step

        return figure(name, made, group)
