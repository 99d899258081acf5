"""Options: each lays one change over a drawn circuit.

Where practitioners differ both ways are here; the choice and its consequences
are reported on the Starter screen. Each takes the sheet and the word chosen;
`evencoil.starters.standard_circuit` lists them with their words.
"""

from __future__ import annotations

from itertools import pairwise

from evencoil.base import Message, OutOfRangeError
from evencoil.circuit import CircuitEditor, Wire, links_of, type_of

__all__ = ["motor_contactor", "set_control_volts"]

_POLES = {"L1": "2T1", "L2": "4T2", "L3": "6T3"}
_MAIN_SWITCH = "QS1"
_COILED = {"contactor", "relay", "timer", "sdtimer"}
_RUNNERS = ("main", "forward_contactor", "delta", "second_half", "low_contactor")


def motor_contactor(sheet: CircuitEditor) -> str:
    """Return the contactor whose auxiliary tells that the motor runs, empty if none."""
    return next((name for name in _RUNNERS if name in sheet.devices), "")


def cross(sheet: CircuitEditor, word: str) -> None:
    """Choose which two lines the reversing contactor exchanges, on its load side."""
    order = ["L1", "L2", "L3"]
    one, other = word.split("-")
    target = {line: line for line in order}
    target[one], target[other] = other, one
    back, ahead = "reverse_contactor", "forward_contactor"
    for line in order:
        for wire in sheet.at(f"{back}.{_POLES[line]}"):
            if f"{ahead}." in wire.start or f"{ahead}." in wire.end:
                sheet.cut(wire.id)
    for line in order:
        sheet.wire(f"{back}.{_POLES[line]}", f"{ahead}.{_POLES[target[line]]}")


def heaters(sheet: CircuitEditor, word: str) -> None:
    """Set the star-delta overload in the line, ahead of both contactors, or in the winding leg.

    In the leg it carries 58 % of the line's current, and its setting follows.
    """
    if word == "leg":
        _heaters_in_leg(sheet)
        return
    lines = (("1L1", "2T1"), ("3L2", "4T2"), ("5L3", "6T3"))
    for line_end, load_end in lines:
        into, out = f"overload.{line_end}", f"overload.{load_end}"
        fed = f"main.{line_end}"
        for wire in sheet.at(into):
            sheet.cut(wire.id)
        # the winding lead comes straight from the main contactor now
        for wire in sheet.at(out):
            sheet.shift(wire.id, out, f"main.{load_end}")
        for wire in sheet.at(fed):
            other = wire.end if wire.start == fed else wire.start
            if other.startswith("delta."):
                continue
            sheet.shift(wire.id, fed, into)
        sheet.wire(out, fed)
    setting = float(sheet.devices["overload"].parameters.get("iset", "5.8"))
    sheet.change("overload", iset=f"{setting / 0.58:g}")


def _heaters_in_leg(sheet: CircuitEditor) -> None:
    """Feed the delta contactor ahead of the heaters instead of behind them."""
    for line_end, load_end in (("1L1", "2T1"), ("3L2", "4T2"), ("5L3", "6T3")):
        into, out = f"overload.{line_end}", f"overload.{load_end}"
        for wire in sheet.at(out):
            if _other(wire, out).startswith("delta."):
                sheet.shift(wire.id, out, into)
    setting = float(sheet.devices["overload"].parameters.get("iset", "10"))
    sheet.change("overload", iset=f"{setting * 0.58:g}")


def tap(sheet: CircuitEditor, word: str) -> None:
    """Move the motor's leads to another tap, the same on every leg; any that its plate has."""
    percent = str(round(float(word)))
    have = sheet.devices["autotransformer"].parameters.get("taps", "")
    if percent not in have.split(","):
        sheet.change("autotransformer", taps=f"{have},{percent}")
    for leg in sheet.devices["autotransformer"].parameters.get("legs", "ABC"):
        sheet.merge(f"autotransformer.{leg}65", f"autotransformer.{leg}{percent}")


def delta_order(sheet: CircuitEditor, word: str) -> None:
    """Take the jumper set in which the delta volts lag those of the star."""
    del word
    moves = {"W2": "V2", "U2": "W2", "V2": "U2"}
    todo = [
        (wire.id, f"motor.{old}", f"motor.{new}")
        for old, new in moves.items()
        for wire in sheet.at(f"motor.{old}")
    ]
    for name, here, there in todo:
        sheet.shift(name, here, there)


def reset(sheet: CircuitEditor, word: str) -> None:
    """Set every overload relay to manual or automatic reset."""
    for item in list(sheet.devices.values()):
        if item.type == "olr":
            sheet.change(item.id, reset=word)


def stations(sheet: CircuitEditor, word: str) -> None:
    """Draw any number of start-stop stations: stops in series, starts side by side."""
    count = int(word)
    have = sum(1 for name in sheet.devices if name.startswith("start"))
    for number in range(have, count, -1):
        _drop_station(sheet, number)
    for number in range(have + 1, count + 1):
        stop, start = f"stop_{number}", f"start_{number}"
        last_stop = "stop" if number == 2 else f"stop_{number - 1}"
        last_start = "start" if number == 2 else f"start_{number - 1}"
        sheet.add(stop, sheet.free_tag("S"), "pb", before=last_start, c="11-12")
        sheet.add(start, sheet.free_tag("S"), "pb", c="13-14")
        sheet.insert(f"{last_stop}.12", f"{stop}.11", f"{stop}.12")
        for end in ("13", "14"):
            _extend(sheet, f"{last_start}.{end}", f"{start}.{end}")


def _drop_station(sheet: CircuitEditor, number: int) -> None:
    stop, start = f"stop_{number}", f"start_{number}"
    last_stop = "stop" if number == 2 else f"stop_{number - 1}"
    for wire in sheet.at(f"{last_stop}.12"):
        if f"{stop}.11" in {wire.start, wire.end}:
            sheet.cut(wire.id)
    sheet.merge(f"{stop}.12", f"{last_stop}.12")
    for end in ("13", "14"):
        _bypass(sheet, f"{start}.{end}")
    sheet.remove(stop)
    sheet.remove(start)


def _extend(sheet: CircuitEditor, terminal: str, to: str) -> None:
    """Lead a wire on to another terminal without a third wire under one screw."""
    there = sheet.at(terminal)
    number = sheet.numbers.get(there[0].id, "") if there else ""
    if len(there) > 1:
        sheet.shift(there[-1].id, terminal, to)
    sheet.wire(terminal, to, number)


def lamps(sheet: CircuitEditor, word: str) -> None:
    """Draw exactly the lamps named; each on its own auxiliary contact."""
    for name in ("lamp_run", "lamp_off", "lamp_trip"):
        if name in sheet.devices:
            _take_lamp(sheet, name)
    wanted = [] if word == "none" else word.split("_")
    contactor = motor_contactor(sheet)
    hot = "control_fuse.2" if "control_fuse" in sheet.devices else "control_fuse_1.2"
    back = (
        "control_transformer.X2" if "control_transformer" in sheet.devices else "control_fuse_2.2"
    )
    for name in wanted:
        lamp = f"lamp_{name}"
        sheet.add(lamp, sheet.free_tag("H"), "lamp")
        if name == "trip":
            near, far = "overload.97", "overload.98"
        else:
            ends = sheet.free_aux(contactor, "34" if name == "run" else "12")
            near, far = (f"{contactor}.{end}" for end in ends)
        _join_net(sheet, hot, near)
        sheet.wire(far, f"{lamp}.X1")
        _join_net(sheet, back, f"{lamp}.X2")


def _bypass(sheet: CircuitEditor, terminal: str) -> None:
    """Take a terminal out of the chain of its net: what was before it meets what was after."""
    around = sheet.at(terminal)
    number = next((sheet.numbers.get(wire.id, "") for wire in around), "")
    ends = [_other(wire, terminal) for wire in around]
    for wire in around:
        sheet.cut(wire.id)
    for one, other in pairwise(ends):
        sheet.wire(one, other, number)


def _take_lamp(sheet: CircuitEditor, name: str) -> None:
    """Take a lamp out with the contact that served only it."""
    for end in ("X1", "X2", "T"):
        terminal = f"{name}.{end}"
        served = [_other(wire, terminal) for wire in sheet.at(terminal)] if end == "X1" else []
        _bypass(sheet, terminal)
        for contact in served:
            near = _near_end(sheet, contact)
            if not sheet.at(contact) and not _serves_another(sheet, near):
                _bypass(sheet, near)
    sheet.remove(name)


def _serves_another(sheet: CircuitEditor, terminal: str) -> bool:
    """Tell whether a terminal is the common of a contact whose other side is wired."""
    owner, _, end = terminal.rpartition(".")
    return any(
        end in {link.a, link.b} and sheet.at(f"{owner}.{link.b if link.a == end else link.a}")
        for link in links_of(sheet.devices[owner])
    )


def _near_end(sheet: CircuitEditor, terminal: str) -> str:
    """Return the other end of the contact that a terminal belongs to."""
    owner, _, end = terminal.rpartition(".")
    for link in links_of(sheet.devices[owner]):
        if end in {link.a, link.b}:
            return f"{owner}.{link.b if link.a == end else link.a}"
    return terminal


def _join_net(sheet: CircuitEditor, start: str, terminal: str) -> None:
    """Lead a terminal to the net of another one, at the first screw with room."""
    number = next((sheet.numbers.get(wire.id, "") for wire in sheet.at(start)), "")
    ring = [start]
    for here in ring:
        for wire in sheet.at(here):
            other = _other(wire, here)
            if other not in ring and not other.startswith("supply."):
                ring.append(other)
    if terminal in ring:
        return
    for here in ring:
        owner = sheet.devices[here.rpartition(".")[0]]
        if len(sheet.at(here)) < type_of(owner.type).most_wires:
            sheet.wire(here, terminal, number)
            return
    raise KeyError(start)


def overload_side(sheet: CircuitEditor, word: str) -> None:
    """Set the overload's opening contact first on the hot side, or last before X2."""
    is_hot = any("control_fuse.2" in {wire.start, wire.end} for wire in sheet.at("overload.95"))
    if is_hot != (word == "hot"):
        (_overload_hot if word == "hot" else _overload_grounded)(sheet)


def _overload_hot(sheet: CircuitEditor) -> None:
    """Lead the coils' common side straight to X2; 95-96 goes behind the fuse."""
    near, far, back = "overload.95", "overload.96", "control_transformer.X2"
    ends = [_other(wire, near) for wire in sheet.at(near)]
    ends += [_other(wire, far) for wire in sheet.at(far) if _other(wire, far) != back]
    for wire in (*sheet.at(near), *sheet.at(far)):
        sheet.cut(wire.id)
    for end in ends:
        _join_net(sheet, back, end)
    sheet.insert("control_fuse.2", near, far)
    # the trip contact stays ahead of 95-96, which is open when it has something to show
    nets = sheet.done().netlist.nets()
    behind = [
        f"{item.id}.97"
        for item in sheet.devices.values()
        if item.type == "olr" and sheet.at(f"{item.id}.97") and nets[f"{item.id}.97"] == nets[far]
    ]
    # all of them: two that tripped would feed each other round 95-96
    for terminal in behind:
        _bypass(sheet, terminal)
    for terminal in behind:
        _join_net(sheet, "control_fuse.2", terminal)


def _overload_grounded(sheet: CircuitEditor) -> None:
    """Lead the coils' common side through 95-96 to X2."""
    near, far, back = "overload.95", "overload.96", "control_transformer.X2"
    for wire in sheet.at(far):
        sheet.shift(wire.id, far, "control_fuse.2")
    for wire in sheet.at(near):
        other = _other(wire, near)
        sheet.cut(wire.id)
        if other != "control_fuse.2":
            # lamps that hung before the contact stay on the fuse
            _join_net(sheet, "control_fuse.2", other)
    coils = [item.id for item in sheet.devices.values() if item.type in _COILED]
    for name in coils:
        for wire in sheet.at(f"{name}.A2"):
            sheet.cut(wire.id)
    for one, other in pairwise([near, *(f"{name}.A2" for name in coils)]):
        sheet.wire(one, other)
    _join_net(sheet, back, far)
    for item in list(sheet.devices.values()):
        if item.type == "lamp" and not sheet.at(f"{item.id}.X2"):
            _join_net(sheet, back, f"{item.id}.X2")


def _other(wire: Wire, terminal: str) -> str:
    return wire.end if wire.start == terminal else wire.start


def estop(sheet: CircuitEditor, word: str) -> None:
    """Put an emergency stop ahead of everything; with a reset relay behind it if wanted."""
    hot = "control_fuse.2"
    if word == "contact":
        sheet.add("estop_1", "ES1", "estop", c="11-12", legend="E-STOP")
        sheet.insert(hot, "estop_1.11", "estop_1.12")
        return
    back = "control_transformer.X2"
    sheet.add("estop_1", "ES1", "estop", c="11-12", legend="E-STOP")
    sheet.add("reset", "S0", "pb", c="13-14", legend="RESET")
    sheet.add("master", sheet.free_tag("KA"), "relay", aux="13-14,23-24")
    sheet.insert(hot, "master.23", "master.24")
    for wire in sheet.at(hot):
        sheet.cut(wire.id)
    sheet.wire(hot, "estop_1.11", "1")
    sheet.wire("estop_1.12", "reset.13")
    sheet.wire("reset.13", "master.13")
    sheet.wire("master.13", "master.23")
    sheet.wire("reset.14", "master.A1")
    sheet.wire("master.A1", "master.14")
    _join_net(sheet, back, "master.A2")


def local_isolator(sheet: CircuitEditor, word: str) -> None:
    """Set a lockable switch, or a manual starter, at each motor; its auxiliary ahead of the coil.

    Every lead of the motor passes it: three, or six where both ends come out. A machine of
    several motors has the auxiliary of each ahead of that motor's own coil.
    """
    motors = [item.id for item in sheet.devices.values() if item.type.startswith("motor")]
    for motor in motors:
        number = motor.removeprefix("motor")
        name = f"local_isolator{number}"
        _set_isolator(sheet, word, motor, name)
        if word == "manual_starter":
            continue
        is_bypassed = "bypass" in sheet.devices
        if "drive" in sheet.devices:
            # open, it takes the torque away before its poles part
            sheet.change(name, aux="13-14,23-24" if is_bypassed else "13-14")
            near, far = ("23", "24") if is_bypassed else ("13", "14")
            sheet.insert("drive.ENA", f"{name}.{far}", f"{name}.{near}")
            if not is_bypassed:
                continue
        contactor = motor_contactor(sheet)
        hot = next((end for end in ("control_fuse.2", "control_fuse_1.2") if sheet.at(end)), "")
        if len(motors) > 1:
            sheet.insert(f"main{number}.A1", f"{name}.13", f"{name}.14")
        elif (contactor or is_bypassed) and hot:
            sheet.insert(hot, f"{name}.13", f"{name}.14")


def _set_isolator(sheet: CircuitEditor, word: str, motor: str, name: str) -> None:
    """Put a switch or a manual starter into every lead of a motor."""
    leads = [end for end in sheet.devices[motor].terminals if sheet.at(f"{motor}.{end}")]
    poles = "6" if len(leads) > 3 else "3"
    if word == "manual_starter":
        amps = sheet.devices[motor].parameters.get("fla", "10")
        sheet.add(
            name,
            sheet.free_tag("Q"),
            "manual",
            before=motor,
            poles="3",
            init="on",
            iset=amps,
        )
    else:
        sheet.add(
            name,
            sheet.free_tag("QS"),
            "isolator",
            before=motor,
            poles=poles,
            aux="13-14",
        )
    for place, lead in enumerate(leads):
        near, far = str(2 * place + 1), str(2 * place + 2)
        sheet.insert(f"{motor}.{lead}", f"{name}.{far}", f"{name}.{near}")


def main_auxiliary(sheet: CircuitEditor, word: str) -> None:
    """Lead the control circuit through an auxiliary of the main switch that opens first.

    With it no coil can pull in, or stay in, while the main switch is open.
    """
    del word
    hot = next((end for end in ("control_fuse.2", "control_fuse_1.2") if sheet.at(end)), "")
    if not hot:
        raise KeyError("control_fuse")
    sheet.change("breaker", aux="13-14")
    sheet.insert(hot, "breaker.13", "breaker.14")


def protection(sheet: CircuitEditor, word: str) -> None:
    """Take a fused disconnect instead of a breaker."""
    del word
    old = sheet.devices["breaker"]
    poles = old.parameters.get("poles", "3")
    sheet.swap_type("breaker", "fdisc", {"a": "40", "poles": poles})
    sheet.tags["breaker"] = _MAIN_SWITCH
    # an isolator at the motor that had this tag goes on to the next one
    for name, tag in list(sheet.tags.items()):
        if tag == _MAIN_SWITCH and name != "breaker":
            sheet.tags[name] = sheet.free_tag("QS")


def control_source(sheet: CircuitEditor, word: str) -> None:
    """Feed the control circuit from elsewhere than an own transformer."""
    for end in ("control_transformer.H2", "control_fuse.1"):
        for wire in sheet.at(end):
            sheet.cut(wire.id)
    _SOURCES[word](sheet, sheet.devices["supply"].parameters.get("v", "480"))
    sheet.remove("control_transformer")


def _from_lines(sheet: CircuitEditor, line_v: str) -> None:
    for wire in sheet.at("supply.PE"):
        sheet.cut(wire.id)
    sheet.merge("control_fuse.2", "control_fuse_1.2")
    sheet.merge("control_transformer.X2", "control_fuse_2.2")
    sheet.remove("control_fuse")
    set_control_volts(sheet, line_v)


def _from_neutral(sheet: CircuitEditor, line_v: str) -> None:
    _chain_back(sheet, "supply.N")
    for wire in sheet.at("control_fuse_1.2"):
        sheet.cut(wire.id)
    sheet.wire("control_fuse_1.2", "control_fuse.1")
    _bypass(sheet, "control_fuse_2.1")
    sheet.remove("control_fuse_2")
    set_control_volts(sheet, f"{float(line_v) / 3**0.5:.0f}")


def _from_separate(sheet: CircuitEditor, line_v: str) -> None:
    del line_v
    sheet.add("control_supply", "SUP2", "source", v="120")
    _chain_back(sheet, "control_supply.N")
    sheet.wire("control_supply.L", "control_fuse.1", "X1")
    for name in ("control_fuse_1", "control_fuse_2"):
        _bypass(sheet, f"{name}.1")
        sheet.remove(name)


def _from_dc(sheet: CircuitEditor, line_v: str) -> None:
    sheet.add("dc_supply", "PSU1", "psu", v=line_v, vdc="24")
    for fuse, end in (("control_fuse_1", "L"), ("control_fuse_2", "N")):
        for wire in sheet.at(f"{fuse}.2"):
            sheet.cut(wire.id)
        sheet.wire(f"{fuse}.2", f"dc_supply.{end}")
    _chain_back(sheet, "dc_supply.-")
    sheet.wire("dc_supply.+", "control_fuse.1", "X1")
    set_control_volts(sheet, "24", is_dc=True)


_SOURCES = {
    "line_voltage": _from_lines,
    "line_to_neutral": _from_neutral,
    "separate": _from_separate,
    "dc_24": _from_dc,
}


def _chain_back(sheet: CircuitEditor, new: str) -> None:
    for wire in sheet.at("supply.PE"):
        sheet.cut(wire.id)
    sheet.merge("control_transformer.X2", new)


def set_control_volts(sheet: CircuitEditor, volts: str, *, is_dc: bool = False) -> None:
    """Set coils, lamps and other loads of the control circuit to its volts.

    Parameters
    ----------
    sheet : CircuitEditor
        The circuit, changed in place.
    volts : str
        Of the control circuit. [V]
    is_dc : bool
        Direct current: coils change their kind too.
    """
    for item in list(sheet.devices.values()):
        known = item.parameters
        if "coil" in known:
            more = {"coil_kind": "dc"} if is_dc and "coil_kind" in known else {}
            sheet.change(item.id, coil=volts, **more)
        elif item.type in {"lamp", "solenoid", "heater", "horn", "plc"}:
            sheet.change(item.id, v=volts)


def control_tap(sheet: CircuitEditor, word: str) -> None:
    """Take the control power ahead of the main switch, so that it stays live."""
    del word
    for number, pole in ((1, "1"), (2, "3")):
        fuse = f"control_fuse_{number}"
        if fuse not in sheet.devices:
            continue
        for wire in sheet.at(f"{fuse}.1"):
            other = _other(wire, f"{fuse}.1")
            if other.startswith("breaker."):
                sheet.shift(wire.id, other, f"breaker.{pole}")


def control_primary(sheet: CircuitEditor, word: str) -> None:
    """Take a control transformer with one tapped primary; its line goes on the highest tap.

    The supply of the job chooses the tap afterwards.
    """
    sheet.change("control_transformer", taps=word.replace("_", ","))
    ends = {f"control_transformer.{end}" for end in ("H2", "H3")}
    for wire in sheet.at("control_transformer.H2"):
        if {wire.start, wire.end} == ends:
            sheet.cut(wire.id)


def control_volts(sheet: CircuitEditor, word: str) -> None:
    """Choose the control volts; coils, lamps and loads follow."""
    if not {"control_supply", "control_transformer"} & sheet.devices.keys():
        raise OutOfRangeError(
            Message("starter.volts_by_source", {"volts": word}),
            field="starter.options.control_volts",
            hint=Message("starter.volts_by_source.hint"),
        )
    if "control_supply" in sheet.devices:
        sheet.change("control_supply", v=word)
    else:
        sheet.change("control_transformer", sec=word)
    set_control_volts(sheet, word)


def test_feed(sheet: CircuitEditor, word: str) -> None:
    """Add a selector that feeds the control circuit from a test supply, motor isolated.

    On NORMAL the transformer feeds it; on TEST the test supply does, through a contact of the
    main switch that is closed only while that switch is open. The selector breaks before it
    makes, so that the test supply never feeds the transformer backward, whose primary would
    carry line volts.
    """
    del word
    if "aux" in sheet.devices["breaker"].parameters:
        raise OutOfRangeError(
            Message("starter.test_feed_aux"),
            field="starter.options.test_feed",
            hint=Message("starter.test_feed_aux.hint"),
        )
    volts = sheet.devices["control_transformer"].parameters.get("sec", "120")
    sheet.add(
        "test_selector",
        sheet.free_tag("SS"),
        "sel",
        before="control_fuse",
        pos="NORMAL,TEST",
        c="13-14:NORMAL,23-24:TEST",
    )
    sheet.add("test_supply", sheet.free_tag("SUP"), "source", before="control_fuse", v=volts)
    sheet.add("test_fuse", sheet.free_tag("FU"), "fuse", before="control_fuse")
    sheet.change("breaker", aux="21-22")
    # each source behind a fuse of its own
    sheet.insert("control_fuse.2", "test_selector.13", "test_selector.14")
    sheet.wire("test_supply.L", "test_fuse.1")
    sheet.wire("test_fuse.2", "test_selector.23")
    sheet.wire("test_selector.24", "breaker.21")
    _join_net(sheet, "test_selector.14", "breaker.22")
    _join_net(sheet, "control_transformer.X2", "test_supply.N")


def timer(sheet: CircuitEditor, word: str) -> None:
    """Set the time of the (first) timer."""
    sheet.change("timer", t=word)
