"""Public things of the core say what they mean, in which units, and what they raise."""

import importlib
import inspect
import pkgutil
import re

import pytest

import evencoil

MODULES = sorted(
    info.name
    for info in pkgutil.walk_packages(evencoil.__path__, "evencoil.")
    if not info.name.endswith("__main__")
)


def public(module):
    """Return the functions and classes that a module lists and defines."""
    for name in getattr(module, "__all__", ()):
        thing = getattr(module, name)
        if getattr(thing, "__module__", None) == module.__name__:
            yield name, thing


@pytest.mark.parametrize("name", MODULES)
def test_modules_say_their_subject_and_their_public_names(name):
    """Every module has a docstring; every module but a package's has ``__all__``."""
    module = importlib.import_module(name)

    assert module.__doc__
    assert hasattr(module, "__all__") or name == "evencoil.sizing"


@pytest.mark.parametrize("name", MODULES)
def test_public_functions_document_parameters_units_and_errors(name):
    """Each parameter with a unit in its name has that unit in brackets; errors are listed."""
    units = {"_a": "A", "_v": "V", "_hp": "hp", "_kw": "kW", "_c": "C", "_rpm": "rpm", "_hz": "Hz"}
    for label, thing in public(importlib.import_module(name)):
        assert inspect.getdoc(thing), label
        if not inspect.isfunction(thing):
            continue
        said = inspect.getdoc(thing) or ""
        takes = inspect.signature(thing).parameters
        if len(takes) > 1:
            for parameter in takes:
                assert re.search(rf"^{parameter} : ", said, re.MULTILINE), f"{label}: {parameter}"
        for parameter in takes:
            for ending, unit in units.items():
                if parameter.endswith(ending) and f"{parameter} : " in said:
                    told = said.split(f"{parameter} : ")[1].split("\n\n")[0]
                    assert f"[{unit}]" in told, f"{label}: {parameter}"
        if re.search(r"^\s+raise [A-Z]", inspect.getsource(thing), re.MULTILINE):
            assert "Raises" in said, label
