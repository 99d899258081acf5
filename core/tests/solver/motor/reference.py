"""Reference figures: this model's statics and a circuit simulator's transients, from outside."""

import cmath
import json
from functools import cache
from math import pi, radians
from pathlib import Path

from evencoil.solver.motor import AirGap, Element, Group, Machine, MachineCoil, Port, Wiring


@cache
def reference():
    """Return all of it."""
    return json.loads((Path(__file__).parents[2] / "cases/motor.json").read_text("utf-8"))


def machine(name):
    """Return a machine as the reference gives it, coil by coil."""
    told = reference()["machines"][name]
    coils = tuple(
        MachineCoil(
            coil["name"],
            coil["start"],
            coil["end"],
            complex(coil["R"], coil["X_leak"]),
            tuple(
                turns * cmath.exp(-1j * radians(axis))
                for turns, axis in zip(coil["N"], coil["axis_deg"], strict=True)
            ),
        )
        for coil in told["coils"]
    )
    return Machine(
        coils=coils,
        gaps=tuple(AirGap(**field) for field in told["fields"]),
        hz=told["freq"],
        inertia_kg_m2=told["J"],
        friction_w=told["P_fw"],
        rated_rad_s=told["w_rated"],
        rated_nm=told["T_rated"],
    )


def wiring(netlist):
    """Return a reference network: sources, conductors, closed contacts, coupled windings."""
    return Wiring(
        sources=tuple(
            (one["plus"], complex(*one["E"]), complex(*one["Z"])) for one in netlist["sources"]
        ),
        joined=tuple(netlist["motor_leads"].items()),
        elements=(
            *(Element(one["a"], one["b"], complex(*one["Z"])) for one in netlist["impedances"]),
            *(Element(one["a"], one["b"], complex(one["R"])) for one in netlist["closed_contacts"]),
        ),
        groups=tuple(
            Group(
                tuple(tuple(pair) for pair in one["ports"]),
                tuple(tuple(complex(*value) for value in row) for row in one["Z"]),
            )
            for one in netlist["multiport"]
        ),
    )


def port_of(case):
    """Return a static case, ready to be asked at any speed."""
    return Port(machine(case["motor"]), wiring(case["netlist"]))


def line_amps(port, fields):
    """Return the line currents of a port [A]."""
    found = []
    for line in ("L1", "L2", "L3"):
        constant, by_gap = port.line_row(line)
        found.append(
            abs(constant + sum(one * gap for one, gap in zip(by_gap, fields.gap, strict=True)))
        )
    return found


def rad_s(rpm):
    """Return a speed in rad/s."""
    return rpm * 2 * pi / 60
