"""A plant as it would be judged if something were otherwise.

Asked of a copy: nothing that people entered changes. What a job does not tell cannot be changed
either, and is said: twice an unknown fault current is no figure.

Units: fault current in A, ambient in degrees C.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from evencoil.base import DecimalText, Inputs, Message, plain
from evencoil.codebook import Edition, Profile
from evencoil.job import JobInputs, Worked
from evencoil.sizing import FUSES, FaultInput

__all__ = ["Supposed", "WhatIf", "said_if", "suppose"]

_BREAKER = "inverse_time_breaker"
NotSupposed = Literal["fault_unknown", "no_fuse"]


class WhatIf(Inputs):
    """What is supposed; empty means: as it is.

    ``breakers`` puts an inverse-time breaker of the same amps where a fuse is, whose ratings
    against short circuits nobody read; ``fault_times`` multiplies the available fault current;
    ``ambient_c`` is the warmest place of the conductors.
    """

    edition: Edition | None = None
    breakers: bool = False
    fault_times: Annotated[DecimalText, Field(gt=0, le=100)] | None = None
    ambient_c: Annotated[DecimalText, Field(ge=-40, le=90)] | None = None

    @property
    def is_asked(self) -> bool:
        """Tell whether anything is supposed."""
        return self != WhatIf()


def said_if(what_if: WhatIf) -> tuple[Message, ...]:
    """Return in words what is supposed.

    Parameters
    ----------
    what_if : WhatIf
        Nothing of it gives nothing.
    """
    found = []
    if what_if.edition is not None:
        found.append(Message("audit.if.edition", {"edition": str(what_if.edition)}))
    if what_if.breakers:
        found.append(Message("audit.if.breakers"))
    if what_if.fault_times is not None:
        found.append(Message("audit.if.fault_times", {"times": plain(what_if.fault_times)}))
    if what_if.ambient_c is not None:
        found.append(Message("audit.if.ambient_c", {"ambient": plain(what_if.ambient_c)}))
    return tuple(found)


@dataclass(frozen=True, slots=True, kw_only=True)
class Supposed:
    """A job as supposed, and what of it this job does not tell enough for."""

    inputs: JobInputs
    profile: Profile
    left: tuple[NotSupposed, ...]


def suppose(inputs: JobInputs, profile: Profile, worked: Worked, what_if: WhatIf) -> Supposed:
    """Return a job as it would be.

    Parameters
    ----------
    inputs : JobInputs
        As people entered it.
    profile : Profile
        The plant's rules.
    worked : Worked
        The job as it is, calculated: its fault current and its device are read there.
    what_if : WhatIf
        What is supposed.
    """
    size, supply = inputs.size, inputs.supply
    left: list[NotSupposed] = []
    if what_if.edition is not None:
        size = size.model_copy(update={"edition": what_if.edition})
        profile = replace(profile, edition=what_if.edition)
    if what_if.breakers:
        if worked.kind is None or worked.kind in FUSES:
            # the ratings that were read are those of the fuse, and of the starter behind it
            fault = None if size.fault is None else FaultInput()
            size = size.model_copy(update={"protection_kind": _BREAKER, "fault": fault})
        else:
            left.append("no_fuse")
    if what_if.ambient_c is not None:
        size = size.model_copy(update={"ambient_c": what_if.ambient_c})
    if what_if.fault_times is not None:
        known = _fault_a(inputs, worked)
        if known is None:
            left.append("fault_unknown")
        else:
            # the transformer of today does not bear witness against what is supposed
            more = {
                "fault_current_a": known * what_if.fault_times,
                "transformer_kva": None,
                "transformer_z_percent": None,
            }
            supply = supply.model_copy(update=more)
    return Supposed(
        inputs=inputs.model_copy(update={"size": size, "supply": supply}),
        profile=profile,
        left=tuple(left),
    )


def _fault_a(inputs: JobInputs, worked: Worked) -> Decimal | None:
    """Return the available fault current in A, if it is more than a guess."""
    if inputs.supply.fault_current_a is not None:
        return inputs.supply.fault_current_a
    if "fault_current_a" not in worked.trail:
        return None
    step = worked.trail["fault_current_a"]
    return None if step.kind == "assumed" else step.number
