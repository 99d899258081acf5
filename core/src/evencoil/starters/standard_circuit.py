"""A standard circuit: a circuit of the catalogue with options laid over it.

Each option is one small change of the drawn circuit, done in a fixed order, so
that the same options always give the same netlist with the same ids.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from evencoil.base import CoreError, Message, OutOfRangeError, line_said, say
from evencoil.circuit import Circuit, CircuitEditor
from evencoil.starters import options as laid
from evencoil.starters.catalogue import CatalogueEntry, entry_of

__all__ = ["Drawn", "OptionSpec", "draw", "options_of", "said_choice"]


@dataclass(frozen=True, slots=True)
class OptionSpec:
    """One option of a standard circuit.

    ``choices`` are the words it takes; a number option has none and tells its
    least and most instead.
    """

    name: str
    choices: tuple[str, ...]
    default: str
    least: float = 0.0
    most: float = 0.0
    unit: str = ""

    @property
    def is_number(self) -> bool:
        """Tell whether it takes a number."""
        return not self.choices


@dataclass(frozen=True, slots=True)
class _Option:
    spec: OptionSpec
    fits: Callable[[CircuitEditor, CatalogueEntry], bool]
    lay: Callable[[CircuitEditor, str], None]
    default_of: Callable[[CircuitEditor, CatalogueEntry], str] = field(
        default=lambda sheet, entry: ""
    )


@dataclass(frozen=True, slots=True)
class Drawn:
    """A standard circuit with its options, drawn."""

    entry: CatalogueEntry
    circuit: Circuit
    options: Mapping[str, str]


def _has(*ids: str) -> Callable[[CircuitEditor, CatalogueEntry], bool]:
    return lambda sheet, entry: all(name in sheet.devices for name in ids)


def _wired(*roles: str) -> Callable[[CircuitEditor, CatalogueEntry], bool]:
    """Return whether devices are there, in a circuit that no program drives."""
    has = _has(*roles)
    return lambda sheet, entry: entry.group != "programmable" and has(sheet, entry)


def _has_three_leads(sheet: CircuitEditor) -> bool:
    """Return whether a manual starter fits at the motor; behind a drive none does."""
    has = "motor" in sheet.devices and sheet.devices["motor"].type in {"motor3", "motor1"}
    return has and "drive" not in sheet.devices


_OPTIONS: tuple[_Option, ...] = (
    _Option(
        OptionSpec("cross", ("L1-L3", "L1-L2", "L2-L3"), "L1-L3"),
        _has("forward_contactor", "reverse_contactor"),
        laid.cross,
    ),
    _Option(
        OptionSpec("heaters", ("leg", "line"), "leg"),
        _has("star", "delta", "overload"),
        laid.heaters,
        # behind a direction pair they are drawn in the line, for either way
        lambda sheet, entry: "line" if "forward_contactor" in sheet.devices else "leg",
    ),
    _Option(
        OptionSpec("tap", (), "65", 30, 95, "%"),
        _has("autotransformer"),
        laid.tap,
    ),
    _Option(
        OptionSpec("delta_order", ("leading", "lagging"), "leading"),
        _has("star", "delta", "overload"),
        laid.delta_order,
    ),
    _Option(
        OptionSpec("reset", ("manual", "auto"), "manual"),
        lambda sheet, entry: any(item.type == "olr" for item in sheet.devices.values()),
        laid.reset,
        lambda sheet, entry: "auto" if entry.id == "2B" else "manual",
    ),
    _Option(
        OptionSpec("stations", ("1", "2", "3", "4", "5", "6"), "1"),
        lambda sheet, entry: entry.group == "three_wire" and entry.id != "3C",
        laid.stations,
        lambda sheet, entry: str(sum(1 for name in sheet.devices if name.startswith("start"))),
    ),
    _Option(
        OptionSpec("lamps", ("as_drawn", "none", "run", "run_trip", "run_off_trip"), "as_drawn"),
        lambda sheet, entry: (
            bool(laid.motor_contactor(sheet))
            and "overload" in sheet.devices
            and entry.group not in {"machine", "programmable"}
        ),
        laid.lamps,
    ),
    _Option(
        OptionSpec("overload_side", ("as_drawn", "hot", "grounded"), "as_drawn"),
        _wired("overload", "control_fuse"),
        laid.overload_side,
    ),
    _Option(
        OptionSpec("estop", ("none", "contact", "reset_relay"), "none"),
        lambda sheet, entry: "control_fuse" in sheet.devices and "estop_1" not in sheet.devices,
        laid.estop,
    ),
    _Option(
        OptionSpec("local_isolator", ("none", "at_motor", "manual_starter"), "none"),
        lambda sheet, entry: _has_three_leads(sheet),
        laid.local_isolator,
    ),
    _Option(
        # a manual starter has three heaters, not six
        OptionSpec("local_isolator", ("none", "at_motor"), "none"),
        lambda sheet, entry: "motor" in sheet.devices and not _has_three_leads(sheet),
        laid.local_isolator,
    ),
    _Option(
        OptionSpec("protection", ("breaker", "fused_disconnect"), "breaker"),
        _has("breaker"),
        laid.protection,
    ),
    _Option(
        OptionSpec(
            "control_source",
            ("transformer", "line_to_neutral", "separate", "line_voltage", "dc_24"),
            "transformer",
        ),
        # a programmable relay is bought for its supply: another one is another device
        _wired("control_transformer", "control_fuse", "control_fuse_1", "control_fuse_2"),
        laid.control_source,
    ),
    _Option(
        OptionSpec(
            "control_primary",
            ("two_windings", "208_240_480", "230_400_460"),
            "two_windings",
        ),
        lambda sheet, entry: (
            "control_transformer" in sheet.devices and entry.group != "single_phase"
        ),
        laid.control_primary,
    ),
    _Option(
        OptionSpec("control_tap", ("load_side", "line_side"), "load_side"),
        _has("control_fuse_1", "breaker"),
        laid.control_tap,
    ),
    _Option(
        OptionSpec("main_auxiliary", ("none", "early_break"), "none"),
        _has("control_fuse_1", "breaker"),
        laid.main_auxiliary,
    ),
    _Option(
        OptionSpec(
            "control_volts", ("24", "48", "110", "120", "208", "240", "480"), "120", unit="V"
        ),
        _has("control_transformer", "control_fuse"),
        laid.control_volts,
    ),
    _Option(
        OptionSpec("test_feed", ("none", "selector"), "none"),
        _wired("control_transformer", "control_fuse", "breaker"),
        laid.test_feed,
    ),
    _Option(
        OptionSpec("timer_s", (), "", 0.1, 600, "s"),
        lambda sheet, entry: "timer" in sheet.devices,
        laid.timer,
        lambda sheet, entry: sheet.devices["timer"].parameters.get("t", "5"),
    ),
)


def said_choice(name: str, word: str) -> str:
    """Return a choice as it is read: figures say themselves, lines by the plant's names.

    Parameters
    ----------
    name : str
        Of the option.
    word : str
        What is chosen.
    """
    if word.isdigit():
        return word
    if word.startswith("L"):
        return line_said(word)
    return say(Message(f"option.{name}.{word}"))


def options_of(entry: CatalogueEntry) -> tuple[OptionSpec, ...]:
    """Return the options that a circuit has, with its own defaults.

    Parameters
    ----------
    entry : CatalogueEntry
        The circuit.
    """
    sheet = CircuitEditor(entry.circuit)
    found = []
    for option in _OPTIONS:
        if option.fits(sheet, entry):
            spec = option.spec
            default = option.default_of(sheet, entry) or spec.default
            found.append(
                OptionSpec(spec.name, spec.choices, default, spec.least, spec.most, spec.unit)
            )
    return tuple(found)


def _checked(spec: OptionSpec, value: str) -> str:
    if spec.is_number:
        try:
            is_right = spec.least <= float(value) <= spec.most
        except ValueError:
            is_right = False
        said = f"{spec.least:g} to {spec.most:g} {spec.unit}"
    else:
        is_right, said = value in spec.choices, ", ".join(spec.choices)
    if not is_right:
        raise OutOfRangeError(
            Message("starter.option", {"name": spec.name, "value": value[:40]}),
            field=f"starter.options.{spec.name}",
            hint=Message("starter.option.hint", {"choices": said}),
        )
    return value


def draw(circuit_id: str, chosen: Mapping[str, str] | None = None) -> Drawn:
    """Return a standard circuit drawn with its options.

    Parameters
    ----------
    circuit_id : str
        For example ``3A``.
    chosen : mapping, optional
        Option name to word; what is not named is as the circuit has it.

    Returns
    -------
    Drawn
        With every option that counted.

    Raises
    ------
    CoreError
        If there is no such circuit, or it has no such option or word.
    """
    entry = entry_of(circuit_id)
    given = dict(chosen or {})
    specs = {spec.name: spec for spec in options_of(entry)}
    for name in given:
        if name not in specs:
            raise OutOfRangeError(
                Message("starter.no_option", {"name": name[:40], "id": entry.id}),
                field=f"starter.options.{name[:40]}",
                hint=Message("starter.no_option.hint", {"names": ", ".join(specs) or "—"}),
            )
    used = {name: _checked(spec, given.get(name, spec.default)) for name, spec in specs.items()}
    sheet = CircuitEditor(entry.circuit)
    plain = CircuitEditor(entry.circuit)
    for option in _OPTIONS:
        name = option.spec.name
        is_asked = name in used and used[name] != specs[name].default
        if is_asked and option.fits(plain, entry):
            try:
                option.lay(sheet, used[name])
            except CoreError:
                raise
            except KeyError as missing:
                gone = plain.devices.get(str(missing.args[0]).partition(".")[0])
                kind = "" if gone is None else say(Message(f"type.{gone.type}"))
                said = f"{plain.tags[gone.id]} ({kind})" if gone else str(missing.args[0])
                raise OutOfRangeError(
                    Message(
                        "starter.clash",
                        {"name": say(Message(f"option.{name}")), "missing": said},
                    ),
                    field=f"starter.options.{name}",
                    hint=Message("starter.clash.hint"),
                ) from missing
    return Drawn(entry, sheet.done(), used)
