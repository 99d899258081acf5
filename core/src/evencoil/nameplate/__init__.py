"""The nameplate: read as stamped, then held against itself.

`read` never raises for what a plate may say; it marks each piece of the text
as understood, doubted or unread. Only text that is no plate at all (control
characters, ten megabytes) is refused with a `CoreError`.
"""

from evencoil.nameplate.model import Assumed, Band, Nameplate, PlateReading, Token
from evencoil.nameplate.reader import MAX_LENGTH, read

__all__ = ["MAX_LENGTH", "Assumed", "Band", "Nameplate", "PlateReading", "Token", "read"]
