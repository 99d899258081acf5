"""The demo works is laid out once, however often the command runs."""

import pytest
from django.core.management import call_command

from people.models import User
from plant.models import Motor, PlateRevision


@pytest.mark.django_db
def test_the_demo_is_laid_out_once(capsys):
    """Ten motors and four people, the second run adds nothing and overwrites nothing."""
    call_command("demo")
    Motor.objects.filter(tag="IC-2").update(name="changed by hand")
    call_command("demo")

    assert (Motor.objects.count(), User.objects.count()) == (10, 4)
    assert PlateRevision.objects.count() == 9
    assert Motor.objects.get(tag="IC-2").name == "changed by hand"
    assert "Larkfall" in capsys.readouterr().out


@pytest.mark.django_db
def test_one_panel_is_half_wired_and_one_is_ready_to_sign(client):
    """Entries as the screen makes them: hands are in at one, nothing but the signature is left at the other."""
    call_command("demo")
    client.force_login(
        User.objects.get(username="ruth"),
        backend="allauth.account.auth_backends.AuthenticationBackend",
    )
    half = client.get("/api/w/larkfall/m/RC-7/j/1/panel").json()
    states = [one["state"] for one in half["wires"]]
    assert half["state"] == "hands_in"
    assert states.count("done") == len(states) // 2
    ready = client.get("/api/w/larkfall/m/DF-8/j/1/panel").json()
    assert (ready["state"], ready["open_said"]) == ("fit_to_run", [])
    assert [one["state"] for one in ready["stages"]] == ["ok"] * 4
