"""The plant rules of a plant as the core takes them."""

from __future__ import annotations

from api.build import build
from evencoil.base import __version__
from evencoil.codebook import Profile, edition_of
from evencoil.job import FileProfile
from people.models import Works

__all__ = ["profile_of", "rules_of"]


#: what a plant sets, by the names of its profile
_SET = tuple(name for name in FileProfile.model_fields)


def profile_of(works: Works) -> Profile:
    """Return the plant's own rules."""
    said = {name: getattr(works, name) for name in _SET}
    said["edition"] = edition_of(works.edition)
    return FileProfile.model_validate(said).as_core()


def rules_of(works: Works) -> str:
    """Return what decides every answer of a plant: the code and the plant rules."""
    rules = [getattr(works, name) for name in _SET]
    return f"{__version__} {build()} {rules!r}"
