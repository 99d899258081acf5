"""Even Coil, the core: from nameplate to a starter that is wired, proven and signed off."""

from evencoil.base import __version__

__all__ = ["__version__"]
