"""Fixtures of the server tests."""

import os
from pathlib import Path

import pytest
from django.core.management import call_command

from tests_support import caller, motor, signed_in


@pytest.fixture(scope="session", autouse=True)
def _static_folder(tmp_path_factory):
    """Static files need a folder; the tests bring an empty one."""
    from django.conf import settings

    settings.STATIC_ROOT = Path(tmp_path_factory.mktemp("static"))


@pytest.fixture(scope="session", autouse=True)
def _no_seats():
    """Heavy questions are answered in place; `desk/tests` tests the processes."""
    from desk import answer
    from desk.desk import Desk

    answer.desk = Desk(0)


@pytest.fixture(scope="session")
def django_db_modify_db_settings(django_db_modify_db_settings):
    """Copy a database that has the tables already, where `./check` has made one."""
    from django.db import connection

    tables = os.environ.get("EVENCOIL_TEST_TABLES")
    if tables:
        connection.settings_dict["TEST"]["TEMPLATE"] = tables


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup, django_db_blocker):
    """Add the table of the shared cache, which migrations do not make."""
    with django_db_blocker.unblock():
        call_command("createcachetable")


@pytest.fixture
def here(db):
    """A person in the plant `here`, with one motor."""
    who = caller("here", "ann")
    motor(who)
    return who


@pytest.fixture
def client(here):
    """A client signed in as that person."""
    return signed_in(here)
