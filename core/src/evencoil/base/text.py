"""The one kind of text that is let in: NFC, no control characters, bounded.

A NUL or a lone surrogate passes JSON and type checks and then breaks the
database or the page; so every string of every model is one of these types.
"""

from __future__ import annotations

import re
import unicodedata
from typing import Annotated

from pydantic import AfterValidator, StringConstraints

__all__ = ["HugeText", "LongText", "MotorTag", "Text", "clean", "no_formula"]


def clean(text: str) -> str:
    """Return a text in NFC.

    Raises
    ------
    ValueError
        If it holds a control character other than tab and line ends, a lone
        surrogate, or a code point that is no character. The message names it.
    """
    for place, sign in enumerate(text):
        if unicodedata.category(sign) in {"Cc", "Cs", "Cn"} and sign not in "\n\r\t":
            raise ValueError(
                f"Character {place + 1} is U+{ord(sign):04X}, which no keyboard types."
                " Take it out and try again."
            )
    return unicodedata.normalize("NFC", text)


def no_formula(cell: str) -> str:
    """Return a cell of a table that no spreadsheet takes for a formula.

    Parameters
    ----------
    cell : str
        As written.
    """
    bare = cell.strip()
    is_formula = bare[:1] in {"=", "+", "@", "-"} and len(bare) > 1
    # a tab or a line end in front makes some programs take the rest for one
    return f"'{cell}" if is_formula or cell[:1] in {"\t", "\r", "\n"} else cell


def _at_most(most: int) -> AfterValidator:
    """Return a check of the length in normal form, which may be longer than what was typed."""

    def check(text: str) -> str:
        if len(text) > most:
            raise ValueError(
                f"This is {len(text)} characters long in normal form; {most} is the most."
            )
        return text

    return AfterValidator(check)


def _is_tag(text: str) -> str:
    if not _TAG.fullmatch(text):
        raise ValueError(
            "A tag is 1 to 40 letters, digits, spaces, dots or hyphens and begins with a letter"
            " or digit."
        )
    return text


_TAG = re.compile(r"\w[\w .\-]{0,39}")
Text = Annotated[str, StringConstraints(max_length=200), AfterValidator(clean), _at_most(200)]
HugeText = Annotated[
    str, StringConstraints(max_length=400_000), AfterValidator(clean), _at_most(400_000)
]
LongText = Annotated[str, StringConstraints(max_length=4000), AfterValidator(clean), _at_most(4000)]
MotorTag = Annotated[
    str,
    StringConstraints(pattern=r"^[\w][\w .\-]{0,39}$"),
    AfterValidator(clean),
    AfterValidator(_is_tag),
]
