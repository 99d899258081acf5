"""A netlist as one text file: written from a circuit, read back to the same.

Three parts, each under its name in brackets: ``[devices]``, one device a line as
``TAG ROLE TYPE name=value``; ``[wires]``, as ``number: A.1 - B.2 ; B.2 - C.3``;
``[never together]``, pairs of contactors. A programmable relay's program stands last, under
``[program TAG]``, as it is.
"""

from __future__ import annotations

from evencoil.base import FileFormatError, Message
from evencoil.circuit.text import Circuit, read_circuit

__all__ = ["read_netlist", "write_netlist"]

_PARTS = ("devices", "wires", "never together")
_MOST_SIGNS = 600_000


def write_netlist(circuit: Circuit) -> str:
    """Return a circuit as text.

    Parameters
    ----------
    circuit : Circuit
        Devices of the library only; joints of a terminal box are written as terminal blocks.
    """
    lines = ["# Even Coil netlist", "[devices]"]
    renamed: dict[str, str] = {}
    for item in circuit.netlist.devices:
        tag = circuit.tags.get(item.id, item.id).replace(" ", "_")
        given = " ".join(
            f"{name}={value.replace(' ', '_')}"
            for name, value in item.parameters.items()
            if value and name != "program"
        )
        kind = item.type
        if kind == "joint":
            kind, given = "tb", f"n={len(item.terminals)}"
            for place, end in enumerate(item.terminals, start=1):
                renamed[f"{item.id}.{end}"] = f"{item.id}.{place}"
        lines.append(" ".join(filter(None, (tag, item.id, kind, given))))
    lines.append("[wires]")
    for wire in circuit.netlist.wires:
        ends = [renamed.get(end, end) for end in (wire.start, wire.end)]
        number = circuit.numbers.get(wire.id, "")
        lines.append(f"{number}: {ends[0]} - {ends[1]}" if number else " - ".join(ends))
    if circuit.never_together:
        lines.append("[never together]")
        lines += [" + ".join(sorted(pair)) for pair in circuit.never_together]
    for item in circuit.netlist.devices:
        if item.parameters.get("program"):
            tag = circuit.tags.get(item.id, item.id).replace(" ", "_")
            # a text may end without a break, and may hold lines that look like a part
            told = item.parameters["program"].splitlines()
            lines += [f"[program {tag}]", *(f"|{line}" for line in told)]
    return "\n".join(lines) + "\n"


def read_netlist(text: str) -> Circuit:
    """Return the circuit of a netlist file.

    Parameters
    ----------
    text : str
        As `write_netlist` makes it, or typed by hand.

    Raises
    ------
    CoreError
        Naming the part and the line of what is wrong; nothing is taken over.
    """
    if len(text) > _MOST_SIGNS:
        raise FileFormatError(
            Message("netlist.too_long", {"signs": str(len(text)), "most": str(_MOST_SIGNS)}),
            field="netlist",
            hint=Message("netlist.too_many.hint"),
        )
    parts: dict[str, list[str]] = {name: [] for name in _PARTS}
    programs: dict[str, list[str]] = {}
    where = ""
    for number, line in enumerate(text.splitlines(), start=1):
        if programs and line.startswith("|"):
            next(reversed(programs.values())).append(line[1:])
            continue
        bare = line.split("#", maxsplit=1)[0].strip()
        if bare.lower().startswith("[program "):
            programs[bare.strip("[] ").partition(" ")[2].strip()] = []
            where = "never together"
            continue
        if bare.startswith("["):
            where = bare.strip("[] ").lower()
            if where not in parts:
                raise FileFormatError(
                    Message("netlist.part", {"line": str(number), "part": bare[:40]}),
                    field=f"netlist.{number}",
                    hint=Message("netlist.part.hint"),
                )
            continue
        if bare and not where:
            raise FileFormatError(
                Message("netlist.no_part", {"line": str(number)}),
                field=f"netlist.{number}",
                hint=Message("netlist.part.hint"),
            )
        # empty lines stand for the others, so that an error names the line of the file
        for name, lines in parts.items():
            lines.extend([""] * (number - 1 - len(lines)))
            lines.append(bare if name == where else "")
    return read_circuit(
        "\n".join(parts["devices"]),
        "",
        "\n".join(line if ":" in line or not line else f":{line}" for line in parts["wires"]),
        ",".join(line for line in parts["never together"] if line),
        {tag: "".join(f"{line}\n" for line in lines) for tag, lines in programs.items()},
    )
