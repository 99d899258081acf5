"""The programmable relay's program: read, checked, run, drawn as rungs, written to files.

Knows nothing of netlists: levels of inputs are handed in, contacts of outputs are handed out.
"""

from evencoil.logic.advice import Advice, advice_of, compared_ways, edge_inputs
from evencoil.logic.blocks import BLOCKS, BlockType
from evencoil.logic.compare import ComparedLine, compared
from evencoil.logic.io_list import IO_HEADING, IoLine, io_list, read_io_list
from evencoil.logic.live import LiveNetwork, LiveProgram
from evencoil.logic.machine import Fault, Machine
from evencoil.logic.meaning import (
    Checked,
    check_program,
    looked_through,
    read_program,
    wrong_in,
)
from evencoil.logic.model import Program
from evencoil.logic.names import Points, Symbol
from evencoil.logic.naming import with_names
from evencoil.logic.reader import body_text
from evencoil.logic.refusal import LogicError
from evencoil.logic.relay import Relay, RelayTimes
from evencoil.logic.reset_step import with_reset_step
from evencoil.logic.rungs import Rung, form_of_rungs, rungs_of, rungs_text
from evencoil.logic.shelf import ShelvedProgram, checked_programs
from evencoil.logic.tokens import MOST_CHARACTERS
from evencoil.logic.writer import declarations_text, expression_text, program_text, statement_text
from evencoil.logic.xml_read import read_xml
from evencoil.logic.xml_write import XmlForm, write_xml

__all__ = [
    "BLOCKS",
    "IO_HEADING",
    "MOST_CHARACTERS",
    "Advice",
    "BlockType",
    "Checked",
    "ComparedLine",
    "Fault",
    "IoLine",
    "LiveNetwork",
    "LiveProgram",
    "LogicError",
    "Machine",
    "Points",
    "Program",
    "Relay",
    "RelayTimes",
    "Rung",
    "ShelvedProgram",
    "Symbol",
    "XmlForm",
    "advice_of",
    "body_text",
    "check_program",
    "checked_programs",
    "compared",
    "compared_ways",
    "declarations_text",
    "edge_inputs",
    "expression_text",
    "form_of_rungs",
    "io_list",
    "looked_through",
    "program_text",
    "read_io_list",
    "read_program",
    "read_xml",
    "rungs_of",
    "rungs_text",
    "statement_text",
    "with_names",
    "with_reset_step",
    "write_xml",
    "wrong_in",
]
