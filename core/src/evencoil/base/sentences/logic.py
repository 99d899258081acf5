"""Sentences of the programmable relay's program."""

from __future__ import annotations

__all__ = ["SENTENCES"]

_WHERE = "Line {line}, column {column}: "


def _three(code: str, what: str, hint: str) -> dict[str, str]:
    return {
        f"logic.{code}.both": f"{_WHERE}{what}: {{expected}} expected, {{found}} found.",
        f"logic.{code}.expected": f"{_WHERE}{what}: {{expected}} expected.",
        f"logic.{code}.found": f"{_WHERE}{what}: {{found}}.",
        f"logic.{code}.hint": hint,
    }


SENTENCES: dict[str, str] = {
    "logic.compare": "{count} lines; {most} at most are compared.",
    "logic.compare.hint": "Take blank lines out, or compare parts of it.",
    **_three("syntax", "not a program", "Correct the text there; nothing was kept."),
    **_three(
        "unsupported",
        "the relay here does not do this",
        "Write it with IF, CASE, timers and counters, or use another device.",
    ),
    **_three(
        "undeclared", "a name that is not declared", "Declare it, or use the name of a point."
    ),
    **_three("duplicate", "used twice", "Give one of the two another name, or take it out."),
    **_three("type", "the wrong type", "Give it a value of the type expected."),
    **_three("readonly", "this cannot be written", "Write to a variable or an output."),
    **_three("range", "out of range", "Take a value within the range."),
    **_three("divzero", "a division by zero", "Divide by something that is never zero."),
    **_three("limit", "too much", "Take something out, or part it."),
    **_three(
        "xml-doctype",
        "a document type, which is never read",
        "Export it again without a DOCTYPE.",
    ),
    **_three("xml-namespace", "another kind of file", "Export it as PLCopen TC6 2.0 or 2.01."),
    **_three("xml-limit", "a file too large", "Export this program only."),
    **_three("xml-syntax", "not well formed", "Export it again; the file is damaged."),
    **_three("xml-element", "not taken over", "Write it as contacts, coils, blocks or text."),
    **_three("xml-reference", "a wire that leads nowhere", "Draw the network again."),
    **_three("csv", "not an I/O list", "Columns: point, name, terminal, wire, device, text."),
}
