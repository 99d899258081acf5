"""The control power of a drawn starter on the job's own supply.

Line to neutral exists only where there is a neutral: 120 V of 208Y/120, of 120/240 single phase
and of a high-leg delta from the two lines beside the high leg; never of a plain delta. Line
voltage is the line's. A transformer of two primary windings is linked for the line: in series
for twice the volts of a winding, in parallel for those of one. The manufactured phase of a
converter feeds no control.

Units: volts [V]. Rules: NEC 110.15 (the high leg), 430.72(C), Article 455; NEMA ST 1 (H1 to H4).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal

from evencoil.base import Message, MissingError, RefusedError, exact, plain
from evencoil.circuit import Circuit, CircuitEditor, primary_taps
from evencoil.starters.options import set_control_volts

__all__ = ["ControlSupply", "fit_control", "primary_of"]

#: lines that a control circuit is tapped from, line to neutral and line to line
_HOT, _TAPPED = "L1", ("L1", "L2")
#: a tap serves volts within this part of its own: beyond it coils leave their own 85 to 110 %
_TAP_NEAR = 0.06
#: up to these volts the two primary windings of a usual transformer are in parallel [V]
_PARALLEL_UP_TO_V = Decimal(250)


@dataclass(frozen=True, slots=True, kw_only=True)
class ControlSupply:
    """What a control circuit is fed from: system, volts of lines and to ground [V], legs.

    ``made_leg`` is the manufactured phase of a converter and ``high_leg`` that of a high-leg
    delta; None where nobody entered it.
    """

    system: str
    line_v: Decimal
    ground_v: Decimal | None
    made_leg: str | None = None
    high_leg: str | None = None


def _neutral_volts(supply: ControlSupply) -> Decimal:
    """Return the volts from the tapped line to neutral, or refuse with the reason [V]."""
    if supply.system == "unsaid":
        raise MissingError(
            Message("control_supply.unsaid", {"volts": plain(supply.line_v)}),
            field="supply.text",
            hint=Message("control_supply.unsaid.hint"),
        )
    if supply.ground_v is None or supply.system not in {"wye", "high_leg", "single_phase"}:
        raise RefusedError(
            Message(
                "control_supply.no_neutral",
                {
                    "volts": plain(supply.line_v),
                    "system": str(Message(f"system.{supply.system}")),
                },
            ),
            field="starter.options.control_source",
            hint=Message("control_supply.no_neutral.hint"),
        )
    if supply.system == "high_leg" and supply.high_leg == _HOT:
        raise RefusedError(
            Message(
                "control_supply.high_leg",
                {"line": _HOT, "volts": f"{float(supply.ground_v) * 3**0.5:.0f}"},
            ),
            field="supply.high_leg",
            hint=Message("control_supply.high_leg.hint"),
        )
    return supply.ground_v


def primary_of(line_v: Decimal) -> tuple[Decimal, bool]:
    """Return the volts of one primary winding [V], and whether the two are in parallel.

    Parameters
    ----------
    line_v : Decimal
        Volts between the lines. [V]
    """
    if line_v <= _PARALLEL_UP_TO_V:
        return line_v, True
    return line_v / 2, False


def fit_control(circuit: Circuit, used: Mapping[str, str], supply: ControlSupply) -> Circuit:
    """Return a drawn starter with its control power fitted to the supply.

    Parameters
    ----------
    circuit : Circuit
        As drawn for 480 V.
    used : mapping
        The options that counted.
    supply : ControlSupply
        What feeds it.

    Raises
    ------
    CoreError
        If the control source does not exist on this supply, or would be fed from a
        manufactured phase or a high leg.
    """
    source = used.get("control_source", "")
    editor = CircuitEditor(circuit)
    uses_lines = source != "separate" and any(
        name in editor.devices for name in ("control_fuse_1", "control_transformer", "dc_supply")
    )
    tapped = (_HOT,) if source == "line_to_neutral" else _TAPPED
    if uses_lines and supply.made_leg in tapped:
        raise RefusedError(
            Message("control_supply.made_leg", {"leg": supply.made_leg or ""}),
            field="supply.made_leg",
            hint=Message("control_supply.made_leg.hint"),
        )
    if source == "line_to_neutral":
        set_control_volts(editor, exact(_neutral_volts(supply)))
    elif source == "line_voltage":
        set_control_volts(editor, exact(supply.line_v))
    elif "dc_supply" in editor.devices:
        editor.change("dc_supply", v=exact(supply.line_v))
    if "control_transformer" in editor.devices:
        if primary_taps(editor.devices["control_transformer"].parameters):
            _on_tap(editor, supply.line_v)
        elif primary_of(supply.line_v)[1]:
            _in_parallel(editor)
    return editor.done()


def _on_tap(editor: CircuitEditor, line_v: Decimal) -> None:
    """Put the line on the tap nearest to its volts, or refuse where none is near."""
    taps = primary_taps(editor.devices["control_transformer"].parameters)
    nearest = min(taps, key=lambda end: abs(taps[end] / float(line_v) - 1))
    if abs(float(line_v) / taps[nearest] - 1) > _TAP_NEAR:
        raise RefusedError(
            Message(
                "control_supply.no_tap",
                {
                    "volts": plain(line_v),
                    "taps": ", ".join(f"{own:g} V" for own in taps.values()),
                    "nearest": f"{taps[nearest]:g}",
                    "off": f"{(float(line_v) / taps[nearest] - 1) * 100:+.0f}",
                    "most": f"{_TAP_NEAR * 100:.0f}",
                },
            ),
            field="starter.options.control_primary",
            hint=Message("control_supply.no_tap.hint"),
        )
    for end in taps:
        here, there = f"control_transformer.{end}", f"control_transformer.{nearest}"
        if end != nearest and editor.at(here):
            editor.merge(here, there)


def _in_parallel(editor: CircuitEditor) -> None:
    """Link H1 to H3 and H2 to H4 in place of H2 to H3."""
    ends = {f"control_transformer.{end}" for end in ("H2", "H3")}
    links = [wire for wire in editor.at("control_transformer.H2") if {wire.start, wire.end} == ends]
    if not links:
        return
    for wire in links:
        editor.cut(wire.id)
    editor.wire("control_transformer.H1", "control_transformer.H3")
    editor.wire("control_transformer.H2", "control_transformer.H4")
