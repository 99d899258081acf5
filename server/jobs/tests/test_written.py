"""A set of rows says another number once any of them was written, whoever wrote it and how."""

from __future__ import annotations

import pytest
from django.db import connection

from jobs.models import InputVersion, JobMotor, Summary
from jobs.written import written_of
from plant.models import Machine, Motor, PlateRevision
from tests_support import PLATE, caller, motor

YARD = "/api/w/here/yard"


def _motors(works):
    return written_of(Motor.objects.filter(works=works), "tag", "machine__name")


def test_every_write_is_told(here):
    """Added, changed through the models, changed by hand in SQL, taken away: another number."""
    told = [_motors(here.works)]

    motor(here, tag="P-2")
    told.append(_motors(here.works))
    Motor.objects.filter(works=here.works, tag="P-2").update(name="slaker")
    told.append(_motors(here.works))
    Machine.objects.filter(works=here.works).update(name="Line 9")
    told.append(_motors(here.works))
    with connection.cursor() as hand:
        hand.execute("UPDATE plant_motor SET name = 'kiln fan' WHERE tag = 'P-2'")
    Motor.objects.filter(works=here.works, tag="P-2").delete()
    told.append(_motors(here.works))
    assert len(set(told)) == len(told)
    assert told[-1] == _motors(here.works), "nothing written, nothing told"


def test_no_rows_and_another_plant(here):
    """No row is a number too; another plant's rows are not told."""
    told = _motors(here.works)
    motor(caller("there", "ben", "electrician"), tag="X-1")
    assert _motors(here.works) == told
    assert written_of(Summary.objects.filter(motor__works=here.works), "key") == (0, 0)


@pytest.mark.parametrize("what", ["input", "plate", "number", "line", "machine", "tag"])
def test_a_kept_page_never_outlives_a_hand_in_the_database(client, here, what):
    """Each table that a page stands on: changed by hand, the next page is another one."""
    client.get(YARD)
    before = client.get(YARD).content
    assert client.get(YARD).content == before
    if what == "input":
        InputVersion.objects.filter(step="supply").update(body={"text": "240 delta"})
    elif what == "plate":
        PlateRevision.objects.update(body={"text": PLATE.replace("15 HP", "20 HP")})
    elif what == "number":
        JobMotor.objects.update(number=7)
    elif what == "line":
        Summary.objects.update(key="", body={"headline": "forged"})
    elif what == "machine":
        Machine.objects.create(works=here.works, name="Hydrator")
    else:
        Motor.objects.update(tag="Q-9")
    after = client.get(YARD)
    assert after.status_code == 200
    # a line that was changed is made anew from what it stands on
    assert (after.content == before) == (what == "line")
