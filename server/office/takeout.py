"""A plant's data as one ZIP: job files, papers and photos to read, and every row as it is kept."""

from __future__ import annotations

import hashlib
import tempfile
import zipfile
from collections.abc import Iterator
from datetime import timedelta
from typing import IO

from django.core import serializers
from django.db import DatabaseError, transaction
from django.db.models import Model
from django.utils import timezone
from django_tasks import task

from api.files import as_csv
from api.problems import NeedsRepairError
from evencoil.base import CoreError, speaking
from evencoil.job import dump
from jobs.models import JobMotor
from jobs.store import as_job_file
from office.models import Takeout, TakeoutPart
from office.tables import TABLES
from paper.models import Issue
from people.models import Member, Works
from plant.models import Photo
from plant.profile import profile_of

__all__ = ["KEPT", "make_takeout"]

#: how long such a file stays
KEPT = timedelta(days=7)
_PART = 1_000_000
_ROWS = 500
#: from so many bytes on the file is on the worker's disk, not in its memory
_IN_MEMORY = 16_000_000
_README = """Everything of {name} in Even Coil, as of {at}.

people.csv            who belongs to it, and as what
motors/               of each motor: jobs as job files (open format), papers issued, photos
records/              every row as it is kept, one JSON object a line, one file for each table

Not in it: secrets of tokens and invitations, and what is calculated anew at any time.
left out.txt          if it is there: what could not be put in, and why
"""


@task(priority=-10)
def make_takeout(pk: int) -> int:
    """Make the file that was asked for.

    Parameters
    ----------
    pk : int
        Of the row; one that is gone, or done, is left alone.

    Returns
    -------
    int
        Its size in bytes.
    """
    row = Takeout.objects.select_related("works").filter(pk=pk, state="running").first()
    if row is None:
        return 0
    Takeout.objects.filter(at__lt=timezone.now() - KEPT).delete()
    # a worker that was lost may have begun
    row.parts.all().delete()
    try:
        with tempfile.SpooledTemporaryFile(_IN_MEMORY) as file:
            _write(row, file)
            _keep(row, file)
    except (OSError, DatabaseError) as full:
        Takeout.objects.filter(pk=pk).update(
            state="failed", left=[f"The file could not be written: {type(full).__name__}."]
        )
        raise
    return row.size


def _plain(text: str) -> str:
    """Return a name that is one on every system."""
    plain = "".join(sign if sign.isascii() and sign.isalnum() else "-" for sign in text)
    return plain.strip("-")[:60] or "motor"


def _write(row: Takeout, file: IO[bytes]) -> None:
    works = row.works
    links = JobMotor.objects.filter(job__works=works)
    row.total = links.count()
    row.save(update_fields=["total"])
    left: list[str] = []
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("README.txt", _README.format(name=works.name, at=works.local(row.at)))
        out.writestr("people.csv", as_csv(_people(works)))
        with speaking(profile_of(works).names):
            for place, link in enumerate(
                links.select_related("motor__machine", "job").order_by("pk").iterator(_ROWS), 1
            ):
                _motor(out, works, link, left)
                if place % 50 == 0:
                    Takeout.objects.filter(pk=row.pk).update(done=place)
        for photo in Photo.objects.filter(motor__works=works).order_by("pk").iterator(20):
            name = f"{_folder(photo.motor_id, photo.motor.tag)}/photo {photo.pk}.jpg"
            out.writestr(name, bytes(photo.data))
        for table in TABLES:
            if table.is_given:
                with out.open(f"records/{table.name}.jsonl", "w") as to:
                    for line in _lines(table.rows(works.pk).iterator(_ROWS)):
                        to.write(line)
        if left:
            out.writestr("left out.txt", "\n".join(left))
    row.left = left[:100]


def _people(works: Works) -> Iterator[tuple[str, ...]]:
    yield ("name", "signs in as", "mail", "role")
    for one in Member.objects.select_related("user").filter(works=works).order_by("user__username"):
        yield (str(one.user), one.user.username, one.user.email, one.role)


def _folder(pk: int, tag: str) -> str:
    # two tags may be one plain name
    return f"motors/{_plain(tag)} {pk}"


def _motor(out: zipfile.ZipFile, works: Works, link: JobMotor, left: list[str]) -> None:
    folder = _folder(link.motor_id, link.motor.tag)
    try:
        job = dump(as_job_file(link, works))
        out.writestr(f"{folder}/job {link.number}.json", job)
    except (CoreError, NeedsRepairError) as broken:
        left.append(f"{link}: {broken}; its rows are in records/")
    for issue in Issue.objects.filter(link=link).order_by("n"):
        out.writestr(f"{folder}/job {link.number} issue {issue.n}.pdf", bytes(issue.pdf))


def _lines(rows: Iterator[Model]) -> Iterator[bytes]:
    """Return rows as lines of JSON."""
    for row in rows:
        yield serializers.serialize("jsonl", [row], ensure_ascii=False).encode()


def _keep(row: Takeout, file: IO[bytes]) -> None:
    """Put the file where every serving process finds it."""
    file.seek(0)
    digest, size, n = hashlib.sha256(), 0, 0
    while data := file.read(_PART):
        n += 1
        digest.update(data)
        size += len(data)
        TakeoutPart.objects.create(takeout=row, n=n, data=data)
    row.size, row.sha256, row.done, row.state = size, digest.hexdigest(), row.total, "done"
    with transaction.atomic():
        row.save(update_fields=["size", "sha256", "done", "state", "left"])
