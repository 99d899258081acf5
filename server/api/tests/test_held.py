"""A part of ``./check`` is left out only on the very files on which it held."""

import os
import subprocess
import sys
from pathlib import Path

import pytest

sys.path.insert(0, str(Path(__file__).parents[3] / "tools"))
from held import PARTS, Held, stands_on

FILES = [
    "core/src/a.py",
    "core/tests/t.py",
    "server/x/tests/t.py",
    "web/src/a.test.ts",
    "docs/a.md",
]


def write(folder, name, text="1"):
    (folder / name).parent.mkdir(parents=True, exist_ok=True)
    (folder / name).write_text(text)


@pytest.fixture
def clone(tmp_path):
    """A small project under git in which every long part has just held."""
    write(tmp_path, ".gitignore", ".run/\n")
    for name in FILES:
        write(tmp_path, name)
    (tmp_path / ".run").mkdir()
    subprocess.run(["git", "init", "-q", "."], cwd=tmp_path, check=True)
    subprocess.run(["git", "add", "."], cwd=tmp_path, check=True)
    held = Held(tmp_path)
    for part in PARTS:
        held.keep(part, held.mark(part), "9 passed")
    return tmp_path


def holds(clone):
    """Return the parts that would be left out now."""
    held = Held(clone)
    return {part for part in PARTS if held.said(part, held.mark(part))}


ALL = set(PARTS)


@pytest.mark.parametrize(
    ("name", "left"),
    [
        ("core/src/a.py", set()),
        ("core/src/new.py", set()),  # git does not know it yet, but would take it in
        ("requirements/dev.txt", set()),
        ("core/tests/t.py", {"server", "e2e"}),
        ("server/x/tests/t.py", {"core", "e2e"}),
        ("server/x/views.py", {"core"}),
        ("web/src/a.ts", {"core", "server"}),
        ("web/src/a.test.ts", ALL),  # the unit tests of the web run every time
        ("tests/e2e/test_a.py", {"core", "server"}),
        ("tests/e2e/conftest.py", {"core"}),
        ("docs/a.md", ALL),
        ("docs/schema.json", set()),
        (".run/anything", ALL),
    ],
)
def test_what_a_part_stands_on_makes_it_run_again(clone, name, left):
    assert holds(clone) == ALL
    write(clone, name, "2")
    assert holds(clone) == left


def test_the_same_files_again_hold_again(clone):
    """What counts is what stands in a file, not when it was written."""
    write(clone, "core/src/a.py", "2")
    write(clone, "core/src/a.py", "1")
    assert holds(clone) == ALL
    assert Held(clone).said("core", Held(clone).mark("core")).endswith(": 9 passed")


def test_a_lost_file_another_setting_and_no_memory_all_run(clone, monkeypatch):
    (clone / "core/src/a.py").unlink()
    assert holds(clone) == set()
    write(clone, "core/src/a.py")
    with monkeypatch.context() as other:
        other.setitem(os.environ, "EVENCOIL_FUZZ", "10")
        assert holds(clone) == set()
    with monkeypatch.context() as tomorrow:
        tomorrow.setattr("held.today", lambda: "2099-01-01")
        assert holds(clone) == set()
    assert holds(clone) == ALL
    (clone / ".run/held.json").write_text("[1, ")
    assert holds(clone) == set()


def test_a_file_changed_meanwhile_keeps_nothing(clone):
    held = Held(clone)
    write(clone, "core/src/a.py", "2")
    before = held.mark("core")
    write(clone, "core/src/a.py", "3")
    held.keep("core", before, "9 passed")
    assert "core" not in holds(clone)


def test_without_git_every_part_runs(tmp_path):
    write(tmp_path, "core/src/a.py")
    held = Held(tmp_path)
    assert not stands_on(tmp_path, "core")
    assert held.said("core", held.mark("core")) is None
