"""The conveyor with its starter, and one person of each role."""

import pytest
from laid_day import set_out


@pytest.fixture
def people(client):
    """The plant with one person of each role, and IC-2 with its starter and its dead check."""
    _, signed = set_out()
    return signed
