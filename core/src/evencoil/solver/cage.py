"""The double cage of an induction motor, as an admittance: synchronous speed needs no care.

Source: double-cage equivalent circuit (textbook induction machine theory).
"""

from __future__ import annotations

__all__ = ["double_cage"]


def double_cage(
    slip: float, *, ri: float, xi: float, ro: float, xo: float = 0.0, xc: float
) -> complex:
    """Return the admittance of two cages behind a common reactance, in the scale given.

    Parameters
    ----------
    slip : float
        Of the field against the rotor.
    ri : float
        Resistance of the inner cage.
    xi : float
        Its reactance.
    ro : float
        Resistance of the outer cage.
    xo : float
        Its reactance.
    xc : float
        Reactance of both together.
    """
    both = slip / complex(ri, slip * xi) + slip / complex(ro, slip * xo)
    return both / (1 + 1j * xc * both)
