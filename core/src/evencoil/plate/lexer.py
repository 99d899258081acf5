"""Cutting a nameplate's text into number expressions, words and separators.

A number expression keeps its own structure (``208-230/460``,
``220-240 D / 380-415 Y``, ``7-1/2``): what it means is known only when its
field is, because ``1/2`` is half a horsepower but two voltages.
"""

from __future__ import annotations

import re

from evencoil.plate.model import Lexeme

__all__ = ["ATOM", "SAME", "cut"]

_GLYPHS = "½¼¾⅓⅔⅙⅛"
ATOM = (
    rf"(?:[1-9]\d{{0,2}}(?:,\d{{3}})+(?:\.\d+)?(?!\d)|\d+\.\d+|\d+,\d{{1,2}}(?![\d.])|\d+,\d{{4,}}"
    rf"|0,\d+|\.\d+|\d+(?:\s?[{_GLYPHS}])?|[{_GLYPHS}])"
)
_SIGN = r"(?:\s*(?:ΔΔ|Δ|DD|D|YY|Y)(?![A-Za-z])(?!\s*/\s*[ΔDY]+(?![A-Za-z\d])))?"
_UNIT_INSIDE = (
    r"(?:\s?(?:VOLTS|VOLT|V|AMPS|AMP|A|HZ|RPM|KW|HP)"
    r"(?=\s*(?:(?:ΔΔ|Δ|DD|D|YY|Y)\s*/\s*\d|/\s*[ΔDY]*\s*\d)))?"
)
_LED = rf"(?:ΔΔ|Δ|DD|D|YY|Y)\s*{ATOM}(?:\s*[–-]\s*{ATOM})?{_UNIT_INSIDE}"
_PATTERN = re.compile(
    rf"(?P<number>(?<![A-Za-z\d]){_LED}(?:\s*/\s*{_LED})+"
    rf"|(?<![A-Za-z\d])-?{ATOM}{_UNIT_INSIDE}{_SIGN}"
    rf"(?:\s*(?://|[/–-])\s*{ATOM}{_UNIT_INSIDE}{_SIGN})*|{ATOM})"
    r"|(?P<signs>(?<![A-Za-z])(?:ΔΔ|Δ|DD|D|YY|Y)\s*/\s*(?:ΔΔ|Δ|DD|D|YY|Y)(?![A-Za-z]))"
    r"|(?P<separator>[,;|\n\r]+)"
    r"|(?P<word>[^\W\d_]+(?:\.[^\W\d_]+)*\.?)"
    r"|(?P<glue>\s+|.)",
    re.IGNORECASE | re.DOTALL,
)
SAME = str.maketrans({"△": "Δ", "∆": "Δ", "⅄": "Y", "λ": "Y", "Ø": "φ", "ø": "φ", "Φ": "φ"})

#: signs and spellings that stand for a word; each is padded to its own length
_SPELT = (
    (
        re.compile(
            r"(?<=[\d\s])(?:min\s?-1|min⁻¹|(?<!\d)1/min|r/min|rev/min|/\s?min(?!\s*-))"
            r"(?![A-Za-z\d])",
            re.IGNORECASE,
        ),
        "RPM",
    ),
    (re.compile(r"(?<![A-Za-z\d])([13])~"), r"\1φ"),
    (re.compile(r"(?<![A-Za-z\d])\d/(?:PHASE|PH)(?![A-Za-z])", re.IGNORECASE), "ONLY"),
    (re.compile(r"(?<=\d)\s*DELTA(?=\s*(?:[/,;]|V|$|\d))", re.IGNORECASE), " D"),
    (re.compile(r"(?<=\d)\s*(?:STAR|WYE)(?=\s*(?:[/,;]|V|$|\d))", re.IGNORECASE), " Y"),
)


def _plain_words(text: str) -> str:
    """Return a text of the same length with signs spelt as the words they stand for."""
    for pattern, word in _SPELT:
        for hit in pattern.finditer(text):
            said = hit.expand(word).ljust(len(hit[0]))
            text = f"{text[: hit.start()]}{said}{text[hit.end() :]}"
    return text


def cut(text: str) -> list[Lexeme]:
    """Cut a text into lexemes that cover it without a gap.

    Parameters
    ----------
    text : str
        The nameplate as typed; any characters.

    Returns
    -------
    list of Lexeme
        In order; white space and signs such as ``=`` and ``°`` are glue. A
        separator only counts where the text has one: two fields may also stand
        side by side with nothing but a space between.
    """
    same = _plain_words(text.translate(SAME))
    found: list[Lexeme] = []
    for match in _PATTERN.finditer(same):
        kind = match.lastgroup
        if kind == "number":
            found.append(Lexeme("number", match.group(), match.start(), match.end()))
        elif kind == "word":
            word = match.group().replace(".", "").upper()
            found.append(Lexeme("word", word, match.start(), match.end()))
        elif kind == "signs":
            found.append(Lexeme("signs", match.group().upper(), match.start(), match.end()))
        elif kind == "separator":
            found.append(Lexeme("separator", match.group(), match.start(), match.end()))
        else:
            found.append(Lexeme("glue", match.group(), match.start(), match.end()))
    return found
