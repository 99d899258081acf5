"""Pictures of nameplates and diagrams: checked, shrunk, without where they were taken."""

from __future__ import annotations

import base64
import binascii
import hashlib
import io
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock
from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router
from PIL import Image, ImageOps

from api.problems import ProblemError
from api.schemas import REFUSALS, Schema
from evencoil.base import LongText
from jobs.models import JobMotor
from jobs.routers.place import JOB, Number
from jobs.store import motor_job
from people.access import Caller, caller_in, not_found
from people.actions import Action
from plant.models import Photo

__all__ = ["as_picture", "photo_of", "router"]

router = Router(tags=["photos"])
MOST_PIXELS, LONGEST, QUALITY = 40_000_000, 1600, 82
#: how long one picture waits for another [s]
WAIT_S = 10
_decoding = Lock()
Subject = Literal["plate", "diagram", "box", "panel"]


class PhotoIn(Schema):
    """A picture as the browser shrank it, base64."""

    subject: Subject
    data: str


class PhotoOut(Schema):
    """A saved picture; its name is the digest of its bytes."""

    sha256: str
    subject: str
    width: int
    height: int


def _refused(detail: str, hint: str) -> ProblemError:
    return ProblemError(422, code="file_format", detail=detail, field="photo", hint=hint)


def clean(data: str) -> tuple[bytes, int, int]:
    """Return a picture re-encoded as JPEG, at most `LONGEST` a side, with no metadata.

    Raises
    ------
    ProblemError
        422 if it is no picture, or larger than `MOST_PIXELS`.
    """
    try:
        raw = base64.b64decode(data, validate=True)
    except (binascii.Error, ValueError) as wrong:
        raise _refused("This is not a picture file.", "Take the photo again.") from wrong
    with _one_at_a_time():
        return _re_encoded(raw)


@contextmanager
def _one_at_a_time() -> Iterator[None]:
    """Hold every other picture of this process back: each may take some hundred megabytes."""
    if not _decoding.acquire(timeout=WAIT_S):
        raise ProblemError(
            429,
            code="too_many",
            detail="Other pictures are being read.",
            field="photo",
            hint="Try again in a moment; nothing was lost.",
        )
    try:
        yield
    finally:
        _decoding.release()


def _need_size(opened: Image.Image) -> None:
    """Refuse a picture by what its head says, before anything of it is decoded."""
    if opened.width * opened.height > MOST_PIXELS:
        raise _refused(
            f"{opened.width} by {opened.height} pixels is too large.",
            "Take it at a lower resolution; the limit is 40 megapixels.",
        )


def _re_encoded(raw: bytes) -> tuple[bytes, int, int]:
    """Return a picture decoded and encoded anew: only its pixels are taken over."""
    try:
        with Image.open(io.BytesIO(raw), formats=("JPEG", "PNG", "WEBP")) as opened:
            _need_size(opened)
            # a JPEG is decoded no larger than it is kept
            opened.draft("RGB", (LONGEST, LONGEST))
            picture = ImageOps.exif_transpose(opened).convert("RGB")
    except ProblemError:
        raise
    except Exception as wrong:  # decoders fail in ways of their own
        raise _refused(
            "This picture cannot be read.", "Use JPEG, PNG or WebP, or take it again."
        ) from wrong
    picture.thumbnail((LONGEST, LONGEST))
    # place, time, maker, comment, color profile: nothing of it is kept
    picture.info.clear()
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=QUALITY)
    return out.getvalue(), picture.width, picture.height


class KeepPhoto(Action[Photo]):
    """Keep a picture of a motor."""

    name = "keep photo"

    def __init__(self, caller: Caller, link: JobMotor, subject: Subject, data: str) -> None:
        super().__init__(caller)
        self.link, self.subject = link, subject
        self.data, self.width, self.height = clean(data)

    @property
    def target(self) -> str:
        """Return motor and subject."""
        return f"{self.link.motor.tag} {self.subject}"

    def perform(self) -> Photo:
        """Keep it once, by its digest."""
        found, _ = Photo.objects.get_or_create(
            motor=self.link.motor,
            sha256=hashlib.sha256(self.data).hexdigest(),
            defaults={
                "subject": self.subject,
                "width": self.width,
                "height": self.height,
                "data": self.data,
                "by": self.caller.user,
            },
        )
        return found


@router.post(f"{JOB}/photos", response={200: PhotoOut, **REFUSALS})
def add_photo(
    request: HttpRequest, works: str, tag: str, number: Number, body: PhotoIn
) -> PhotoOut:
    """Keep a picture of plate, diagram, box or panel."""
    caller = caller_in(request, works)
    photo = KeepPhoto(caller, motor_job(caller, tag, number), body.subject, body.data).run()
    return PhotoOut(
        sha256=photo.sha256, subject=photo.subject, width=photo.width, height=photo.height
    )


def photo_of(link: JobMotor, sha256: str) -> Photo:
    """Return a kept picture of a motor.

    Raises
    ------
    ProblemError
        404 if it has none of that digest.
    """
    found = Photo.objects.filter(motor=link.motor, sha256=sha256).first()
    if found is None:
        raise not_found("photo")
    return found


def as_picture(data: bytes, kind: str) -> HttpResponse:
    """Return a picture that never changes under its address."""
    response = HttpResponse(data, content_type=kind)
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return response


@router.get(f"{JOB}/photos/{{sha256}}", response={200: LongText, **REFUSALS})
def photo(request: HttpRequest, works: str, tag: str, number: Number, sha256: str) -> HttpResponse:
    """Return a picture of a motor of the caller's works."""
    caller = caller_in(request, works)
    found = photo_of(motor_job(caller, tag, number), sha256)
    return as_picture(bytes(found.data), "image/jpeg")
