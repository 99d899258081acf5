"""What the drawn starter tells the sizes: the coils on its transformer, where its heaters lie.

What a person entered goes before the drawing. A coil's apparent power is the library's
assumption until someone reads it off the coil, and marks what stands on it.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from decimal import Decimal
from typing import Literal

from evencoil.checks import (
    COILED,
    LINE_ENDS,
    Graph,
    bridges_of,
    exclusive_pairs,
    lines_behind_drive,
    on_transformer,
)
from evencoil.circuit import Circuit
from evencoil.sizing import CoilInput, ControlInput, DriveInput, OverloadInput, SizeInputs

__all__ = ["control_of", "heaters_lie", "with_drawing"]

_WAY = {"pole", "heat", "fuse", "resistor"}
#: of control power: what the drawing tells
_DRAWN = {"coils", "is_drawn"}
_SPLIT = {"motor6", "motorpw"}
_SPLIT_KINDS = {"6", "9-wye", "12", "part-winding"}


def control_of(graph: Graph) -> ControlInput | None:
    """Return the coils and lamps on the control transformer; None if there is no such thing.

    Parameters
    ----------
    graph : Graph
        Of the circuit as drawn.
    """
    transformers = graph.of_type("xfmr")
    if not transformers:
        return None
    coils: Counter[tuple[str, str, str]] = Counter()
    lamps = Decimal(0)
    for item in (one for unit in transformers for one in on_transformer(graph, unit.id)):
        if item.type in COILED:
            sealed = item.parameters.get("sealed_va") or "10"
            inrush = item.parameters.get("inrush_va") or sealed
            coils[item.type, inrush, sealed] += 1
        else:
            lamps += Decimal(item.parameters.get("va") or "0")
    if not coils:
        return None
    secondary = transformers[0].parameters.get("sec") or "120"
    # as drawn, however many: the limits of the form are for what a person types
    return ControlInput.model_construct(
        coils=tuple(
            CoilInput.model_construct(
                label=kind, count=count, inrush_va=Decimal(inrush), sealed_va=Decimal(sealed)
            )
            for (kind, inrush, sealed), count in sorted(coils.items())
        ),
        lamps_va=lamps,
        volts_v=Decimal(secondary),
        is_drawn=True,
    )


def heaters_lie(graph: Graph) -> Literal["line", "leg", "half"] | None:
    """Return where the overload's heaters lie in the motor's current; None without any.

    Parameters
    ----------
    graph : Graph
        Of the circuit as drawn.
    """
    relays = [item.id for item in graph.of_type("olr")]
    motors = [item for item in graph.circuit.netlist.devices if item.type.startswith("motor")]
    if not relays or len(motors) != 1:
        return None
    (motor,) = motors
    kind = motor.parameters.get("kind", "")
    if motor.type not in _SPLIT and kind not in _SPLIT_KINDS:
        return "line"
    lines = {
        graph.net(item.id, line)
        for item in graph.of_type("supply")
        for line in LINE_ENDS
        if line in item.terminals
    }
    bridged = bridges_of(graph)
    found: Mapping[bool, set[str]] = {True: set(), False: set()}
    for end in motor.terminals:
        for way in graph.paths(
            graph.net(motor.id, end), lines, lambda edge: edge.link.kind in _WAY
        ):
            if any(edge.device.id in bridged for edge in way):
                continue
            through = {edge.device.id for edge in way if edge.link.kind == "heat"}
            found[relays[0] in through].add(end)
    if not found[True] or not found[False] - found[True]:
        return "line"
    has_halves = {"first_half", "second_half"} <= {
        item.id for item in graph.circuit.netlist.devices
    }
    return "half" if has_halves else "leg"


def with_drawing(size: SizeInputs, circuit: Circuit | None) -> SizeInputs:
    """Return the inputs of the sizes with what the drawn starter says and no one entered.

    Parameters
    ----------
    size : SizeInputs
        As entered.
    circuit : Circuit or None
        The drawn starter with its edits; None if there is none.
    """
    if circuit is None:
        return size
    graph = Graph(circuit)
    more: dict[str, object] = {}
    own = size.control
    if own is None or not own.coils:
        control = control_of(graph)
        if control is not None and own is not None:
            fields = type(own).model_fields
            entered = {name: getattr(own, name) for name in fields if name not in _DRAWN}
            control = control.model_copy(
                update={
                    name: value
                    for name, value in entered.items()
                    if value != fields[name].get_default(call_default_factory=True)
                }
            )
        if control is not None:
            more["control"] = control
    if size.overload is None:
        place = heaters_lie(graph)
        if place in {"leg", "half"}:
            more["overload"] = OverloadInput(place=place)
    drives = graph.of_type("drive")
    if size.drive is None and drives:
        # its rated input current is on its own nameplate: until it is entered figures wait
        more["drive"] = DriveInput(
            input_a=None,
            has_bypass=any(lines_behind_drive(graph, set(pair)) for pair in exclusive_pairs(graph)),
            has_overload=True,
            output_v=None,
        )
    return size.model_copy(update=more) if more else size
