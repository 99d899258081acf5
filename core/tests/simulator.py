"""An independent circuit simulator: netlists of a motor for it, and what it answers.

Statics: every coil with its own impedance, and the air gap between all of them as
controlled sources, in the simulator's alternating-current analysis. Transients: the whole
machine in stator coordinates, stator currents included, with a shaft as a capacitor. The
simulator does the solving; nothing of `evencoil.solver` is called here but its figures.
"""

import re
import subprocess
from math import pi, sqrt
from pathlib import Path

from evencoil.winding import LINES

SIMULATOR = Path("/usr/bin/ngspice")


def run(text, folder):
    """Return what the simulator prints of a netlist."""
    path = Path(folder) / "motor.cir"
    path.write_text(text, encoding="utf-8")
    done = subprocess.run(
        [str(SIMULATOR), "-b", str(path)],
        check=False,
        capture_output=True,
        text=True,
        timeout=240,
        cwd=folder,
    )
    return done.stdout + done.stderr


def _impedance(name, one, other, ohm, hz):
    """Return a resistance and a reactance in series."""
    middle = f"m_{name}"
    return [
        f"R{name} {one} {middle} {ohm.real:.12g}",
        f"L{name} {middle} {other} {ohm.imag / (2 * pi * hz):.12g}",
    ]


def static_netlist(machine, joined, sources, slip_of, *, leak=1e-9):
    """Return a netlist of coils in an air gap on some supply, at one speed.

    ``joined`` gives the node of every lead, ``sources`` node, open volts and impedance of each
    line; ``slip_of`` the slip of a gap.
    """
    hz = machine.hz
    lines = ["motor at one speed"]
    nodes = set()
    for name, (node, volts, behind) in sources.items():
        nodes.add(node)
        lines += [
            f"V{name} src_{name} 0 dc 0 ac {abs(volts):.12g} {_degrees(volts):.12g}",
            f"Vs{name} src_{name} sense_{name} dc 0 ac 0",
            *_impedance(f"z{name}", f"sense_{name}", node, behind, hz),
        ]
    matrix = _gap_matrix(machine, slip_of)
    count = len(machine.coils)
    for place, coil in enumerate(machine.coils):
        start, end = joined[coil.start], joined[coil.end]
        nodes |= {start, end}
        lines.append(f"Vc{place} {start} c{place} dc 0 ac 0")
        lines += _impedance(f"c{place}", f"c{place}", f"e{place}_0", coil.own_ohm, hz)
        # the same current through one ohm of reactance is that current turned by 90 degrees
        lines.append(f"Fj{place} 0 j{place} Vc{place} 1")
        lines.append(f"Lj{place} j{place} 0 {1 / (2 * pi * hz):.12g}")
    for row in range(count):
        end = joined[machine.coils[row].end]
        steps = [
            (kind, column)
            for column in range(count)
            for kind in ("real", "imag")
            if abs(getattr(matrix[row][column], kind)) > 0
        ]
        here = f"e{row}_0"
        for number, (kind, column) in enumerate(steps, start=1):
            there = end if number == len(steps) else f"e{row}_{number}"
            value = getattr(matrix[row][column], kind)
            if kind == "real":
                lines.append(f"H{row}_{number} {here} {there} Vc{column} {value:.12g}")
            else:
                lines.append(f"E{row}_{number} {here} {there} j{column} 0 {value:.12g}")
            here = there
    lines += [f"Rleak_{node} {node} 0 {1 / leak:.6g}" for node in sorted(nodes)]
    probes = [f"i(vs{name})" for name in sources] + [f"i(vc{place})" for place in range(count)]
    # a probe's own current is counted from plus to minus, through the source
    lines += [
        ".control",
        "set numdgt=10",
        f"ac lin 1 {hz} {hz}",
        *(f"print mag({probe})" for probe in probes),
        ".endc",
        ".end",
    ]
    return "\n".join(lines) + "\n"


def _degrees(value):
    from cmath import phase

    return phase(value) * 180 / pi


def _gap_matrix(machine, slip_of):
    """Return what the air gap couples between the coils [ohm], by the definition."""
    coils = machine.coils
    found = [[0j] * len(coils) for _ in coils]
    for place, gap in enumerate(machine.gaps):
        slip = slip_of(gap)
        ahead, back = _field_ohm(gap, slip), _field_ohm(gap, 2 - slip)
        for row, one in enumerate(coils):
            for column, other in enumerate(coils):
                product = one.weights[place] * other.weights[place].conjugate()
                found[row][column] += ahead * product + back * product.conjugate()
    return found


def _field_ohm(gap, slip):
    """Return magnetizing branch, iron and double cage side by side at a slip [ohm]."""
    inner = slip / complex(gap.ri, slip * gap.xi)
    outer = slip / complex(gap.ro, slip * gap.xo)
    rotor = (inner + outer) / (1 + 1j * gap.xc * (inner + outer))
    return 1 / (1 / (1j * gap.xm) + 1 / gap.rfe + rotor)


def printed(text):
    """Return the figures of the print commands, in their order."""
    return [float(value) for value in re.findall(r"mag\(.*?\)\s*=\s*([-+.\deE]+)", text)]


def start_netlist(circuit, *, line_v, fault_a, inertia, load_nm, rated_rad_s, until_s, step_s):
    """Return a netlist of a start at full voltage: the machine in stator coordinates.

    ``circuit`` is one phase in wye; the load goes with the square of the speed.
    """
    w = 2 * pi * circuit.hz
    peak = line_v / sqrt(3) * sqrt(2)
    behind = line_v / sqrt(3) / fault_a
    part = behind / sqrt(1 + 25)
    pairs = circuit.pole_pairs
    lines = [
        "start at full voltage",
        f"Cw w 0 {inertia:.12g} ic=0",
        "Rw w 0 1e9",
        f"Bt 0 w I={1.5 * pairs:.12g}*(v(fa)*i(Vsb)-v(fb)*i(Vsa))",
        f"Bl w 0 I={load_nm / rated_rad_s**2:.12g}*v(w)*abs(v(w))",
    ]
    for axis, phase in (("a", 90), ("b", 0)):
        other, sign = ("b", -1) if axis == "a" else ("a", 1)
        lm = circuit.xm / w
        lines += [
            # cosine, and sine a quarter later
            f"Vp{axis} p{axis} 0 sin(0 {peak:.12g} {circuit.hz} 0 0 {phase})",
            f"Vs{axis} p{axis} q{axis} 0",
            f"Rs{axis} q{axis} r{axis} {circuit.r1 + part:.12g}",
            f"Ls{axis} r{axis} g{axis} {(circuit.x1 + 5 * part) / w:.12g} ic=0",
            f"Rf{axis} g{axis} 0 {circuit.rfe:.12g}",
            f"Vm{axis} g{axis} h{axis} 0",
            f"Lm{axis} h{axis} 0 {lm:.12g} ic=0",
            f"Vr{axis} g{axis} k{axis} 0",
            f"Lc{axis} k{axis} n{axis} {circuit.xc / w:.12g} ic=0",
            f"Vi{axis} n{axis} u{axis} 0",
            f"Ri{axis} u{axis} x{axis} {circuit.ri:.12g}",
            f"Li{axis} x{axis} y{axis} {circuit.xi / w:.12g} ic=0",
            f"Vo{axis} n{axis} z{axis} 0",
            f"Ro{axis} z{axis} t{axis} {circuit.ro:.12g}",
        ]
        # flux of a cage, of this axis; currents run from the gap into the rotor
        common = f"{lm:.12g}*i(Vm{other})-{circuit.xc / w:.12g}*i(Vr{other})"
        inner = f"({common}-{circuit.xi / w:.12g}*i(Vi{other}))"
        turning = f"{sign * pairs}*v(w)"
        lines += [
            f"Bi{axis} y{axis} 0 V={turning}*{inner}",
            f"Bo{axis} t{axis} 0 V={turning}*({common})",
            # flux across the gap, for the torque
            f"Bf{axis} f{axis} 0 V={lm:.12g}*i(Vm{axis})",
        ]
    lines += [
        ".control",
        f"tran {step_s:.6g} {until_s:.6g} 0 {step_s:.6g} uic",
        f"meas tran t80 when v(w)={0.8 * 2 * pi * circuit.hz / pairs:.12g} rise=1",
        f"meas tran t95 when v(w)={0.95 * 2 * pi * circuit.hz / pairs:.12g} rise=1",
        f"meas tran wend find v(w) at={until_s * 0.999:.6g}",
        "meas tran ipk max i(Vsa)",
        ".endc",
        ".end",
    ]
    return "\n".join(lines) + "\n"


def measured(text):
    """Return the figures of the meas commands by name."""
    found = re.findall(r"^(t80|t95|wend|ipk)\s*=\s*([-+.\deE]+)", text, re.MULTILINE)
    return {name: float(value) for name, value in found}


__all__ = ["LINES", "SIMULATOR", "measured", "printed", "run", "start_netlist", "static_netlist"]
