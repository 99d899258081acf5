"""Pictures that attack: decoders that fail, metadata that tells, sizes that fill the memory."""

import base64
import io

import pytest
from PIL import Image

from plant.models import Photo
from tests_support import JOB


def sent(client, raw):
    """Send bytes as a picture."""
    body = {"subject": "plate", "data": base64.b64encode(raw).decode()}
    return client.post(f"{JOB}/photos", body, content_type="application/json")


def picture(kind="JPEG", size=(64, 48), **more):
    """Return a picture as bytes."""
    out = io.BytesIO()
    Image.new("RGB", size, "white").save(out, kind, **more)
    return out.getvalue()


def test_nothing_but_the_pixels_is_kept(client):
    """A comment, a place, a color profile and XMP stay out of what is stored."""
    exif = Image.Exif()
    exif[0x010E] = "secret description"
    raw = picture(
        comment=b"secret comment", exif=exif, icc_profile=b"secret profile" * 20, xmp=b"secret xmp"
    )
    assert b"secret" in raw
    assert sent(client, raw).status_code == 200
    stored = bytes(Photo.objects.get().data)
    assert b"secret" not in stored
    assert b"Exif" not in stored
    assert Image.open(io.BytesIO(stored)).info.get("comment") is None


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_cut_anywhere_is_refused_or_read(client, kind):
    """No length of the file ends in a 500."""
    raw = picture(kind)
    for length in range(0, len(raw), max(1, len(raw) // 25)):
        assert sent(client, raw[:length]).status_code in {200, 422}


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_with_one_byte_wrong_is_refused_or_read(client, kind):
    """Each byte of the head in turn is turned round."""
    raw = bytearray(picture(kind))
    for place in range(0, min(len(raw), 400), 9):
        wrong = bytes([*raw[:place], raw[place] ^ 0xFF, *raw[place + 1 :]])
        assert sent(client, wrong).status_code in {200, 422}


@pytest.mark.parametrize("kind", ["GIF", "TIFF", "BMP", "PPM"])
def test_other_formats_are_refused(client, kind):
    assert sent(client, picture(kind)).status_code == 422


def test_a_head_that_claims_a_huge_picture_is_refused_before_decoding(client):
    """20,000 by 20,000 pixels in a few kilobytes."""
    small = picture("PNG")
    huge = small[:16] + (20_000).to_bytes(4, "big") * 2 + small[24:]
    answer = sent(client, huge)
    assert answer.status_code == 422
