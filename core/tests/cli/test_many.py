"""One command on many files: each as alone, a wrong one beside them, in their order."""

import io
import json
from pathlib import Path

import pytest

from evencoil.cli.main import main

GOLDEN = Path(__file__).parents[1] / "golden" / "job-schema-5.json"
COMMANDS = {
    "size": [],
    "connect": [],
    "convert": ["--supply", "240 delta"],
    "validate": [],
    "choose": [],
    "check": [],
    "run": ["--load", "fan"],
    "trouble": ["--symptom", "hums"],
}


@pytest.fixture
def folder(tmp_path):
    """A good file, one that is no JSON, and one whose figures are withheld."""
    job = json.loads(GOLDEN.read_text())
    (tmp_path / "a.json").write_text(json.dumps(job))
    (tmp_path / "b.json").write_text("{")
    (tmp_path / "c.json").write_text(json.dumps({**job, "plate": {"text": "15 HP 230 V 3 PH"}}))
    return tmp_path


FAN = ("--load", "fan", "--format", "csv")


def alone(capsys, *words):
    """Return code, output and error of one call."""
    code = main(list(words))
    said = capsys.readouterr()
    return code, said.out, said.err


@pytest.mark.parametrize("command", COMMANDS)
def test_each_file_is_answered_as_it_is_alone(folder, capsys, command):
    """Code, answer and error of every file are those of a call with it alone."""
    more = [*COMMANDS[command], "--format", "json"]
    single = {}
    for name in ("a.json", "b.json", "c.json"):
        path = str(folder / name)
        code, out, error = alone(capsys, command, path, *more)
        single[path] = (
            code,
            json.loads(out) if out else None,
            json.loads(error) if error else None,
        )
    code, out, error = alone(capsys, command, str(folder), *more)
    lines = [json.loads(line) for line in out.splitlines()]
    assert [line["file"] for line in lines] == list(single)
    for line in lines:
        assert (line["exit"], line.get("answer"), line.get("error")) == single[line["file"]]
    assert code == max(found[0] for found in single.values()) == 2
    assert "3 files" in error
    wrong = sum(found[0] == 2 for found in single.values())
    assert f"{wrong} wrong" in error
    assert single[str(folder / "a.json")][1]


def test_several_processes_say_what_one_says(folder, capsys):
    """The order is the files', whoever answers first."""
    for place in range(12):
        (folder / f"d{place:02}.json").write_text((folder / "a.json").read_text())
    one = alone(capsys, "size", str(folder), "--format", "json")
    many = alone(capsys, "size", str(folder), "--format", "json", "--processes", "2")
    assert one == many
    assert len(one[1].splitlines()) == 15


def test_rows_carry_their_file_and_one_heading(folder, capsys):
    """CSV of many runs is one table."""
    (folder / "b.json").unlink()
    (folder / "c.json").write_text((folder / "a.json").read_text())
    single = alone(capsys, "run", str(folder / "a.json"), *FAN)[1].splitlines()
    lines = alone(capsys, "run", str(folder), *FAN)[1].splitlines()
    assert lines[0] == f"file,{single[0]}"
    assert len(lines) == 1 + 2 * (len(single) - 1)
    assert lines[1].startswith(f'"{folder / "a.json"}",')


def test_text_stands_under_the_name_of_its_file(folder, capsys):
    """What is wrong is told on standard error with its file."""
    code, out, error = alone(capsys, "validate", str(folder / "a.json"), str(folder / "b.json"))
    assert code == 2
    assert out.startswith(f"== {folder / 'a.json'}\nvalid, schema")
    assert f"{folder / 'b.json'}: " in error


def test_a_folder_without_files_is_refused(tmp_path, capsys):
    """Nothing was asked of nothing."""
    code, out, error = alone(capsys, "size", str(tmp_path))
    assert (code, out) == (2, "")
    assert "files:" in error


def test_standard_input_is_one_file(capsys, monkeypatch):
    """A dash alone is read from there, as before."""

    class Stdin:
        buffer = io.BytesIO(GOLDEN.read_bytes())

    monkeypatch.setattr("sys.stdin", Stdin())
    assert alone(capsys, "validate", "-")[0] == 0
