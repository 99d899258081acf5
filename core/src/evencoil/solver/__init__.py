"""Circuits solved as circuits: complex nodal analysis."""

from evencoil.solver.network import Network, solve_linear

__all__ = ["Network", "solve_linear"]
