"""Files as answers: under a plain name, never cached."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from django.http import HttpResponse

from evencoil.base import no_formula

__all__ = ["XLSX", "answers_file", "as_csv", "attachment"]

#: content type of a workbook
XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


def answers_file(
    kind: str, description: str = "The file", *, is_binary: bool = False
) -> dict[str, object]:
    """Return how a file answers in the OpenAPI description."""
    schema = {"type": "string", **({"format": "binary"} if is_binary else {})}
    return {"responses": {200: {"description": description, "content": {kind: {"schema": schema}}}}}


def attachment(data: bytes, kind: str, name: str, ending: str = "") -> HttpResponse:
    """Return a file to look at or save, under a plain name."""
    response = HttpResponse(data, content_type=kind)
    plain = "".join(sign if sign.isascii() and sign.isalnum() else "-" for sign in name)
    ending = ending or kind.split("/")[1].split("+", maxsplit=1)[0]
    response.headers["Content-Disposition"] = f'inline; filename="{plain}.{ending}"'
    response.headers["Cache-Control"] = "no-store"
    return response


def as_csv(rows: Iterable[Sequence[str]]) -> bytes:
    """Return rows as CSV; no cell of it is taken for a formula.

    Parameters
    ----------
    rows : iterable of sequence of str
        The first one is the heading.
    """
    text = io.StringIO()
    csv.writer(text, lineterminator="\n").writerows(
        [no_formula(cell) for cell in row] for row in rows
    )
    return text.getvalue().encode()
