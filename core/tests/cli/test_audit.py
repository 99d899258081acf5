"""Many job files audited from the command line."""

import csv
import io
import json
import uuid
from pathlib import Path

import pytest
from audit_made import GOOD, SIZE

from evencoil.cli.main import main

GOLDEN = json.loads((Path(__file__).parents[1] / "golden" / "job-schema-7.json").read_text())


@pytest.fixture
def folder(tmp_path):
    """Four files: a motor that is right, one with large heaters, one empty, one that is no job."""
    bad = {**SIZE, "existing": {**SIZE["existing"], "trip_a": "48"}}
    bodies = {
        "a": {**GOOD, "starter": {"standard_circuit": "3A"}},
        "b": {**GOOD, "size": bad, "starter": {"standard_circuit": "3A"}},
        "c": {},
    }
    head = {key: GOLDEN[key] for key in ("format", "schema", "kind", "profile") if key in GOLDEN}
    for name, body in bodies.items():
        motor = {"id": str(uuid.uuid4()), "motor_tag": name.upper(), "machine": "=Kiln"}
        file = {**head, "job_id": str(uuid.uuid4()), "motor": motor, **body}
        (tmp_path / f"{name}.json").write_text(json.dumps(file))
    (tmp_path / "d.json").write_text("{")
    return tmp_path


def said(capsys):
    """Return what was printed as JSON."""
    return json.loads(capsys.readouterr().out)


def test_a_folder_as_json(folder, capsys):
    """Counts are of the files, the bad one is told and takes no other with it."""
    assert main(["audit", str(folder), "--format", "json"]) == 1
    found = said(capsys)
    assert found["jobs"]["fails"] == 1
    assert sum(found["jobs"].values()) == 3
    assert [one["file"].endswith("d.json") for one in found["unread"]] == [True]
    first = found["lines"][0]
    assert (first["motor_tag"], first["key"]) == ("B", "existing_heaters")
    assert found["supposed"] is None


def test_several_processes_say_the_same(folder, capsys):
    """Two processes and one: the same answer to the letter."""
    main(["audit", str(folder), "--format", "json"])
    one = capsys.readouterr().out
    main(["audit", str(folder), "--format", "json", "--processes", "2"])
    assert capsys.readouterr().out == one


def test_as_csv_and_as_text(folder, capsys):
    """Every line has its row; a machine that begins with = is no formula."""
    main(["audit", str(folder), "--format", "json"])
    lines = said(capsys)["lines"]
    main(["audit", str(folder), "--format", "csv"])
    rows = list(csv.DictReader(io.StringIO(capsys.readouterr().out, newline="")))
    assert [row["motor"] for row in rows] == [line["motor_tag"] for line in lines]
    assert {row["machine"] for row in rows} == {"'=Kiln"}
    main(["audit", str(folder)])
    text = capsys.readouterr().out
    assert text.startswith("4 jobs")
    assert "Maximum 40 A" in text
    assert "d.json" in text


def test_what_if_tells_only_what_would_change(folder, capsys):
    """Twice 8 kA against 10 kA: device and starter of A and B; C has no fault current to double."""
    main(["audit", str(folder), "--format", "json", "--fault-times", "2"])
    found = said(capsys)
    assert {
        (one["motor_tag"], one["key"], one["before"], one["after"]) for one in found["supposed"]
    } == {
        (tag, key, "", "fails")
        for tag in "AB"
        for key in ("device_interrupting", "starter_short_circuit")
    }
    assert list(found["not_supposed"].values()) == [["fault_unknown"]]
    main(["audit", str(folder), "--ambient", "45"])
    assert "if so: A" in capsys.readouterr().out


def test_everything_right_exits_with_0(folder, capsys):
    """A alone: nothing fails, nothing is unknown; its coils' VA are assumed, which is no failure."""
    assert main(["audit", str(folder / "a.json"), "--format", "json"]) == 0
    found = said(capsys)
    assert found["lines"] == []
    assert found["jobs"]["guess"] == 1
    assert [need["fact"] for need in found["unknown"]] == ["coils"]


@pytest.mark.parametrize("more", [["--ambient", "200"], ["--fault-times", "no"]])
def test_what_cannot_be_supposed_exits_with_2(more, folder, capsys):
    """Field and reason are told."""
    assert main(["audit", str(folder), *more]) == 2
    assert "cannot be supposed" in capsys.readouterr().err


def test_no_file_at_all_exits_with_2(tmp_path, capsys):
    """An empty folder is no plant without faults."""
    assert main(["audit", str(tmp_path)]) == 2
    assert "no job file" in capsys.readouterr().err
