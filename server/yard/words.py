"""Reading a photo of a nameplate: words proposed, doubted ones marked, each with its crop."""

from __future__ import annotations

import base64
import io
from functools import lru_cache
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from PIL import Image
from pydantic import Field

from api.answers import as_json
from api.problems import ProblemError
from api.schemas import HEAVY, REFUSALS, Schema
from desk.answer import Tell, answer
from evencoil.base import LongText
from evencoil.plate import Share
from jobs.routers.place import JOB, Number
from jobs.store import motor_job
from people.access import caller_in
from yard.photos import as_picture, photo_of
from yard.recognize import Seen, crop_of, proposed, straightened

__all__ = ["router"]

router = Router(tags=["photos"])
#: of the words; below it a person types quicker than they correct
POOR = 0.4


class CornersIn(Schema):
    """The corners of the plate: x and y in turn from the upper left clockwise, as shares."""

    corners: Annotated[list[Share], Field(min_length=8, max_length=8)]


class WordOut(Schema):
    """A word that seems to stand there; nothing counts until a person has confirmed it."""

    text: str
    row: int
    place: tuple[float, float, float, float]
    confidence: float
    is_sure: bool
    crop: str


class WordsOut(Schema):
    """What a photo seems to say, in stamped order, and what to do where that is poor."""

    words: list[WordOut]
    doubted: int
    poor: str


class CropIn(Schema):
    """Corners of the plate, and left, top, right, bottom of a word on the straightened picture."""

    corners: str = Field(default="", max_length=200)
    place: str = Field(default="", max_length=100)


def _pairs(corners: list[float]) -> list[tuple[float, float]]:
    return list(zip(corners[::2], corners[1::2], strict=True))


def _bad_corners() -> ProblemError:
    return ProblemError(
        422,
        code="out_of_range",
        detail="The four corners do not go round the plate.",
        field="corners",
        hint="Drag them to the corners of the plate, clockwise from the upper left.",
    )


def read_words(data: bytes, corners: list[float], tell: Tell) -> bytes:
    """Return the words of a picture as JSON."""
    with Image.open(io.BytesIO(data), formats=("JPEG",)) as picture:
        picture.load()
        try:
            gray, seen = proposed(picture, _pairs(corners), tell)
        except ValueError as wrong:
            raise _bad_corners() from wrong
    return _answered(gray, seen)


def _answered(gray: Image.Image, seen: list[Seen]) -> bytes:
    """Return what was seen with its crops, and whether typing is the better way."""
    doubted = sum(not word.is_sure for word in seen)
    if not seen:
        poor = "No word was found. Type the nameplate."
    elif doubted > (1 - POOR) * len(seen):
        poor = f"{doubted} of {len(seen)} words are in doubt. Typing is likely quicker."
    else:
        poor = ""
    return as_json(
        WordsOut(
            words=[
                WordOut(
                    text=word.text,
                    row=word.row,
                    place=word.place,
                    confidence=round(word.confidence, 1),
                    is_sure=word.is_sure,
                    crop=base64.b64encode(crop_of(gray, word)).decode(),
                )
                for word in seen
            ],
            doubted=doubted,
            poor=poor,
        )
    )


@router.post(f"{JOB}/photos/{{sha256}}/words", response={200: WordsOut, **HEAVY})
def words(
    request: HttpRequest, works: str, tag: str, number: Number, sha256: str, body: CornersIn
) -> HttpResponse:
    """Propose the words of a photographed nameplate; nothing is saved."""
    caller = caller_in(request, works)
    found = photo_of(motor_job(caller, tag, number), sha256)
    return answer(request, caller, read_words, bytes(found.data), body.corners)


def _figures(text: str, count: int) -> list[float]:
    try:
        found = [float(part) for part in text.split(",")]
    except ValueError as wrong:
        raise _bad_corners() from wrong
    if len(found) != count or not all(0 <= figure <= 1 for figure in found):
        raise _bad_corners()
    return found


@lru_cache(maxsize=4)
def _straight(corners: str, data: bytes) -> Image.Image:
    with Image.open(io.BytesIO(data), formats=("JPEG",)) as picture:
        return straightened(picture, _pairs(_figures(corners, 8)))


@router.get(f"{JOB}/photos/{{sha256}}/crop", response={200: LongText, **REFUSALS})
def crop(
    request: HttpRequest,
    works: str,
    tag: str,
    number: Number,
    sha256: str,
    asked: Query[CropIn],
) -> HttpResponse:
    """Return the part of a photo that a figure was taken from."""
    caller = caller_in(request, works)
    found = photo_of(motor_job(caller, tag, number), sha256)
    left, top, right, bottom = _figures(asked.place, 4)
    if right <= left or bottom <= top:
        raise _bad_corners()
    try:
        gray = _straight(asked.corners, bytes(found.data))
    except ValueError as wrong:
        raise _bad_corners() from wrong
    data = crop_of(gray, Seen("", 0, (left, top, right, bottom), 0.0, is_sure=False))
    return as_picture(data, "image/png")
