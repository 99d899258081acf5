"""A drill whose facts are wanted ones."""

import random
from unittest import mock

from evencoil.practice import drill


def drawn(kind, setting="field", **wanted):
    """Return the first drill whose facts are the wanted ones, and its facts by label."""
    for seed in range(900):
        one = drill(kind, seed, setting)
        facts = {fact.label: fact.value for fact in one.facts}
        if all(facts.get(key) == value for key, value in wanted.items()):
            return one, facts
    raise AssertionError(f"no {kind} with {wanted}")


class Wished(random.Random):
    """Draws what is wished for wherever it is among what can be drawn."""

    def __init__(self, wishes):
        super().__init__(1)
        self.wishes = wishes

    def choice(self, seq):
        """Return the first that is wished for, or any."""
        found = [one for one in seq if any(one is wish or one == wish for wish in self.wishes)]
        return found[0] if found else super().choice(seq)


def wished(kind, *wishes, setting="field"):
    """Return a drill with wished facts, and its facts by label."""
    rng = Wished(wishes)
    with (
        mock.patch("evencoil.practice.lots.random.Random", return_value=rng),
        mock.patch("evencoil.practice.branch.random.Random", return_value=rng),
    ):
        one = drill(kind, 1, setting)
    return one, {fact.label: fact.value for fact in one.facts}
