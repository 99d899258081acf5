"""How often the recognizer of nameplates is wrong without saying so, and how often it is right.

    benchmarks/photos.py [plates [first]]

Renders made-up plates by the fonts that ship with the application: clean ones, and the same with
perspective, blur, glare, scratches and embossing. Prints the share of words that are wrong and not
marked doubtful (aim: under 2 %), and the share that is right without touch on clean plates (aim:
80 % and more). A number gives the same plate always; the
recognizer was set on plates from 1000 on, and is measured on the first hundred.
"""

from __future__ import annotations

import difflib
import random
import sys
from pathlib import Path

from PIL import Image, ImageChops, ImageDraw, ImageFilter, ImageFont

CLONE = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(CLONE / "server")]
from yard.recognize import proposed

FONTS = [
    "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff",
    "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff",
    "saira-condensed/files/saira-condensed-latin-700-normal.woff",
]
FRAMES = ["182T", "215T", "254T", "326T", "365T"]
SIZE = (1400, 800)
SPOILED = ("perspective", "blur", "glare", "scratches", "embossing")


def words_of(chance: random.Random) -> list[list[str]]:
    """Return the rows of a made-up plate."""
    hp = chance.choice(["3", "7.5", "10", "15", "40", "75", "150"])
    amps = chance.randint(30, 3000) / 10
    rows = [
        [hp, "HP", "230/460", "V", f"{2 * amps:.1f}/{amps:.1f}", "A"],
        [str(chance.choice([1145, 1180, 1745, 1765, 1780, 3525])), "RPM", "60", "HZ", "3", "PH"],
        ["SF", chance.choice(["1.0", "1.15"]), "CODE", chance.choice("FGHJK"), "DES", "B"],
        [
            "FRAME",
            chance.choice(["182T", "215T", "254T", "326T", "365T"]),
            "INS",
            "F",
            "40",
            "C",
            "AMB",
        ],
    ]
    if chance.random() < 0.5:
        rows.append(["NOM", "EFF", f"{chance.randint(800, 960) / 10}", "9", "LEADS", "TEFC"])
    return rows


def rendered(rows: list[list[str]], chance: random.Random) -> Image.Image:
    """Return a plate as it left the press: dark on light, or light on dark."""
    name = chance.choice(FONTS)
    path, size = CLONE / "web/node_modules/@fontsource" / name, chance.randint(56, 84)
    font = ImageFont.truetype(path, size)
    longest = max(font.getlength("  ".join(row)) for row in rows)
    font = ImageFont.truetype(path, min(size, int(size * (SIZE[0] - 140) / longest)))
    ground, ink = chance.choice([(205, 30), (225, 15), (45, 225), (170, 40)])
    plate = Image.new("L", SIZE, ground)
    pen = ImageDraw.Draw(plate)
    step = (SIZE[1] - 120) // len(rows)
    for place, row in enumerate(rows):
        pen.text((70, 70 + place * step), "  ".join(row), fill=ink, font=font)
    return plate


def spoiled(plate: Image.Image, kind: str, chance: random.Random) -> Image.Image:
    """Return the plate as a hand-held camera in a plant sees it."""
    if kind == "blur":
        return plate.filter(ImageFilter.GaussianBlur(chance.uniform(2, 4.5)))
    if kind == "glare":
        light = Image.new("L", SIZE, 0)
        x, y = chance.randint(100, 1300), chance.randint(100, 700)
        ImageDraw.Draw(light).ellipse((x - 320, y - 240, x + 320, y + 240), fill=170)
        return ImageChops.add(plate, light.filter(ImageFilter.GaussianBlur(90)))
    if kind == "scratches":
        found = plate.copy()
        pen = ImageDraw.Draw(found)
        for _ in range(chance.randint(12, 30)):
            ends = [(chance.randint(0, SIZE[0]), chance.randint(0, SIZE[1])) for _ in range(2)]
            pen.line(ends, fill=chance.randint(0, 255), width=chance.randint(1, 4))
        return found
    if kind == "embossing":
        shade = plate.filter(ImageFilter.GaussianBlur(1.5)).filter(ImageFilter.EMBOSS)
        return Image.blend(shade, plate, 0.25)
    return plate


def photographed(plate: Image.Image, kind: str, chance: random.Random) -> tuple[Image.Image, list]:
    """Return a photo with the plate in it, and its four corners as shares."""
    photo = Image.new("L", (1800, 1200), 96)
    photo.paste(plate, (200, 200))
    inset = 0.07 if kind == "perspective" else 0.0
    noise = Image.effect_noise(photo.size, 14)
    photo = ImageChops.add(photo, noise, scale=1, offset=-128)
    corners = [(200, 200), (1600, 200), (1600, 1000), (200, 1000)]
    if inset:
        aim = [
            (x + chance.uniform(-inset, inset) * 1800, y + chance.uniform(-inset, inset) * 1200)
            for x, y in corners
        ]
        photo = turned(photo, corners, aim)
        corners = aim
    # a hand drags the corners to within some pixels
    return photo.convert("RGB"), [
        ((x + chance.uniform(-6, 6)) / 1800, (y + chance.uniform(-6, 6)) / 1200) for x, y in corners
    ]


def turned(photo: Image.Image, corners: list, aim: list) -> Image.Image:
    """Return the photo with its corners led elsewhere (linear equations by elimination)."""
    rows = []
    for (x, y), (to_x, to_y) in zip(corners, aim, strict=True):
        rows.append([to_x, to_y, 1, 0, 0, 0, -x * to_x, -x * to_y, x])
        rows.append([0, 0, 0, to_x, to_y, 1, -y * to_x, -y * to_y, y])
    for at in range(8):
        pivot = max(range(at, 8), key=lambda row: abs(rows[row][at]))
        rows[at], rows[pivot] = rows[pivot], rows[at]
        rows[at] = [value / rows[at][at] for value in rows[at]]
        for row in range(8):
            if row != at:
                factor = rows[row][at]
                rows[row] = [a - factor * b for a, b in zip(rows[row], rows[at], strict=True)]
    data = [row[8] for row in rows]
    return photo.transform(photo.size, Image.Transform.PERSPECTIVE, data, Image.Resampling.BICUBIC)


def compared(rows: list[list[str]], seen: list) -> tuple[int, int, int, int]:
    """Return words of the plate, right and sure, wrong and sure, missed altogether."""
    truth = [word for row in rows for word in row]
    told = [word.text.rstrip(",") for word in seen]
    right = wrong = matched = 0
    for code in difflib.SequenceMatcher(None, truth, told, autojunk=False).get_opcodes():
        kind, start, end, first, last = code
        if kind == "equal":
            right += sum(seen[at].is_sure for at in range(first, last))
            matched += end - start
        elif kind in {"replace", "insert"}:
            wrong += sum(seen[at].is_sure for at in range(first, last))
        if kind in {"delete", "replace"}:
            matched += min(end - start, last - first)
    return len(truth), right, wrong, len(truth) - matched


def main(plates: int, first: int) -> None:
    """Render, read, count."""
    totals: dict[str, list[int]] = {}
    for number in range(first, first + plates):
        chance = random.Random(number)  # noqa: S311 - no secret
        rows = words_of(chance)
        plate = rendered(rows, chance)
        kind = SPOILED[number // 2 % 5] if number % 2 else "clean"
        photo, corners = photographed(spoiled(plate, kind, chance), kind, chance)
        found = compared(rows, proposed(photo, corners)[1])
        kept = totals.setdefault(kind, [0, 0, 0, 0])
        totals[kind] = [a + b for a, b in zip(kept, found, strict=True)]
    every = [sum(column) for column in zip(*totals.values(), strict=True)]
    for kind, (words, right, wrong, missed) in (*totals.items(), ("all", every)):
        print(
            f"{kind:12} {words:5} words: {right / words:6.1%} right and sure,"
            f" {wrong / words:6.2%} wrong and sure, {missed / words:6.1%} not seen at all"
        )


if __name__ == "__main__":
    words = [int(word) for word in sys.argv[1:]]
    main(words[0] if words else 100, words[1] if len(words) > 1 else 0)
