"""Any file, netlist or line of tracing is read or refused in the one shape: no other end."""

import json
import os
from random import Random

import pytest
from circuit_play import circuit_of
from spoiled import spoiled, spoiled_text

from evencoil.base import CoreError
from evencoil.circuit import read_netlist, read_trace, write_netlist
from evencoil.job import JobInputs, load, upcast_step, work_out
from evencoil.job.file import SCHEMA, STEPS

#: `EVENCOIL_FUZZ=10` looks ten times as long
TIMES = int(os.environ.get("EVENCOIL_FUZZ", "1"))
JOB = {
    "format": "even-coil-job",
    "schema": SCHEMA,
    "job_id": "7b4b9a0e-0f0a-4a55-8a53-2f4f3d1f0a11",
    "motor": {
        "id": "c0c4a6c4-19a5-4a3f-9a5e-51a3dbf7f5a2",
        "motor_tag": "IC-2",
        "name": "inclined conveyor",
        "machine": "Lime Line 1",
    },
    "kind": "new",
    "plate": {"text": "15 HP 460 V 19.3 A 1765 RPM 60 HZ 3 PH 9 LEADS", "assumed": []},
    "supply": {"text": "480Y/277"},
    "leads": {"direction": "forward"},
    "size": {"conductor_material": "cu", "ambient_c": "35"},
    "starter": {
        "standard_circuit": "6C",
        "options": {},
        "edits": [
            {"id": "d1", "kind": "add_device", "type": "relay", "tag": "KA9"},
            {"id": "w1", "kind": "add_wire", "start": "d1.A1", "end": "control_fuse.2"},
        ],
    },
}


def test_the_file_that_is_spoiled_below_is_one():
    """Otherwise nothing is tried."""
    job = load(json.dumps(JOB).encode())
    assert job.starter.standard_circuit == "6C"
    assert len(job.starter.edits) == 2


def refused_or(read):
    """Return what is read, or None where it is refused with words."""
    try:
        return read()
    except CoreError as refused:
        assert str(refused)
        assert {"code", "detail", "field", "hint"} <= set(refused.problem())
        return None


@pytest.mark.many
@pytest.mark.parametrize("seed", range(3))
def test_any_job_file_is_read_or_refused(seed):
    """Places of a whole file spoiled, and its text spoiled: some are read, and then calculated."""
    random = Random(seed)
    read = 0
    for _ in range(700 * TIMES):
        text = json.dumps(spoiled(random, JOB), ensure_ascii=False)
        if random.random() < 0.4:
            text = spoiled_text(random, text)
        data = text.encode("utf-8", "surrogatepass")
        job = refused_or(lambda data=data: load(data))
        if job is not None:
            read += 1
            if not read % 5:
                inputs = JobInputs(**{step: getattr(job, step) for step in STEPS})
                refused_or(lambda inputs=inputs: work_out(inputs))
    assert read > 20


@pytest.mark.many
def test_any_stored_step_is_brought_to_todays_names_or_is_told():
    """Steps of every older schema, spoiled: what is no step fails in a way that is met."""
    random = Random(11)
    met = (CoreError, ArithmeticError, AttributeError, LookupError, TypeError, ValueError)
    for _ in range(2000 * TIMES):
        step = random.choice(STEPS)
        body = spoiled(random, {step: JOB.get(step, {})})
        try:
            upcast_step(step, body[step], random.randint(1, SCHEMA))
        except met:
            continue


@pytest.mark.many
@pytest.mark.parametrize("name", ["3A", "7A", "14C"])
def test_any_netlist_text_is_read_or_refused(name):
    """Lines and signs of a circuit's own netlist file spoiled."""
    random = Random(name)
    text = write_netlist(circuit_of(name))
    read = sum(
        refused_or(lambda: read_netlist(spoiled_text(random, text))) is not None
        for _ in range(500 * TIMES)
    )
    assert 0 < read < 500 * TIMES


def test_any_line_of_tracing_is_read_or_refused():
    """A line that calls out wires, spoiled."""
    random = Random(5)
    circuit = circuit_of("3A")
    lines = ("PS1 14 - M A1 - 95", "4 : PS1 13 - M 13", "FU1 2 - XF1 H1")
    for _ in range(1500 * TIMES):
        refused_or(lambda: read_trace(circuit, spoiled_text(random, random.choice(lines))))
