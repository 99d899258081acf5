"""Machines, motors and their plates."""
