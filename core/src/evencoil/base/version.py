"""The version of the core, in one place."""

__all__ = ["__version__"]

__version__ = "0.1.0"
