"""Drawings and pages as PDF, in the fonts that ship with the application."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.template.loader import render_to_string
from django.utils.safestring import SafeString, mark_safe

from evencoil.drawing import MM_PER_PX, Picture, to_svg

__all__ = ["as_svg", "printed", "sheet_pdf"]

# WOFF, not WOFF2: a page needs the plain outlines, and WOFF2 has them put together anew each time
_FACES = (
    ("Saira Condensed", 700, "saira-condensed/files/saira-condensed-latin-700-normal.woff"),
    (
        "Atkinson Hyperlegible Next",
        400,
        "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff",
    ),
    (
        "Atkinson Hyperlegible Next",
        700,
        "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff",
    ),
    (
        "Atkinson Hyperlegible Mono",
        400,
        "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff",
    ),
    (
        "Atkinson Hyperlegible Mono",
        600,
        "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff",
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


def sheet_pdf(picture: Picture, title: str) -> bytes:
    """Return one drawing as a PDF of its own, on a page of its shape.

    Parameters
    ----------
    picture : Picture
        The geometry; a pixel is a quarter of a millimetre.
    title : str
        Written at the head of the page.
    """
    width, height = picture.width * MM_PER_PX + 20, picture.height * MM_PER_PX + 30
    html = render_to_string("paper/sheet.html", {"title": title, "drawing": as_svg(picture)})
    page = (
        f"@page{{size:{width:.0f}mm {height:.0f}mm;margin:10mm}}"
        "body{margin:0;font-family:'Atkinson Hyperlegible Next'}h1{font-size:11pt;margin:0 0 3mm}"
        f"svg{{width:{picture.width * MM_PER_PX:.0f}mm;height:auto}}"
    )
    return printed(html, page)


def printed(html: str, style: str) -> bytes:
    """Return a page as PDF, in the fonts that ship with the application."""
    # loaded at the first print: it takes as long to load as half of the rest together
    from weasyprint import CSS, HTML  # noqa: PLC0415 - slow to load, and seldom needed
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415 - slow to load, and seldom needed

    fonts = FontConfiguration()
    sheet = CSS(string=_font_css() + style, font_config=fonts)
    data = HTML(string=html, url_fetcher=_only_own_files).write_pdf(
        stylesheets=[sheet], font_config=fonts
    )
    return bytes(data)


def as_svg(picture: Picture) -> SafeString:
    """Return a drawing as SVG; every word in it was escaped when it was drawn."""
    return mark_safe(to_svg(picture))  # noqa: S308 - `to_svg` escapes every word it writes
