"""Equipment grounding conductor of one motor's branch circuit.

Units: current [A].
Rules: NEC 250.122(A), Table 250.122, 250.122(D). Table: ``nec/250_122``.
Left out: growth with conductors enlarged beyond need, 250.122(B); raceways
that serve as the grounding path, 250.118.
"""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal

from evencoil.base import ConductorSize, Message, NotInTableError, Step, Tip, Trail, plain
from evencoil.codebook import Edition, rule, table
from evencoil.sizing.protection import DeviceKind, protection_ratings

__all__ = ["grounding_conductor"]


def grounding_conductor(
    *, material: str, kind: DeviceKind, phases: int, edition: Edition, trail: Trail
) -> Step:
    """Return the smallest equipment grounding conductor of the wire type.

    Parameters
    ----------
    material : str
        ``cu`` or ``al``.
    kind : str
        Kind of the short-circuit device; an instantaneous breaker counts as
        the largest dual-element fuse allowed with the next size up.
    phases : int
        1 or 3.
    edition : int
        Edition whose sections are cited.
    trail : Trail
        Holds ``protection_device_a`` and ``conductor_size``.

    Returns
    -------
    Step
        ``grounding_conductor_size``, never larger than the circuit conductors.

    Raises
    ------
    NotInTableError
        If the device is larger than the table.
    """
    device = trail.number("protection_device_a")
    said = "grounding.row"
    uses = ["protection_device_a", "conductor_size"]
    if kind == "instantaneous_breaker":
        device = protection_ratings(
            flc_a=trail.number("table_flc_a"),
            kind="dual_element_fuse",
            phases=phases,
            edition=edition,
        ).next_size_a
        said = "grounding.instantaneous"
        uses.append("table_flc_a")
    book = table("250_122")
    rows = book.figures("ocpd_a")
    row = next((place for place, amps in enumerate(rows) if device <= amps), None)
    if row is None:
        raise NotInTableError(
            Message("grounding.none", {"device": plain(device)}),
            field="size.protection_kind",
            hint=Message("grounding.none.hint"),
        )
    column = book.columns.index(material)
    size = ConductorSize(book.rows[row][column])
    conductor = trail.size("conductor_size")
    chosen = min(size, conductor)
    cell = book.find_text(row, material, edition=edition)
    return trail.add(
        Step(
            id="grounding_conductor_size",
            value=chosen,
            unit=chosen.unit,
            kind="calculated",
            shown=str(chosen),
            working=Message(
                "grounding.not_larger" if chosen < size else said,
                {
                    "device": plain(device),
                    "row": plain(rows[row]),
                    "size": str(size),
                    "conductor": str(conductor),
                },
            ),
            rule=rule("grounding_limit" if chosen < size else "grounding", edition),
            uses=tuple(uses),
            cell=cell.cell,
            marks=cell.marks,
            tips=_tips(rows, row, material, size),
        )
    )


def _tips(rows: Sequence[Decimal], row: int, material: str, size: ConductorSize) -> tuple[Tip, ...]:
    if row + 1 >= len(rows):
        return ()
    column = table("250_122").columns.index(material)
    larger = ConductorSize(table("250_122").rows[row + 1][column])
    if larger == size:
        return ()
    return (
        Tip(
            message=Message(
                "grounding.tip", {"row": plain(rows[row]), "size": str(size), "next": str(larger)}
            )
        ),
    )
