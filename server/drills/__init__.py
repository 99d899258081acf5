"""Practice of each person: boxes, history that is theirs alone, drills that a reviewer sets."""
