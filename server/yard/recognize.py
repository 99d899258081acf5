"""What a photographed nameplate seems to say: proposed word by word, doubted where it is not sure.

The picture is straightened by four corners and read three ways by the open recognizer Tesseract
(Debian package `tesseract-ocr`): with its grays, with a local threshold, and blurred a little. A
word counts as sure only if all readings agree on it, each with high confidence, and it has the
form of something that stands on nameplates. Everything else is doubted: the picture beside it
decides, and a person.

Units: places as shares of the straightened picture, from its upper left corner.
"""

from __future__ import annotations

import io
import math
import os
import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

import pytesseract
from PIL import Image, ImageChops, ImageFilter, ImageOps

__all__ = ["Corners", "Seen", "crop_of", "proposed", "straightened"]

# one word after the other: a plate must not take every processor
os.environ.setdefault("OMP_THREAD_LIMIT", "1")
#: width to which a plate is brought before it is read, and the most its height may be [px]
WIDTH, TALLEST = 1400, 1900
#: confidence below which a reading is no reading [percent]
SURE = 60.0
#: the same for a name that two of three readings agree on [percent]
NAME_SURE = 80.0
#: how much of a word must lie on another for both to be the same place
SAME_PLACE = 0.5
#: one block of text, rows from top to bottom
_LAYOUT = "--psm 6 -c preserve_interword_spaces=1"
_SECONDS = 25
#: forms of what stands on nameplates: figures with their unit or alone, and the usual words
_NUMBER = r"\d{1,5}(?:\.\d{1,3})?"
_FORMS = re.compile(
    rf"(?:{_NUMBER}(?:[/-]{_NUMBER}){{0,3}}(?:HP|KW|V|A|RPM|HZ|PH|%|C|F|MIN)?,?"
    r"|\d[YΔ]?/\d|[0-9]{3}[A-Z]{1,2}|"
    r"HP|KW|V|VOLTS?|A|AMPS?|FLA|LRA|RPM|HZ|PH|PHASE|SF|S\.F\.|SFA|CODE|DES|DESIGN|INS|CLASS|CL|"
    r"AMB|C|FR|FRAME|TYPE|ENCL|TEFC|ODP|TENV|XP|DUTY|CONT|EFF|NOM|PF|LEADS|LOW|HIGH|VOLTAGE|"
    r"WYE|DELTA|CONN|START|RUN|USABLE|AT|ON|MAX|TIME|RATING|NEMA|THERMAL|PROTECTED|[A-HJ-NP-V]),?",
    re.IGNORECASE,
)
Corners = Sequence[tuple[float, float]]
#: what stands before or after a word, and what it can be then
_BEFORE_UNIT = {"HZ": {"50", "60", "50/60"}, "PH": {"1", "3"}, "PHASE": {"1", "3"}}
_AFTER_NAME = {
    "SF": {"1.0", "1.00", "1.15", "1.25", "1.35", "1.4"},
    "CODE": set("ABCDEFGHJKLMNPRSTUV"),
    "DES": set("ABCDE"),
    "DESIGN": set("ABCDE"),
    "INS": set("ABFHN"),
}
#: a figure and its unit that were read as one word
_JOINED = re.compile(r"([\d./]+)(HZ|PH|PHASE),?")
_AMBIENTS = {"25", "30", "40", "45", "50", "55", "60", "65"}


@dataclass(frozen=True, slots=True)
class Seen:
    """A word as it seems to stand, its row, where, and whether it is sure.

    Attributes
    ----------
    text : str
        As read; of readings that differ, the one with the highest confidence.
    row : int
        From the top.
    place : (float, float, float, float)
        Left, top, right, bottom as shares of the straightened picture.
    confidence : float
        The lowest of the readings; 0 where one did not see it. [percent]
    is_sure : bool
        All readings agree, with confidence, on something that stands on nameplates.
    """

    text: str
    row: int
    place: tuple[float, float, float, float]
    confidence: float
    is_sure: bool


def straightened(picture: Image.Image, corners: Corners) -> Image.Image:
    """Return what lies between four corners as an upright rectangle, in grays.

    Parameters
    ----------
    picture : Image
        As photographed.
    corners : four of (float, float)
        Upper left, upper right, lower right, lower left, as shares of the picture.

    Raises
    ------
    ValueError
        If the corners do not go round an area clockwise.
    """
    points = [(x * picture.width, y * picture.height) for x, y in corners]
    pairs = list(zip(points, (*points[1:], points[0]), strict=True))
    area = sum(x * other_y - other_x * y for (x, y), (other_x, other_y) in pairs) / 2
    if len(points) != 4 or area < 0.01 * picture.width * picture.height:
        raise ValueError("the corners do not go round a plate")
    upper, right, lower, left = (math.dist(*pair) for pair in pairs)
    width = WIDTH
    height = min(TALLEST, max(60, round(width * (left + right) / max(upper + lower, 1))))
    gray = ImageOps.grayscale(picture)
    return gray.transform(
        (width, height),
        Image.Transform.PERSPECTIVE,
        _coefficients(points, (width, height)),
        Image.Resampling.BICUBIC,
    )


def _coefficients(points: Sequence[tuple[float, float]], size: tuple[int, int]) -> list[float]:
    """Return the eight figures of the projection that leads a rectangle to four points.

    Source: projective mapping of a unit square, textbook topic (Heckbert's closed form).
    """
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = points
    sum_x, sum_y = x0 - x1 + x2 - x3, y0 - y1 + y2 - y3
    dx1, dx2, dy1, dy2 = x1 - x2, x3 - x2, y1 - y2, y3 - y2
    det = dx1 * dy2 - dx2 * dy1
    if abs(det) < 1e-9:
        raise ValueError("the corners do not go round a plate")
    g = (sum_x * dy2 - dx2 * sum_y) / det
    h = (dx1 * sum_y - sum_x * dy1) / det
    width, height = size
    return [
        (x1 - x0 + g * x1) / width,
        (x3 - x0 + h * x3) / height,
        x0,
        (y1 - y0 + g * y1) / width,
        (y3 - y0 + h * y3) / height,
        y0,
        g / width,
        h / height,
    ]


def _dark_on_light(gray: Image.Image) -> Image.Image:
    """Return the picture with its strokes dark: plates are stamped both ways."""
    small = ImageOps.autocontrast(gray.resize((300, max(1, 300 * gray.height // gray.width))))
    counts = small.histogram()
    middle = sum(level * count for level, count in enumerate(counts)) / sum(counts)
    darker = sum(counts[: int(middle)])
    # strokes take less room than what they are on
    return ImageOps.invert(gray) if darker > sum(counts) / 2 else gray


def _leveled(gray: Image.Image) -> Image.Image:
    """Take away glare and shade: what is left stands out from its neighborhood."""
    around = gray.filter(ImageFilter.BoxBlur(gray.width / 30))
    apart = ImageChops.subtract(gray, around, scale=1.0, offset=128)
    return ImageOps.autocontrast(apart, cutoff=1)


def _ways(gray: Image.Image) -> Iterator[Image.Image]:
    dark = _dark_on_light(gray.filter(ImageFilter.MedianFilter(5)))
    yield ImageOps.autocontrast(dark, cutoff=1)
    leveled = _leveled(dark)
    yield leveled.filter(ImageFilter.GaussianBlur(1.2))
    # a third at most of the contrast is grain of the metal
    yield leveled.point(lambda level: 255 if level > 96 else 0).filter(
        ImageFilter.GaussianBlur(1.0)
    )


def _read(picture: Image.Image) -> list[Seen]:
    bordered = ImageOps.expand(picture, 20, 255)
    told = pytesseract.image_to_data(
        bordered, config=_LAYOUT, timeout=_SECONDS, output_type=pytesseract.Output.DICT
    )
    rows: dict[tuple[int, int, int], int] = {}
    found = []
    for place, text in enumerate(told["text"]):
        words = text.strip()
        # a stroke alone is a rivet, a scratch or the rim
        if not any(map(str.isalnum, words)) or float(told["conf"][place]) < 0:
            continue
        row = rows.setdefault(
            (told["block_num"][place], told["par_num"][place], told["line_num"][place]), len(rows)
        )
        left, top = told["left"][place] - 20, told["top"][place] - 20
        box = (left, top, left + told["width"][place], top + told["height"][place])
        shares = tuple(
            min(1.0, max(0.0, figure / size))
            for figure, size in zip(box, (picture.width, picture.height) * 2, strict=True)
        )
        west, north, east, south = shares
        area = (west, north, east, south)
        found.append(Seen(words.upper(), row, area, float(told["conf"][place]), is_sure=False))
    return found


def _overlap(one: Seen, other: Seen) -> float:
    left, top = max(one.place[0], other.place[0]), max(one.place[1], other.place[1])
    right, bottom = min(one.place[2], other.place[2]), min(one.place[3], other.place[3])
    if right <= left or bottom <= top:
        return 0.0
    areas = [(p[2] - p[0]) * (p[3] - p[1]) for p in (one.place, other.place)]
    return (right - left) * (bottom - top) / max(min(areas), 1e-9)


def proposed(
    picture: Image.Image, corners: Corners, tell: Callable[[int, int], None] = lambda *_: None
) -> tuple[Image.Image, list[Seen]]:
    """Return the straightened picture and every word that any reading saw, in stamped order.

    Parameters
    ----------
    picture : Image
        As photographed.
    corners : four of (float, float)
        See `straightened`.
    tell : callable
        Told how many readings are done, of how many.
    """
    gray = straightened(picture, corners)
    readings = []
    for done, way in enumerate(_ways(gray)):
        tell(done, 3)
        try:
            readings.append(_read(way))
        except RuntimeError:
            # no end within its time: a reading that saw nothing, so nothing can be sure
            readings.append([])
    base = max(readings, key=lambda words: sum(word.confidence for word in words))
    others = [words for words in readings if words is not base]
    found = _in_context([_judged(word, others) for word in base])
    # what another reading saw where this one saw nothing is doubted, never dropped
    for words in others:
        for word in words:
            if word.confidence > SURE / 2 and all(_overlap(word, one) < 0.2 for one in found):
                found.append(replace(word, row=_row_at(word, base), confidence=0.0))
    found.sort(key=lambda word: (word.row, word.place[0]))
    return gray, found


def _in_context(words: list[Seen]) -> list[Seen]:
    """Doubt what cannot stand before its unit or after its name: 69 HZ, SF 1.9, DES R."""
    found = []
    for place, word in enumerate(words):
        before = words[place - 1].text if place else ""
        after = [one.text for one in words[place + 1 : place + 3]] + ["", ""]
        may = _BEFORE_UNIT.get(after[0]) or _AFTER_NAME.get(before.rstrip("."))
        if after[0] == "C" and after[1] == "AMB":
            may = _AMBIENTS
        is_right = may is None or word.text.rstrip(",") in may
        if joined := _JOINED.fullmatch(word.text):
            is_right = joined[1] in _BEFORE_UNIT[joined[2]]
        found.append(replace(word, is_sure=word.is_sure and is_right))
    return found


def _row_at(word: Seen, base: Sequence[Seen]) -> int:
    middle = (word.place[1] + word.place[3]) / 2
    near = min(base, key=lambda one: abs((one.place[1] + one.place[3]) / 2 - middle), default=word)
    return near.row


def _judged(word: Seen, others: Sequence[Sequence[Seen]]) -> Seen:
    """Hold a word against what the other readings saw at its place."""
    readings = [word]
    for words in others:
        here = [one for one in words if _overlap(word, one) >= SAME_PLACE]
        nothing = replace(word, text="", confidence=0.0)
        readings.append(max(here, key=lambda one: _overlap(word, one), default=nothing))
    lowest = min(one.confidence for one in readings)
    agree = len({one.text for one in readings}) == 1
    best = max(readings, key=lambda one: one.confidence)
    is_sure = (agree and lowest >= SURE) or _is_name(best.text, readings)
    is_sure = is_sure and _FORMS.fullmatch(best.text) is not None
    return replace(word, text=best.text, confidence=lowest, is_sure=is_sure)


def _is_name(text: str, readings: Sequence[Seen]) -> bool:
    """Tell whether a longer word without a figure is sure by two readings of three.

    HP or LEADS has no look-alike of that form; a figure always needs all three.
    """
    same = [one for one in readings if one.text == text and one.confidence >= NAME_SURE]
    others = [one for one in readings if one.text != text]
    is_letters = text.rstrip(",").isalpha() and len(text) > 1
    return is_letters and len(same) >= 2 and all(one.confidence < SURE for one in others)


def crop_of(gray: Image.Image, word: Seen) -> bytes:
    """Return the part of a straightened picture where a word stands, as PNG."""
    left, top, right, bottom = word.place
    margin = 0.006
    box = (
        int(max(0.0, left - margin) * gray.width),
        int(max(0.0, top - 2 * margin) * gray.height),
        math.ceil(min(1.0, right + margin) * gray.width),
        math.ceil(min(1.0, bottom + 2 * margin) * gray.height),
    )
    piece = gray.crop(box)
    piece.thumbnail((320, 96))
    out = io.BytesIO()
    piece.save(out, "PNG")
    return out.getvalue()
