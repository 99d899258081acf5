"""Heater tables: imported from the chart in a starter's door, never decoded without it."""

__all__: list[str] = []
