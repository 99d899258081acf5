"""The one kind of text that is let in: NFC, no control characters, bounded.

A NUL or a lone surrogate passes JSON and type checks and then breaks the
database or the page; so every string of every model is one of these types.
"""

from __future__ import annotations

import unicodedata
from typing import Annotated

from pydantic import AfterValidator, StringConstraints

__all__ = ["HugeText", "LongText", "MotorTag", "Text", "clean"]


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


Text = Annotated[str, StringConstraints(max_length=200), AfterValidator(clean)]
HugeText = Annotated[str, StringConstraints(max_length=400_000), AfterValidator(clean)]
LongText = Annotated[str, StringConstraints(max_length=4000), AfterValidator(clean)]
MotorTag = Annotated[
    str,
    StringConstraints(pattern=r"^[\w][\w .\-]{0,39}$"),
    AfterValidator(clean),
]
