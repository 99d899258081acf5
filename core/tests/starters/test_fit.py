"""Does this starter fit this motor: one answer, whoever asks."""

import itertools

import pytest

from evencoil.job.choosing import choices
from evencoil.job.inputs import JobInputs
from evencoil.job.starter import work_out_starter
from evencoil.job.work_out import work_out
from evencoil.leads.inputs import LeadsInputs
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.inputs import SizeInputs
from evencoil.starters.inputs import StarterInputs

#: winding kind, nameplate, supply
MOTORS = {
    "wye-delta": ("6", "15 HP, 230 V, 38.6 A, 1765 RPM, 60 HZ, 3 PH, 6 LEADS", "240 delta"),
    "two-speed, constant torque": (
        "2-speed-ct",
        "10/5 HP, 460 V, 14/9 A, 1750/870 RPM, 60 HZ, 3 PH, 6 LEADS",
        "480Y/277",
    ),
    "two-speed, constant power": (
        "2-speed-cp",
        "10/10 HP, 460 V, 14/16 A, 1750/870 RPM, 60 HZ, 3 PH, 6 LEADS",
        "480Y/277",
    ),
    "two windings": (
        "2-speed-2-winding",
        "10/5 HP, 460 V, 14/9 A, 1750/1160 RPM, 60 HZ, 3 PH, 6 LEADS",
        "480Y/277",
    ),
    "part winding": (
        "part-winding",
        "30 HP, 460 V, 38 A, 1770 RPM, 60 HZ, 3 PH, 6 LEADS",
        "480Y/277",
    ),
    "nine leads wye": (
        "9-wye",
        "15 HP, 230/460 V, 38.6/19.3 A, 1765 RPM, 60 HZ, 3 PH, 9 LEADS",
        "480Y/277",
    ),
    "nine leads delta": (
        "9-delta",
        "75 HP, 230/460 V, 176/88 A, 1780 RPM, 60 HZ, 3 PH, 9 LEADS",
        "480Y/277",
    ),
    "three leads": ("3-wye", "15 HP, 460 V, 19.3 A, 1765 RPM, 60 HZ, 3 PH, 3 LEADS", "480Y/277"),
    "single-phase": ("1-phase", "1 HP, 115 V, 16 A, 1725 RPM, 60 HZ, 1 PH", "120 1PH"),
}
#: which circuits each of them can be wired to, of those that depend on the winding; by hand
#: from how each winding is made: 7A, 7B, 8A, 1D change wye to delta, 10A feeds half windings,
#: 11A one winding low/double wye, 11B constant power, 11C two windings, 15A, 15B single phase
FITS = {
    "wye-delta": {"7A", "7B", "8A", "1D"},
    "two-speed, constant torque": {"11A", "1C", "1E"},
    "two-speed, constant power": {"11B"},
    "two windings": {"11C"},
    "part winding": {"10A"},
    "nine leads wye": set(),
    "nine leads delta": set(),
    "three leads": set(),
    "single-phase": {"15A", "15B"},
}
DEPEND = {"1C", "1D", "1E", "7A", "7B", "8A", "10A", "11A", "11B", "11C", "15A", "15B"}


def worked(kind, plate, supply):
    return work_out(
        JobInputs(
            plate=PlateInputs(text=plate),
            supply=SupplyInputs(text=supply),
            size=SizeInputs(),
            leads=LeadsInputs(winding=kind),
        )
    )


@pytest.mark.parametrize(("name", "circuit"), list(itertools.product(MOTORS, sorted(DEPEND))))
def test_compare_and_starter_step_say_the_same_of_a_circuit(name, circuit):
    """A winding that a circuit is not made for is refused in both, with the same sentence."""
    job = worked(*MOTORS[name])
    shown = next(one for one in choices(job, "empty") if one.id == circuit)
    room = work_out_starter(job, StarterInputs(standard_circuit=circuit))
    refused = [found for found in room.findings if found.level == "refusal"]
    # 9-wye and 12-lead windings may be part-winding started at the voltage of their halves
    fits = circuit in FITS[name] or (name == "nine leads wye" and circuit == "10A")
    assert bool(refused) is not fits, [str(found.message) for found in refused]
    if refused:
        assert shown.verdict == "cannot"
        assert str(refused[0].message) == str(shown.reason)
    else:
        assert not str(shown.reason.id).startswith("fit.")
