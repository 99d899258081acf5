"""The open job format: identity, versions, and files that are none."""

import json
from decimal import Decimal
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from evencoil.base.errors import FileFormatError, NewerSchemaError
from evencoil.job.file import (
    MAX_BYTES,
    FileMotor,
    JobFile,
    canonical,
    dump,
    fingerprint,
    json_schema,
    load,
    upcast_step,
    work_out_job,
)
from evencoil.plate.inputs import PlateInputs, SupplyInputs
from evencoil.sizing.inputs import SizeInputs

GOLDEN = Path(__file__).parents[1] / "golden" / "job-schema-7.json"
DOCS = Path(__file__).parents[3] / "docs"
TEXT = st.text(st.characters(codec="utf-8", exclude_categories=["Cc", "Cs", "Cn"]), max_size=60)


@pytest.mark.parametrize("version", [1, 2, 3, 4, 5, 6, 7])
def test_golden_files_open_for_ever_and_give_their_figures(version):
    """A file written by any version opens and sizes as it did."""
    job = load((GOLDEN.parent / f"job-schema-{version}.json").read_bytes())
    found = {step.id: step.shown for step in work_out_job(job).steps}

    assert job.motor.motor_tag == "IC-2"
    assert (found["table_flc_a"], found["conductor_size"]) == ("21", "10 AWG")
    assert load(dump(job)) == job


def test_the_published_schema_is_this_code_and_holds_the_golden_file():
    """``docs/job.schema.json`` is what the code says; the golden file is valid under it."""
    published = json.loads((DOCS / "job.schema.json").read_text())

    assert published == json_schema()
    jsonschema.validate(json.loads(GOLDEN.read_text()), published)


@given(
    plate=TEXT,
    supply=TEXT,
    tag=st.from_regex(r"[A-Z][A-Z0-9 .-]{0,39}", fullmatch=True),
    ambient=st.none() | st.decimals(min_value=-50, max_value=99, places=2).map(str),
    metal=st.sampled_from([None, "cu", "al"]),
    ids=st.tuples(st.uuids(), st.uuids()),
)
def test_export_then_import_is_the_identity(plate, supply, tag, ambient, metal, ids):
    """Whatever people gave comes back from a file unchanged, fingerprint and all."""
    job = JobFile(
        job_id=ids[0],
        motor=FileMotor(id=ids[1], motor_tag=tag),
        plate=PlateInputs(text=plate),
        supply=SupplyInputs(text=supply),
        size=SizeInputs(ambient_c=ambient, conductor_material=metal),
    )

    again = load(dump(job))
    assert again == job
    assert canonical(again) == canonical(job)
    assert fingerprint(again) == fingerprint(job)


def test_older_files_are_upcast_one_step_at_a_time():
    """From 7 over 8 to 9, by pure functions, before anything is validated."""
    steps = []

    def upcast(version):
        def step(body):
            steps.append(version)
            return {**body, "seen": [*body.get("seen", []), version]}

        return step

    body = json.loads(GOLDEN.read_text())
    with pytest.raises(FileFormatError) as caught:
        load(json.dumps(body).encode(), newest=9, upcasts={7: upcast(7), 8: upcast(8)})

    assert steps == [7, 8]
    assert caught.value.field in {"schema", "seen"}


def test_house_names_of_schema_6_become_the_trades_names():
    """Names and values of sizes, starter, plant rules and colors; what was entered stays."""
    old = json.loads((GOLDEN.parent / "job-schema-6.json").read_text())
    old["size"] = {"school": "exam", "there": {"device_a": "40"}}
    old["starter"] = {"recipe": "3A"}
    old["joints"] = {"colours": [{"line": "L1", "colour": "black"}]}
    old["profile"] = {"school": "exam", "school_reason": "fits", "wire_colours": "iec60204"}

    job = load(json.dumps(old).encode())

    assert (job.size.rating_rule, job.size.existing.device_a) == ("main_rule", Decimal(40))
    assert job.starter.standard_circuit == "3A"
    assert [(one.line, one.color) for one in job.joints.colors] == [("L1", "black")]
    assert job.profile.rating_rule == "main_rule"
    assert (job.profile.rating_rule_reason, job.profile.wire_colors) == ("fits", "iec60204")


def test_a_stored_step_is_read_under_todays_names():
    """One step of schema 6 alone; the newest schema is left as it is."""
    assert upcast_step("size", {"school": "field"}, 6) == {"rating_rule": "next_size_up"}
    assert upcast_step("size", {"rating_rule": "main_rule"}, 7) == {"rating_rule": "main_rule"}
    assert upcast_step("plate", {"text": "15 HP"}, 1) == {"text": "15 HP"}


def changed(**changes):
    """Return the golden file with some fields changed, as bytes."""
    return json.dumps({**json.loads(GOLDEN.read_text()), **changes}).encode()


@pytest.mark.parametrize(
    ("data", "code", "field"),
    [
        (b"", "file_format", "file"),
        (b"not json", "file_format", "file"),
        (b"\xff\xfe", "file_format", "file"),
        (b"[" * 100_000, "file_format", "file"),
        (b'{"a": NaN}', "file_format", "file"),
        (b'{"a": 1, "a": 2}', "file_format", "file"),
        (b"1" * 5000, "file_format", "file"),
        (b"[]", "file_format", "format"),
        (b"{}", "file_format", "format"),
        (b" " * (MAX_BYTES + 1), "file_format", "file"),
        (changed(schema=None), "file_format", "schema"),
        (changed(schema=True), "file_format", "schema"),
        (changed(schema=0), "file_format", "schema"),
        (changed(schema=8), "newer_schema", "schema"),
        (changed(extra=1), "file_format", "extra"),
        (changed(job_id="x"), "file_format", "job_id"),
        (changed(size={"ambient_c": "warm"}), "file_format", "size.ambient_c"),
        (changed(size={"ambient_c": 30.5}), "file_format", "size.ambient_c"),
        (changed(size={"ambient_c": "1,250"}), "file_format", "size.ambient_c"),
        (changed(size={"current_carrying": 0}), "file_format", "size.current_carrying"),
        (changed(size={"edition": 2011}), "file_format", "size.edition"),
        (changed(plate={"text": "15 HP\u0000"}), "file_format", "plate.text"),
        (changed(plate={"text": "x" * 4001}), "file_format", "plate.text"),
    ],
)
def test_files_that_are_none_change_nothing_and_say_why(data, code, field):
    """Each gets a code, the field's path, a reason and a next step."""
    with pytest.raises(FileFormatError) as caught:
        load(data)

    problem = caught.value.problem()
    assert (problem["code"], problem["field"]) == (code, field)
    assert problem["hint"]
    assert isinstance(caught.value, NewerSchemaError) == (code == "newer_schema")


def test_a_lone_surrogate_is_refused():
    """JSON may escape one; it is no character."""
    with pytest.raises(FileFormatError):
        load(GOLDEN.read_bytes().replace(b"IC-2", b"\\ud800"))


@given(st.binary(max_size=200))
def test_any_bytes_are_a_job_or_a_clear_error(data):
    """No bytes raise anything else."""
    with pytest.raises(FileFormatError):
        load(data)


@pytest.mark.parametrize(("length", "is_taken"), [(120, True), (121, False)])
def test_a_machines_name_is_as_long_as_a_plant_can_store(length, is_taken):
    """A file with a longer one is refused by its field, before anything is stored."""
    body = json.loads(GOLDEN.read_bytes())
    body["motor"]["machine"] = "m" * length
    data = json.dumps(body).encode()
    if is_taken:
        assert len(load(data).motor.machine) == length
        return
    with pytest.raises(FileFormatError) as refused:
        load(data)
    assert refused.value.field == "motor.machine"
