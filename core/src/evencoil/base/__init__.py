"""What every room is made of: numbers and sizes, evidence, errors, fields of inputs, sentences.

Knows nothing of motors or of the code book.
"""

from evencoil.base.errors import (
    CoreError,
    FileFormatError,
    MissingError,
    NewerSchemaError,
    NotInTableError,
    OutOfRangeError,
    RefusedError,
)
from evencoil.base.evidence import (
    Cell,
    Finding,
    Level,
    Mark,
    Rule,
    Step,
    Tip,
    Trail,
    Verdict,
    finding,
    finding_of,
    with_unit,
)
from evencoil.base.fields import DecimalText, Inputs, Insulation, ShortText
from evencoil.base.figure import Figure, Refusal, figure, wait_for
from evencoil.base.quantities import ROOT3, ConductorSize, exact, number, plain, show
from evencoil.base.text import HugeText, LongText, MotorTag, Text
from evencoil.base.version import __version__
from evencoil.base.words import Message, counted, say

__all__ = [
    "ROOT3",
    "Cell",
    "ConductorSize",
    "CoreError",
    "DecimalText",
    "Figure",
    "FileFormatError",
    "Finding",
    "HugeText",
    "Inputs",
    "Insulation",
    "Level",
    "LongText",
    "Mark",
    "Message",
    "MissingError",
    "MotorTag",
    "NewerSchemaError",
    "NotInTableError",
    "OutOfRangeError",
    "Refusal",
    "RefusedError",
    "Rule",
    "ShortText",
    "Step",
    "Text",
    "Tip",
    "Trail",
    "Verdict",
    "__version__",
    "counted",
    "exact",
    "figure",
    "finding",
    "finding_of",
    "number",
    "plain",
    "say",
    "show",
    "wait_for",
    "with_unit",
]
