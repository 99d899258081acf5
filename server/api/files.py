"""Files as answers: under a plain name, never cached."""

from __future__ import annotations

from django.http import HttpResponse

__all__ = ["attachment"]


def attachment(data: bytes, kind: str, name: str, ending: str = "") -> HttpResponse:
    """Return a file to look at or save, under a plain name."""
    response = HttpResponse(data, content_type=kind)
    plain = "".join(sign if sign.isascii() and sign.isalnum() else "-" for sign in name)
    ending = ending or kind.split("/")[1].split("+", maxsplit=1)[0]
    response.headers["Content-Disposition"] = f'inline; filename="{plain}.{ending}"'
    response.headers["Cache-Control"] = "no-store"
    return response
