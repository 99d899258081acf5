"""The made-up people on the sign-in page: only where the demo is served."""

import pytest
from django.core.management import call_command
from django.test import Client

from demo.larkfall import PASSWORD, PEOPLE
from tests_support import caller


@pytest.fixture
def asked():
    """Ask as somebody who is not signed in."""
    return lambda: Client().get("/api/demo").json()


@pytest.mark.django_db
def test_nobody_is_told_without_the_demo(asked, settings):
    """Another plant's people never; the demo's only once it is laid out and said to be served."""
    caller("here", "ann", "admin")
    settings.IS_DEMO = True
    nobody = {"works": "", "password": "", "people": []}
    assert asked() == nobody
    call_command("demo", "--skip-checks", verbosity=0)
    told = asked()
    assert [one["username"] for one in told["people"]] == list(PEOPLE)
    assert told["password"] == PASSWORD
    settings.IS_DEMO = False
    assert asked() == nobody


def test_https_is_never_the_demo():
    """A server for others that is told to be the demo does not start."""
    import os
    import subprocess
    import sys

    said = subprocess.run(
        [sys.executable, "-c", "from config import settings"],
        env={**os.environ, "EVENCOIL_DEMO": "1", "EVENCOIL_HTTPS": "1"},
        capture_output=True,
        text=True,
        check=False,
    )
    assert said.returncode != 0
    assert "EVENCOIL_DEMO is 1" in said.stderr
