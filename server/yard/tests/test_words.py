"""A photographed nameplate: proposed word by word, doubted where it is not sure, never guessed."""

import base64
import io

import pytest
from django.conf import settings
from hypothesis import given
from hypothesis import settings as hurry
from hypothesis import strategies as st
from PIL import Image, ImageDraw, ImageFont

from tests_support import caller, motor, signed_in
from yard.recognize import _coefficients, proposed, straightened

JOB = "/api/w/here/m/IC-2/j/1"
ROWS = ["15 HP  230/460 V  38.6/19.3 A", "1765 RPM  60 HZ  3 PH", "SF 1.15  CODE G  DES B"]
WHOLE = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]
FLAT = [share for corner in WHOLE for share in corner]


def plate(rows=ROWS, ink=20):
    """Return a plate as it left the press."""
    name = "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff"
    font = ImageFont.truetype(settings.FONTS / name, 64)
    picture = Image.new("RGB", (1400, 60 + 150 * len(rows)), (215, 215, 215))
    pen = ImageDraw.Draw(picture)
    for place, row in enumerate(rows):
        pen.text((60, 50 + 150 * place), row, fill=(ink, ink, ink), font=font)
    return picture


def kept(client, picture):
    """Keep a photo and return its digest."""
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=90)
    body = {"subject": "plate", "data": base64.b64encode(out.getvalue()).decode()}
    answer = client.post(f"{JOB}/photos", body, content_type="application/json")
    assert answer.status_code == 200, answer.content
    return answer.json()["sha256"]


@pytest.fixture
def client(db):
    """Ann, signed in, with a motor."""
    who = caller("here", "ann")
    motor(who)
    return signed_in(who)


def test_a_clean_plate_is_read_in_stamped_order_with_a_crop_of_each_word(client):
    """Every word of it is right; each brings its picture; nothing is saved."""
    sha = kept(client, plate())
    answer = client.post(
        f"{JOB}/photos/{sha}/words", {"corners": FLAT}, content_type="application/json"
    )
    assert answer.status_code == 200, answer.content
    said = answer.json()
    # a gap that is narrow may be missed, no sign is
    assert "".join(word["text"] for word in said["words"]) == "".join(ROWS).replace(" ", "")
    truth = set(" ".join(ROWS).split())
    assert all(word["text"] in truth for word in said["words"] if word["is_sure"])
    assert [word["row"] for word in said["words"]] == sorted(w["row"] for w in said["words"])
    assert sum(word["is_sure"] for word in said["words"]) >= 0.8 * len(said["words"])
    assert said["poor"] == ""
    for word in said["words"]:
        with Image.open(io.BytesIO(base64.b64decode(word["crop"]))) as crop:
            assert crop.width > 4
    assert "HP" in client.get(JOB).json()["plate"]["text"]
    assert client.get(JOB).json()["plate"]["seen"] == []


def test_where_nothing_can_be_read_it_offers_typing(client):
    """Grain alone: no sure word, and it says that typing is quicker."""
    grain = Image.effect_noise((1000, 500), 90).convert("RGB")
    sha = kept(client, grain)
    said = client.post(
        f"{JOB}/photos/{sha}/words", {"corners": FLAT}, content_type="application/json"
    ).json()
    assert not any(word["is_sure"] for word in said["words"])
    assert "yp" in said["poor"]


def test_what_cannot_stand_before_its_unit_is_doubted():
    """69 HZ and SF 1.9 are well printed and yet doubted: no plate says so."""
    _, seen = proposed(plate(["69 HZ  3 PH", "SF 1.9  CODE G"]), WHOLE)
    sure = {word.text for word in seen if word.is_sure}
    assert "69" not in sure
    assert "1.9" not in sure
    assert {"HZ", "PH"} <= sure
    _, seen = proposed(plate(["69HZ 3PH 15HP"]), WHOLE)
    assert [word.is_sure for word in seen if word.text == "69HZ"] == [False]


@pytest.mark.parametrize(
    "corners",
    [
        [0.1] * 8,
        [0, 0, 0, 1, 1, 1, 1, 0],
        [0, 0, 1, 1, 1, 0, 0, 1],
    ],
    ids=["one point", "the wrong way round", "crossed"],
)
def test_corners_that_go_round_nothing_are_refused(client, corners):
    """Said which field and what to do."""
    sha = kept(client, plate())
    answer = client.post(
        f"{JOB}/photos/{sha}/words", {"corners": corners}, content_type="application/json"
    )
    assert answer.status_code == 422
    assert answer.json()["field"] == "corners"
    place = {"corners": ",".join(map(str, corners)), "place": "0,0,1,1"}
    assert client.get(f"{JOB}/photos/{sha}/crop", place).status_code == 422


def test_a_figure_keeps_the_crop_it_came_from(client):
    """Its picture is there again from corners and place alone; nonsense is refused."""
    sha = kept(client, plate())
    asked = {"corners": ",".join(map(str, FLAT)), "place": "0.05,0.1,0.2,0.3"}
    answer = client.get(f"{JOB}/photos/{sha}/crop", asked)
    assert answer.headers["Content-Type"] == "image/png"
    assert answer.content.startswith(b"\x89PNG")
    for wrong in ("0.2,0.1,0.1,0.3", "a,b,c,d", "0,0,1", "nan,0,1,1"):
        assert client.get(f"{JOB}/photos/{sha}/crop", {**asked, "place": wrong}).status_code == 422


@given(
    st.lists(st.floats(-0.12, 0.12, allow_nan=False), min_size=8, max_size=8),
)
@hurry(max_examples=200, deadline=None)
def test_a_rectangle_is_led_to_its_four_corners(moved):
    """The projection of each corner of the rectangle is the corner of the plate it stands for."""
    points = [
        (1000 * (x + dx), 600 * (y + dy))
        for (x, y), dx, dy in zip(WHOLE, moved[::2], moved[1::2], strict=True)
    ]
    a, b, c, d, e, f, g, h = _coefficients(points, (400, 200))
    for (x, y), (to_x, to_y) in zip([(0, 0), (400, 0), (400, 200), (0, 200)], points, strict=True):
        below = g * x + h * y + 1
        assert (a * x + b * y + c) / below == pytest.approx(to_x, abs=1e-6)
        assert (d * x + e * y + f) / below == pytest.approx(to_y, abs=1e-6)


def test_a_straight_plate_stays_as_it_is():
    """Corners at the corners: the middle of the picture stays its middle."""
    picture = Image.new("L", (700, 350), 255)
    ImageDraw.Draw(picture).rectangle((340, 165, 360, 185), fill=0)
    gray = straightened(picture, WHOLE)
    assert gray.size == (1400, 700)
    assert gray.getpixel((700, 350)) < 30
    assert gray.getpixel((100, 100)) > 225
