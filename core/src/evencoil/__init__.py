"""Even Coil, the core: from a motor's nameplate to sizes with their evidence.

Pure Python with no Django and no interface code. Rooms and their order are in
``docs/architecture.md``; a room imports only from rooms to its left.
"""

__version__ = "0.1.0"
__all__ = ["__version__"]
