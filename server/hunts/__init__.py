"""Hunts for a fault on a motor's job: what was said, what was read, how it was closed."""
