"""Which motor and which supply: the nameplate as stamped, cross-checks, supply, verdict.

Knows tables of the code book to hold figures against; no winding and no size.
"""

from evencoil.plate.checks import locked_rotor_band_a, poles_of
from evencoil.plate.doubted import Estimate, TrustFacts, estimate_voltage
from evencoil.plate.inputs import PlateInputs, ReplaceInputs, Share, SupplyInputs, TrustInputs
from evencoil.plate.model import Assumed, Band, Nameplate, PlateReading
from evencoil.plate.reader import read
from evencoil.plate.replaced import compare_plates
from evencoil.plate.supply import Supply, Verdict, judge, read_supply
from evencoil.plate.supply_checks import check_supply, transformer_fault_current_a

__all__ = [
    "Assumed",
    "Band",
    "Estimate",
    "Nameplate",
    "PlateInputs",
    "PlateReading",
    "ReplaceInputs",
    "Share",
    "Supply",
    "SupplyInputs",
    "TrustFacts",
    "TrustInputs",
    "Verdict",
    "check_supply",
    "compare_plates",
    "estimate_voltage",
    "judge",
    "locked_rotor_band_a",
    "poles_of",
    "read",
    "read_supply",
    "transformer_fault_current_a",
]
