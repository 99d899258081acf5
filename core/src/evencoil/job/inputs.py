"""The inputs of one job, step by step: the models that are stored and exchanged.

Empty means: no one entered it. Nothing calculated stands here. Units are in the names;
numbers travel as decimal strings, so that no float comes near them. A new input is a field
of its step's model; a new step is a field of `JobInputs`: job file, server, calculation,
history and the generated client types follow from it.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, WithJsonSchema

from evencoil.base import Inputs
from evencoil.leads import BenchInputs, JointsInputs, LeadsInputs
from evencoil.plate import PlateInputs, ReplaceInputs, SupplyInputs, TrustInputs
from evencoil.run_up import LoadInputs
from evencoil.sizing import SizeInputs
from evencoil.starters import StarterInputs

__all__ = ["STEPS", "JobInputs", "StepName", "step_model"]


class JobInputs(Inputs):
    """Everything entered for one motor in one job."""

    plate: PlateInputs = PlateInputs()
    supply: SupplyInputs = SupplyInputs()
    leads: LeadsInputs = LeadsInputs()
    bench: BenchInputs = BenchInputs()
    trust: TrustInputs = TrustInputs()
    replace: ReplaceInputs = ReplaceInputs()
    joints: JointsInputs = JointsInputs()
    size: SizeInputs = SizeInputs()
    starter: StarterInputs = StarterInputs()
    load: LoadInputs = LoadInputs()


#: every step that has inputs, in the order of the work
STEPS: tuple[str, ...] = tuple(JobInputs.model_fields)


def _step(name: str) -> str:
    if name not in STEPS:
        # pydantic turns a ValueError, and no other, into an error of this field
        raise ValueError(f"There is no step {name[:20]!r}. Steps: {', '.join(STEPS)}.")
    return name


#: the name of a step with inputs
StepName = Annotated[
    str, AfterValidator(_step), WithJsonSchema({"type": "string", "enum": list(STEPS)})
]


def step_model(step: str) -> type[Inputs]:
    """Return the model of a step's inputs.

    Parameters
    ----------
    step : str
        One of `STEPS`.

    Raises
    ------
    KeyError
        If there is no such step.
    """
    model = JobInputs.model_fields[step].annotation
    if not isinstance(model, type) or not issubclass(model, Inputs):
        raise KeyError(step)
    return model
