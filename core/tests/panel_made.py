"""The panel of a standard circuit with its own motor, for tests."""

from functools import cache

from evencoil.checks import dead_checks
from evencoil.job import JobInputs, panel_work, work_out
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.starters import StarterInputs

NINE = "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 9 LEADS"


def inputs_of(circuit):
    """Return the inputs of a job with its own motor."""
    return JobInputs(
        plate=PlateInputs(text=NINE),
        supply=SupplyInputs(text="480Y/277"),
        leads=LeadsInputs(winding="9-wye"),
        starter=StarterInputs(standard_circuit=circuit),
    )


@cache
def made(circuit="3A"):
    """Return the panel of a circuit with its own motor."""
    inputs = inputs_of(circuit)
    worked = work_out(inputs)
    return worked, panel_work(inputs, worked, dead_checks(worked.starter.required()))
