"""Machines, motors and their nameplates."""
