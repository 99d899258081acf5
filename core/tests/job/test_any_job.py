"""Any job that is let in is worked out, drawn and listed, or refused in the one shape."""

import os
from decimal import Decimal
from random import Random

import pytest
from any_job import any_job

from evencoil.base import CoreError, Message, say
from evencoil.job import JobInputs, work_out

#: `EVENCOIL_FUZZ=10` looks ten times as long
TIMES = int(os.environ.get("EVENCOIL_FUZZ", "1"))


def all_of(job):
    """Work a job out and ask for everything that a screen or a page asks for."""
    worked = work_out(job)
    for figure in worked.figures:
        if figure.refusal is not None:
            assert figure.refusal.detail
            assert figure.refusal.hint
    starter = worked.starter
    for found in (*starter.findings, *worked.reading.findings, *worked.supply_checks):
        assert say(found.message)
    if starter.circuit is not None:
        for listed in ("rows", "material", "power", "panel", "board", "strip", "changes"):
            getattr(starter, listed)()
    return worked


@pytest.mark.many
@pytest.mark.parametrize("seed", range(4))
def test_any_job_is_worked_out_or_refused(seed):
    """No other end is possible, whatever was entered together."""
    random = Random(seed)
    tried = 0
    for _ in range(220 * TIMES):
        job = any_job(random)
        if job is None:
            continue
        try:
            all_of(job)
        except CoreError as refused:
            assert str(refused)
        tried += 1
    assert tried > 60 * TIMES


def job(**steps):
    """Return a job of a usual motor with some steps entered."""
    return JobInputs.model_validate(
        {
            "plate": {"text": "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 3 LEADS"},
            "supply": {"text": "480Y/277"},
            "starter": {"standard_circuit": "3A"},
            **steps,
        }
    )


@pytest.mark.parametrize(
    "control",
    [
        {"volts_v": "120"},
        {"lamps_va": "7.5"},
        {"volts_v": "24", "lamps_va": "5", "transformer_va": "50"},
        {"primary_v": "480", "protection": "primary_only"},
    ],
)
def test_control_power_without_coils_stands_beside_a_drawn_starter(control):
    """The drawing tells the coils, the person the rest: 120 V typed is a number, not a text."""
    worked = all_of(job(size={"control": control}))

    assert worked.trail.number("control_volts_v") == Decimal(control.get("volts_v", "120"))
    assert "coils" in worked.trail


def test_a_transformer_beyond_every_fuse_is_refused_by_name():
    """9,999 VA at 0.01 V would be a million amps."""
    worked = all_of(job(size={"control": {"volts_v": "0.01", "transformer_va": "9999"}}))
    refused = next(one.refusal for one in worked.figures if one.id == "secondary_fuse_a")

    assert "No standard fuse is as large" in refused.detail


def test_more_coils_than_the_form_takes_are_counted_as_drawn():
    """Seventy added relays stand on the drawing; sixty of a kind is what a person may type."""
    edits = [
        {"id": f"d{place}", "kind": "add_device", "type": "relay", "tag": f"KA{place + 10}"}
        for place in range(70)
    ]
    ends = (("control_fuse.2", "A1"), ("control_transformer.X2", "A2"))
    wires = [
        {"id": f"w{place}{end}", "kind": "add_wire", "start": near, "end": f"d{place}.{end}"}
        for place in range(70)
        for near, end in ends
    ]
    worked = all_of(job(starter={"standard_circuit": "3A", "edits": edits + wires}))
    assert "70" in worked.trail["coils"].text


def test_a_message_of_any_text_is_said():
    """Braces and colons of a person's text are text."""
    assert "{x}: y" in say(Message("restart.accepted", {"hazard": "h", "by": "b", "why": "{x}: y"}))
