"""Named sets of model constants, one data file.

`catalogue` serves circuits without a nameplate, `physical` those whose motor is calculated
from it; what the second does not say is as in the first. Every trace names its set.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from functools import cache
from importlib.resources import files

from evencoil.base import Message, NotInTableError

__all__ = ["CATALOGUE", "PHYSICAL", "constants"]

CATALOGUE = "catalogue"
PHYSICAL = "physical"


@cache
def _all() -> Mapping[str, Mapping[str, float]]:
    text = files("evencoil.solver").joinpath("data/constants.json").read_text("utf-8")
    sets = {name: body for name, body in json.loads(text).items() if not name.startswith("_")}
    return {
        name: {
            key: value
            for key, value in (sets.get(body.get("_base", ""), {}) | body).items()
            if not key.startswith("_")
        }
        for name, body in sets.items()
    }


def constants(name: str = CATALOGUE) -> Mapping[str, float]:
    """Return a set of constants.

    Parameters
    ----------
    name : str
        For example ``catalogue``.

    Raises
    ------
    NotInTableError
        If there is no such set.
    """
    if name not in _all():
        raise NotInTableError(
            Message("constants.unknown", {"name": name[:40]}),
            field="constants",
            hint=Message("constants.unknown.hint", {"names": ", ".join(_all())}),
        )
    return _all()[name]
