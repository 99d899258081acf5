"""Writing a program as PLCopen XML, as text or as a ladder.

Source: PLCopen Technical Committee 6, XML schema 2.01.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, Literal
from xml.etree import ElementTree as ET

from evencoil.logic.blocks import BLOCKS
from evencoil.logic.meaning import Checked
from evencoil.logic.model import Declared, VariableBlock
from evencoil.logic.refusal import LogicError
from evencoil.logic.rungs import plain_rungs_of
from evencoil.logic.writer import statement_text
from evencoil.logic.xml_read import COMPARE_BLOCKS, NAMESPACE, XHTML

__all__ = ["XmlForm", "write_xml"]

XmlForm = Literal["ST", "LD"]
_SECTIONS = {"VAR": "localVars", "VAR_INPUT": "inputVars", "VAR_OUTPUT": "outputVars"}
_COMPARES = {operator: name for name, operator in COMPARE_BLOCKS.items()}
_STEP = 100

#: id and output pin of what comes before
_Source = tuple[str, str]


def write_xml(
    checked: Checked, form: XmlForm, body: str = "", made_at: str = "1970-01-01T00:00:00"
) -> bytes:
    """Return a program as a file.

    Parameters
    ----------
    checked : Checked
        A program of which nothing is wrong.
    form : str
        ``ST`` or ``LD``.
    body : str
        The text of its statements as it stands, comments included; empty for the usual form.
    made_at : str
        Date and time of the file.

    Raises
    ------
    LogicError
        If a network has no contact form and a ladder is asked for.
    """
    program = checked.program
    project = ET.Element("project", {"xmlns": NAMESPACE, "xmlns:xhtml": XHTML})
    ET.SubElement(
        project,
        "fileHeader",
        {
            "companyName": "Even Coil",
            "productName": "Even Coil",
            "productVersion": "1",
            "creationDateTime": made_at,
        },
    )
    header = ET.SubElement(project, "contentHeader", {"name": program.name})
    looks = ET.SubElement(header, "coordinateInfo")
    for name in ("fbd", "ld", "sfc"):
        ET.SubElement(ET.SubElement(looks, name), "scaling", {"x": "1", "y": "1"})
    types = ET.SubElement(project, "types")
    ET.SubElement(types, "dataTypes")
    pous = ET.SubElement(types, "pous")
    pou = ET.SubElement(pous, "pou", {"name": program.name, "pouType": "program"})
    interface = ET.SubElement(pou, "interface")
    for block in program.blocks:
        _section(interface, block)
    inside = ET.SubElement(ET.SubElement(pou, "body"), form)
    if form == "ST":
        told = body or "\n".join(statement_text(one) for one in program.statements)
        ET.SubElement(inside, "xhtml:p").text = told
    else:
        _Drawing(inside, checked).draw()
    ET.SubElement(ET.SubElement(project, "instances"), "configurations")
    if form == "LD":
        ET.indent(project)
    text: bytes = ET.tostring(project, encoding="utf-8", xml_declaration=True)
    return text + b"\n"


def _section(interface: ET.Element, block: VariableBlock) -> None:
    given = {
        "": {},
        "RETAIN": {"retain": "true"},
        "NON_RETAIN": {"nonretain": "true"},
        "CONSTANT": {"constant": "true"},
    }[block.qualifier]
    section = ET.SubElement(interface, _SECTIONS[block.word], given)
    for one in block.declared:
        _variable(section, one)


def _variable(section: ET.Element, one: Declared) -> None:
    given = {"name": one.name, **({"address": one.address} if one.address else {})}
    variable = ET.SubElement(section, "variable", given)
    kind = ET.SubElement(variable, "type")
    if one.type in BLOCKS:
        ET.SubElement(kind, "derived", {"name": one.type})
    else:
        ET.SubElement(kind, one.type)
    if one.initial is not None:
        value = ET.SubElement(variable, "initialValue")
        ET.SubElement(value, "simpleValue", {"value": one.initial.text})


class _Drawing:
    """A ladder being written: every element has the next id."""

    def __init__(self, body: ET.Element, checked: Checked) -> None:
        self.body, self.checked = body, checked
        self.number = 0
        self.row = 0

    def draw(self) -> None:
        rail = self.element("leftPowerRail", {})
        ET.SubElement(rail, "connectionPointOut", {"formalParameter": ""})
        self.rail: _Source = (rail.attrib["localId"], "")
        ends: list[_Source] = []
        rungs = plain_rungs_of(self.checked)
        for statement, rung in zip(self.checked.program.statements, rungs, strict=True):
            if rung is None:
                raise LogicError(
                    "unsupported",
                    statement.place,
                    expected="contacts and a coil",
                    found=statement_text(statement).partition("\n")[0][:80],
                )
            self.row += 1
            ends += self.rung(rung)
        right = self.element("rightPowerRail", {})
        if ends:
            self.wired(right, ends)

    def element(self, name: str, given: Mapping[str, str]) -> ET.Element:
        self.number += 1
        one = ET.SubElement(self.body, name, {"localId": str(self.number), **given})
        x, y = str(_STEP * (self.number % 10)), str(_STEP * self.row)
        ET.SubElement(one, "position", {"x": x, "y": y})
        return one

    def wired(self, one: ET.Element, sources: Sequence[_Source]) -> None:
        into = ET.SubElement(one, "connectionPointIn")
        for known, pin in sources:
            given = {"refLocalId": known, **({"formalParameter": pin} if pin else {})}
            ET.SubElement(into, "connection", given)

    def rung(self, rung: Mapping[str, Any]) -> list[_Source]:
        when = rung["when"]
        sources = [self.rail] if "always" in when else self.when(when, [self.rail])
        if "call" in rung:
            self.block(rung, sources)
            return []
        storage = next((name for name in ("set", "reset") if name in rung), "")
        given = {"negated": "true"} if "negated" in rung else {}
        coil = self.element("coil", {**given, **({"storage": storage} if storage else {})})
        self.wired(coil, sources)
        ET.SubElement(coil, "connectionPointOut")
        word = next(name for name in ("coil", "negated", "set", "reset") if name in rung)
        ET.SubElement(coil, "variable").text = str(rung[word])
        return [(coil.attrib["localId"], "")]

    def when(self, when: Mapping[str, Any], sources: Sequence[_Source]) -> list[_Source]:
        """Draw contacts behind some sources, and return where power comes out."""
        if "series" in when:
            out = list(sources)
            for part in when["series"]:
                out = self.when(part, out)
            return out
        if "parallel" in when:
            return [end for part in when["parallel"] for end in self.when(part, sources)]
        if "cmp" in when:
            return self.compare(when["cmp"], sources)
        name = "TRUE" if "always" in when else str(when.get("no") or when.get("nc"))
        contact = self.element("contact", {"negated": "true"} if "nc" in when else {})
        self.wired(contact, sources)
        ET.SubElement(contact, "connectionPointOut")
        ET.SubElement(contact, "variable").text = name
        return [(contact.attrib["localId"], "")]

    def compare(self, told: Sequence[str], sources: Sequence[_Source]) -> list[_Source]:
        operator, left, right = told
        values = [self.value(left), self.value(right)]
        block = self.element("block", {"typeName": _COMPARES[operator]})
        inputs = ET.SubElement(block, "inputVariables")
        for name, pins in (("EN", sources), ("IN1", values[:1]), ("IN2", values[1:])):
            self.wired(ET.SubElement(inputs, "variable", {"formalParameter": name}), pins)
        ET.SubElement(block, "inOutVariables")
        self.outputs(block, ("OUT",))
        return [(block.attrib["localId"], "OUT")]

    def value(self, told: str) -> _Source:
        one = self.element("inVariable", {})
        ET.SubElement(one, "connectionPointOut")
        ET.SubElement(one, "expression").text = told
        return one.attrib["localId"], ""

    def block(self, rung: Mapping[str, Any], sources: Sequence[_Source]) -> None:
        kind = self.checked.symbol(rung["call"]).type
        given = {name: self.value(told) for name, told in rung.get("with", {}).items()}
        block = self.element("block", {"typeName": kind, "instanceName": str(rung["call"])})
        inputs = ET.SubElement(block, "inputVariables")
        for name in BLOCKS[kind].inputs:
            if name == rung["input"]:
                pins: Sequence[_Source] = sources
            elif name in given:
                pins = [given[name]]
            else:
                continue
            self.wired(ET.SubElement(inputs, "variable", {"formalParameter": name}), pins)
        ET.SubElement(block, "inOutVariables")
        self.outputs(block, tuple(BLOCKS[kind].outputs))

    def outputs(self, block: ET.Element, names: Sequence[str]) -> None:
        outputs = ET.SubElement(block, "outputVariables")
        for name in names:
            pin = ET.SubElement(outputs, "variable", {"formalParameter": name})
            ET.SubElement(pin, "connectionPointOut")
