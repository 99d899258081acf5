"""What every room is made of: numbers and sizes, evidence, errors, fields of inputs, sentences.

Knows nothing of motors or of the code book.
"""

from evencoil.base.balance import (
    CAUSE_PERCENT,
    DERATE_PERCENT,
    MOST_PERCENT,
    unbalance_of_three,
)
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
from evencoil.base.names import (
    LineNames,
    Names,
    TradeTerms,
    in_trade_terms,
    line_said,
    line_typed,
    names_of,
    speak,
    speaking,
)
from evencoil.base.quantities import LB_FT_PER_NM, ROOT3, ConductorSize, exact, number, plain, show
from evencoil.base.text import HugeText, LongText, MotorTag, Text, clean, no_formula
from evencoil.base.version import __version__
from evencoil.base.words import Message, counted, say

__all__ = [
    "CAUSE_PERCENT",
    "DERATE_PERCENT",
    "LB_FT_PER_NM",
    "MOST_PERCENT",
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
    "LineNames",
    "LongText",
    "Mark",
    "Message",
    "MissingError",
    "MotorTag",
    "Names",
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
    "TradeTerms",
    "Trail",
    "Verdict",
    "__version__",
    "clean",
    "counted",
    "exact",
    "figure",
    "finding",
    "finding_of",
    "in_trade_terms",
    "line_said",
    "line_typed",
    "names_of",
    "no_formula",
    "number",
    "plain",
    "say",
    "show",
    "speak",
    "speaking",
    "unbalance_of_three",
    "wait_for",
    "with_unit",
]
