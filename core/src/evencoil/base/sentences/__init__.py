"""The sentences of the core, one module for each room."""

__all__: list[str] = []
