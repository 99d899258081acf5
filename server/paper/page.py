"""One job on paper: plate, supply, checks, figures with their working.

WeasyPrint drops a font silently unless the same font configuration goes to the
style sheet and to the writer. The Latin subsets lack signs such as the check
mark, so the page says them in words.
"""

from __future__ import annotations

import datetime as dt
from typing import Any
from zoneinfo import ZoneInfo

from django.conf import settings
from django.template.loader import render_to_string
from weasyprint import CSS, HTML
from weasyprint.text.fonts import FontConfiguration

from evencoil import __version__
from evencoil.jobfile import JobFile
from jobs.schemas import WorkedOut
from people.models import Works

__all__ = ["job_page"]

_FACES = (
    ("Saira Condensed", 700, "saira-condensed/files/saira-condensed-latin-700-normal.woff2"),
    (
        "Atkinson Hyperlegible Next",
        400,
        "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff2",
    ),
    (
        "Atkinson Hyperlegible Next",
        700,
        "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff2",
    ),
    (
        "Atkinson Hyperlegible Mono",
        400,
        "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff2",
    ),
    (
        "Atkinson Hyperlegible Mono",
        600,
        "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff2",
    ),
)


def _only_own_files(url: str, *_: Any, **__: Any) -> Any:
    """Refuse to fetch anything: a page holds nothing from outside."""
    raise ValueError(f"a page may not fetch {url}")


def _font_css() -> str:
    return "".join(
        f"@font-face{{font-family:'{family}';font-weight:{weight};"
        f"src:url('{(settings.FONTS / name).as_uri()}')}}"
        for family, weight, name in _FACES
    )


def job_page(
    *, works: Works, by: str, file: JobFile, number: int, worked: WorkedOut, print_id: str
) -> bytes:
    """Return a job as PDF.

    Parameters
    ----------
    works : Works
        Its name and time zone stand on the page.
    by : str
        Who prints it.
    file : JobFile
        What people gave.
    number : int
        The job's number at its motor.
    worked : WorkedOut
        What comes out.
    print_id : str
        Fingerprint of what was given.

    Returns
    -------
    bytes
        The PDF.
    """
    steps = {step.id: step for step in worked.steps}
    notes = {step.id: place + 1 for place, step in enumerate(worked.steps)}
    now = dt.datetime.now(ZoneInfo(works.time_zone))
    html = render_to_string(
        "paper/job.html",
        {
            "works": works,
            "by": by,
            "file": file,
            "number": number,
            "worked": worked,
            "figures": [
                (figure, steps.get(figure.step or ""), notes.get(figure.step or ""))
                for figure in worked.figures
            ],
            "notes": [(notes[step.id], step) for step in worked.steps],
            "printed": f"{now:%Y-%m-%d %H:%M}",
            "print_id": print_id,
            "core": __version__,
        },
    )
    fonts = FontConfiguration()
    style = CSS(string=_font_css() + render_to_string("paper/job.css"), font_config=fonts)
    data = HTML(string=html, url_fetcher=_only_own_files).write_pdf(
        stylesheets=[style], font_config=fonts
    )
    return bytes(data)
