"""Proofs that take seconds: searched by a worker, with progress, kept by netlist."""
