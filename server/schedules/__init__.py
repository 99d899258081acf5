"""Schedules of a plant: a table of motors read, mapped, taken by a worker, repaired."""
