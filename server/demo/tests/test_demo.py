"""The demo works is laid out once, however often the command runs."""

import pytest
from django.core.management import call_command

from people.models import User
from plant.models import Motor, PlateRevision


@pytest.mark.django_db
def test_the_demo_is_laid_out_once(capsys):
    """Six motors and four people, the second run adds nothing and overwrites nothing."""
    call_command("demo")
    Motor.objects.filter(tag="IC-2").update(name="changed by hand")
    call_command("demo")

    assert (Motor.objects.count(), User.objects.count()) == (6, 4)
    assert PlateRevision.objects.count() == 5
    assert Motor.objects.get(tag="IC-2").name == "changed by hand"
    assert "Larkfall" in capsys.readouterr().out
