"""Ohm readings on a dead circuit: which to take, what they show, which faults explain them."""

__all__: list[str] = []
