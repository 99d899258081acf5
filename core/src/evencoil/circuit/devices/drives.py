"""A drive: lines in, another frequency out, a control circuit of its own.

Terminals: L1 L2 L3 in and U V W out (IEC 60445), its own 24 V between + and -, inputs against
-: FWD and REV run it, HLD is the stop of three-wire control, RST resets a fault, ENA permits
torque; 11-12-14 is the fault relay, which is in while the drive is healthy.
"""

from __future__ import annotations

from evencoil.circuit.library import DeviceType, Link, Parameter, Parameters, register

__all__ = ["DRIVE_INPUTS", "DRIVE_LINES", "DRIVE_OUTPUT"]

DRIVE_LINES = ("L1", "L2", "L3")
DRIVE_OUTPUT = ("U", "V", "W")
#: what each input does
DRIVE_INPUTS = ("FWD", "REV", "HLD", "RST", "ENA")


def _links(parameters: Parameters) -> tuple[Link, ...]:
    del parameters
    return (
        *(
            Link("drive", line, out, f"{line}-{out}")
            for line, out in zip(DRIVE_LINES, DRIVE_OUTPUT, strict=True)
        ),
        Link("source", "+", "-", "+--"),
        *(Link("input", name, "-", name) for name in DRIVE_INPUTS),
        Link("nc", "11", "12", "11-12"),
        Link("no", "11", "14", "11-14"),
    )


register(
    DeviceType(
        "drive",
        "TA",
        "DR",
        "both",
        (
            # rated volts in, and rated amps out
            Parameter("v", "number", "480", "V"),
            Parameter("a", "number", "", "A"),
            # overload by setting, and the most that it lets through for a while
            Parameter("iset", "number", "10", "A"),
            Parameter("limit", "count", "150", "%", 50, 200),
            # frequency at which the full volts stand, speed set, ramps over the base frequency
            Parameter("base", "50|60", "60", "Hz"),
            Parameter("hz", "number", "60", "Hz", 0, 120),
            Parameter("up", "number", "5", "s", 0, 600),
            Parameter("down", "number", "5", "s", 0, 600),
            Parameter("boost", "number", "2", "%", 0, 20),
            Parameter("stop", "ramp|coast", "ramp"),
            Parameter("wires", "2|3", "2"),
            # an automatic restart when power comes back with its run input on
            Parameter("restart", "0|1", "0"),
            # torque only while ENA is on
            Parameter("enable", "0|1", "1"),
            # a braking resistor takes what comes back from the machine
            Parameter("brake", "0|1", "0"),
            # a motor cooled by its own fan, or by another
            Parameter("cooling", "self|separate", "self"),
            # from off until the bus is below 50 V, by its label
            Parameter("wait", "number", "5", "min", 0, 60),
        ),
        lambda given: (
            *DRIVE_LINES,
            *DRIVE_OUTPUT,
            "+",
            "-",
            *DRIVE_INPUTS,
            "11",
            "12",
            "14",
        ),
        _links,
        3,
    )
)
