"""The conveyor with its starter, and one person of each role."""

import pytest
from panel_day import PLATE

from answers.dead import dead_checks_of
from jobs.store import starter_of
from tests_support import caller, put, signed_in


@pytest.fixture
def people(client):
    """The plant with one person of each role, and IC-2 with its starter and its dead check."""
    who = {
        role: caller("here", name, role)
        for role, name in (
            ("apprentice", "pim"),
            ("electrician", "marta"),
            ("reviewer", "ruth"),
            ("admin", "abel"),
        )
    }
    signed = {role: signed_in(one) for role, one in who.items()}
    electrician = signed["electrician"]
    put(electrician, "plate", {"text": PLATE})
    put(electrician, "supply", {"text": "480Y/277"})
    put(electrician, "leads", {"winding": "9-wye"})
    put(electrician, "starter", {"standard_circuit": "3A"})
    link = who["electrician"].works.jobs.get().scope.get()
    dead_checks_of(starter_of(link, who["electrician"].works).required())
    return signed
