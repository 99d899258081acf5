"""Nothing is switched off without a reason beside it."""

import re
from pathlib import Path

import evencoil

SWITCHED_OFF = re.compile(r"#\s*(?:type: ignore|noqa)[^#\n]*(?P<why>.*)$")


def test_every_ignore_has_its_reason():
    """`type: ignore[code]  # why`, or `noqa: CODE - why`."""
    bare = []
    for path in Path(evencoil.__file__).parent.rglob("*.py"):
        for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), 1):
            found = SWITCHED_OFF.search(line)
            if found and not (found["why"] or re.search(r" --? \w+", found[0])):
                bare.append(f"{path.name}:{number}: {line.strip()}")
    assert bare == []
