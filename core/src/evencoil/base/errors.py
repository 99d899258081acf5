"""What a user can correct: each error says what, where, how far off, what next.

`CoreError` is for mistakes in what was given. A bug stays a built-in
exception. The server turns each of these, unchanged, into one problem shape:
``code, detail, field, hint``.
"""

from __future__ import annotations

from evencoil.base.words import Message, say

__all__ = [
    "AmbiguousError",
    "CoreError",
    "FileFormatError",
    "MissingError",
    "NewerSchemaError",
    "NotInTableError",
    "OutOfRangeError",
    "RefusedError",
]


class CoreError(Exception):
    """Something given is wrong, and the one who gave it can correct it."""

    code = "core_error"

    def __init__(self, message: Message, *, field: str, hint: Message) -> None:
        """Keep the sentence, the field it is about, and the next step."""
        super().__init__(say(message))
        self.message = message
        self.field = field
        self.hint = hint

    def problem(self) -> dict[str, str]:
        """Return the one shape that every refusal has."""
        return {
            "code": self.code,
            "detail": say(self.message),
            "field": self.field,
            "hint": say(self.hint),
        }


class OutOfRangeError(CoreError, ValueError):
    """A figure lies outside what can be."""

    code = "out_of_range"


class AmbiguousError(CoreError, ValueError):
    """A figure can be read in two ways; only the one who typed it knows."""

    code = "ambiguous"


class NotInTableError(CoreError, LookupError):
    """A code table has no row, or an empty cell, for what was asked."""

    code = "not_in_table"


class MissingError(CoreError, ValueError):
    """A fact is missing without which the figure cannot be calculated."""

    code = "missing"


class RefusedError(CoreError, ValueError):
    """What is asked would be wrong: the facts given do not go together."""

    code = "refused"


class FileFormatError(CoreError, ValueError):
    """A file is not what it says it is; nothing of it was taken over."""

    code = "file_format"


class NewerSchemaError(FileFormatError):
    """A file was written by a newer Even Coil than this one."""

    code = "newer_schema"
