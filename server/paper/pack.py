"""The field pack: one job on paper, from the plate to the wire list.

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
from django.utils.safestring import SafeString, mark_safe

from evencoil.base import Message, __version__, say
from evencoil.checks import check_circuit, dead_rows
from evencoil.drawing import MM_PER_PX, Picture, draw_start_branch, draw_winding, to_svg
from evencoil.job import JobFile, StarterRoom, Worked, fingerprint
from jobs.schemas import worked_out
from people.models import Works

__all__ = ["pack", "sheet_pdf"]

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


def pack(
    *,
    works: Works,
    by: str,
    file: JobFile,
    number: int,
    worked: Worked,
    room: StarterRoom,
    issue_n: int,
    kind: str,
) -> bytes:
    """Return a job's field pack as PDF.

    Parameters
    ----------
    works : Works
        Its name and time zone stand on the pack.
    by : str
        Who prints it.
    file : JobFile
        What people gave.
    number : int
        The job's number at its motor.
    worked : Worked
        What comes out.
    room : StarterRoom
        The starter, drawn.
    issue_n : int
        Number of this issue.
    kind : str
        ``print`` or ``wiring``.

    Returns
    -------
    bytes
        Cover, plate, leads, sizes with their Why, drawings, wire list.
    """
    said = worked_out(worked, room)
    steps = {step.id: step for step in said.steps}
    notes = {step.id: place + 1 for place, step in enumerate(said.steps)}
    now = dt.datetime.now(ZoneInfo(works.time_zone))
    box = worked.box
    joints = tuple(joint.as_core() for joint in worked.joints) or box.intended
    coils = box.outcome.coils if box.outcome and worked.joints else ()
    ladder, power = room.ladder().picture, room.power()
    html = render_to_string(
        "paper/pack.html",
        {
            "works": works,
            "by": by,
            "file": file,
            "number": number,
            "worked": said,
            "figures": [
                (figure, steps.get(figure.step or ""), notes.get(figure.step or ""))
                for figure in said.figures
            ],
            "notes": [(notes[step.id], step) for step in said.steps],
            "printed": f"{now:%Y-%m-%d %H:%M}",
            "print_id": fingerprint(file),
            "core": __version__,
            "issue_n": issue_n,
            "kind": kind,
            "room": room,
            "findings": [(found.level, say(found.message)) for found in room.findings],
            "start": None if box.start is None else _svg(draw_start_branch(box.start)),
            "winding": _svg(draw_winding(box.winding, joints, coils, box.names))
            if box.winding
            else "",
            "is_derived": not worked.joints,
            "followed": file.leads.followed if box.followed else None,
            "sources": ", ".join(item.source or "no place said" for item in file.leads.maker),
            "plan": said.joints,
            "rows_of_joints": [
                (
                    joint.line,
                    " ".join(box.names.get(lead, lead) for lead in joint.leads),
                    joint.conductors,
                )
                for joint in box.intended
            ],
            "free": " ".join(
                box.names.get(lead, lead)
                for lead in (box.derived.free(box.winding) if box.derived and box.winding else ())
            ),
            "states": [
                (
                    state.said,
                    state.state,
                    [
                        (joint.line, " ".join(box.names.get(lead, lead) for lead in joint.leads))
                        for joint in state.joints
                    ],
                )
                for state in said.box.states
            ]
            if len(said.box.states) > 1
            else [],
            "ladder": _svg(ladder) if ladder.shapes else "",
            "power": _svg(power) if power.shapes else "",
            "is_tall": power.height > power.width * 0.8,
            "rows": room.rows(),
            "material": [
                (
                    row,
                    [
                        (
                            say(Message(f"rating.{name}")),
                            value,
                            unit,
                            notes.get(room.sources.get(f"{row.device}.{name}", "")),
                        )
                        for name, value, unit in row.ratings
                    ],
                    say(Message(f"type.{row.type}")),
                )
                for row in room.material()
            ],
            "edits": file.starter.edits,
            "accepted": [
                (say(Message(f"restart.{one.hazard}")), one) for one in file.starter.accepted
            ],
            "panel": _svg(room.panel()) if power.shapes else "",
            "strip": _svg(room.strip()) if power.shapes else "",
            "checks": [
                (one.rule, one.level, say(one.message), say(one.change))
                for one in (check_circuit(room.circuit) if room.circuit else ())
            ],
            # the fonts of the page have no ohm sign
            "dead": [
                [cell.replace("Ω", "ohm") for cell in row]
                for row in (dead_rows(room.circuit) if room.circuit else [])
            ],
        },
    )
    return _printed(html, render_to_string("paper/pack.css"))


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
    html = render_to_string("paper/sheet.html", {"title": title, "drawing": _svg(picture)})
    page = (
        f"@page{{size:{width:.0f}mm {height:.0f}mm;margin:10mm}}"
        "body{margin:0;font-family:'Atkinson Hyperlegible Next'}h1{font-size:11pt;margin:0 0 3mm}"
        f"svg{{width:{picture.width * MM_PER_PX:.0f}mm;height:auto}}"
    )
    return _printed(html, page)


def _printed(html: str, style: str) -> bytes:
    """Return a page as PDF, in the fonts that ship with the application."""
    # loaded at the first print: it takes as long to load as half of the rest together
    from weasyprint import CSS, HTML  # noqa: PLC0415
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    fonts = FontConfiguration()
    sheet = CSS(string=_font_css() + style, font_config=fonts)
    data = HTML(string=html, url_fetcher=_only_own_files).write_pdf(
        stylesheets=[sheet], font_config=fonts
    )
    return bytes(data)


def _svg(picture: Picture) -> SafeString:
    """Return a drawing as SVG; every word in it was escaped when it was drawn."""
    return mark_safe(to_svg(picture))  # noqa: S308 - `to_svg` escapes every word it writes
