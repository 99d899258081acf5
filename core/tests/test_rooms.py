"""The rooms of the core: their order, what each may know, and the names outside programs use."""

import ast
import doctest
import re
from pathlib import Path

import pytest

import evencoil

CORE = Path(evencoil.__file__).parent
DOCS = Path(__file__).resolve().parents[2] / "docs"

#: the order of the work; a room knows those on lines above it, never one beside it
FLOORS = (
    ("base",),
    ("codebook", "logic", "sensors"),
    ("plate",),
    ("winding",),
    ("circuit", "sizing"),
    ("solver", "starters"),
    ("leads", "rehearsal"),
    ("run_up", "acts"),
    ("drawing", "checks"),
    ("trouble",),
    ("job",),
    ("machine",),
    ("practice", "schedule", "audit"),
    ("cli",),
)
FLOOR = {room: floor for floor, rooms in enumerate(FLOORS) for room in rooms}


def imports(path):
    """Return every name of the core that a module imports, as its dotted path."""
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path}: relative import"
            names = [node.module or ""]
        elif isinstance(node, ast.Import):
            names = [one.name for one in node.names]
        else:
            continue
        yield from (name for name in names if name.split(".")[0] == "evencoil")


def modules(room):
    """Return the modules of a room."""
    return sorted((CORE / room).rglob("*.py"))


def test_every_package_is_a_room_of_the_plan():
    """A new package takes its place in the order, or this fails."""
    there = {path.name for path in CORE.iterdir() if (path / "__init__.py").exists()}
    assert there == set(FLOOR)


@pytest.mark.parametrize("room", FLOOR)
def test_a_room_knows_only_those_before_it(room):
    """Imports go one way, and through the door of a room: never into its modules."""
    wrong = []
    for path in modules(room):
        for name in imports(path):
            parts = name.split(".")
            if len(parts) == 1:
                wrong.append(f"{path.name} imports the top package")
            elif parts[1] == room:
                continue
            elif FLOOR[parts[1]] >= FLOOR[room]:
                wrong.append(f"{path.name} imports {name}: {parts[1]} does not come before {room}")
            elif len(parts) > 2 and not (CORE.joinpath(*parts[1:]) / "__init__.py").exists():
                wrong.append(f"{path.name} imports {name}: use what evencoil.{parts[1]} offers")
    assert wrong == []


@pytest.mark.parametrize("room", FLOOR)
def test_no_modules_of_a_room_import_each_other_in_a_circle(room):
    """Inside a room too, imports go one way."""
    names = {
        ".".join(("evencoil", *path.relative_to(CORE).with_suffix("").parts)): path
        for path in modules(room)
        if path.name != "__init__.py"
    }
    knows = {
        name: [other for other in imports(path) if other in names] for name, path in names.items()
    }
    done, open_ = set(), []

    def visit(name):
        assert name not in open_, " -> ".join([*open_[open_.index(name) :], name])
        if name in done:
            return
        open_.append(name)
        for other in knows[name]:
            visit(other)
        open_.pop()
        done.add(name)

    for name in knows:
        visit(name)


@pytest.mark.parametrize("room", FLOOR)
def test_a_room_says_what_it_answers_and_lists_its_names(room):
    """The docstring of a room says what it may know; `__all__` names what others use."""
    tree = ast.parse((CORE / room / "__init__.py").read_text(encoding="utf-8"))
    told = ast.get_docstring(tree) or ""
    assert re.search(r"\b(Knows|knows)\b", told), told
    assert any(
        isinstance(node, ast.Assign) and getattr(node.targets[0], "id", "") == "__all__"
        for node in tree.body
    )


def test_only_the_solver_uses_numpy_and_nothing_uses_the_server():
    """The rules of the job are plain Python."""
    for path in CORE.rglob("*.py"):
        text = path.read_text(encoding="utf-8")
        found = re.findall(r"^\s*(?:import|from) (numpy|django|ninja)\b", text, re.MULTILINE)
        allowed = {"numpy"} if path.is_relative_to(CORE / "solver") else set()
        assert set(found) <= allowed, path


def test_the_architecture_page_lists_the_rooms_in_this_order():
    """docs/architecture.md is kept true: one row for each room, in the order of the work."""
    text = (DOCS / "architecture.md").read_text(encoding="utf-8")
    rows = re.findall(r"^\| `(\w+)` \|", text, re.MULTILINE)
    assert rows[: len(FLOOR)] == list(FLOOR)


def test_the_example_of_the_package_runs():
    """What the package's docstring shows is what it does."""
    result = doctest.testmod(evencoil)
    assert (result.failed, result.attempted >= 6) == (0, True)


def test_what_the_package_offers_is_there():
    """Every name of `__all__` can be imported, and is documented."""
    for name in evencoil.__all__:
        assert name == "__version__" or getattr(evencoil, name).__doc__
