"""Why a program, an I/O list or a file is refused: code, line, column, expected, found.

Lines and columns count from 1, in characters, at the token that is wrong.
"""

from __future__ import annotations

from evencoil.base import CoreError, Message

__all__ = ["LogicError", "Place"]

#: (line, column), both from 1
Place = tuple[int, int]


class LogicError(CoreError, ValueError):
    """A program that is not taken: what is wrong at which place.

    Attributes
    ----------
    code : str
        As docs/logic.md lists them: ``syntax``, ``type``, ``xml-element`` ...
    line, column : int
        From 1; a file of elements has a line only, its column is 1.
    expected, found : str
        Empty where there is nothing to say.
    """

    def __init__(self, code: str, place: Place, *, expected: str = "", found: str = "") -> None:
        """Keep the place, and say it."""
        self.code = code
        self.line, self.column = place
        self.expected, self.found = expected, found
        shape = "both" if expected and found else "expected" if expected else "found"
        params = {
            "line": str(self.line),
            "column": str(self.column),
            "expected": expected,
            "found": found or "nothing",
        }
        super().__init__(
            Message(f"logic.{code}.{shape}", params),
            field=f"program.{self.line}.{self.column}",
            hint=Message(f"logic.{code}.hint"),
        )
