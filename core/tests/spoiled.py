"""Bodies and texts with something spoiled, for tests that feed whatever a hand may leave."""

from __future__ import annotations

import copy

__all__ = ["JUNK", "spoiled", "spoiled_text"]

JUNK = (
    None, True, -1, 0, 1.5, 1e308, 10**30, "", " ", "x", "NaN", "-0", "1e999", "\u0000", "\u202e",
    "é" * 300, [], [[]], {}, {"id": 1}, ["a", 1, None], "A1", "supply.L1", "480Y/277",
)  # fmt: skip
SIGNS = (
    "",
    "\x00",
    "\n",
    "\t",
    ",",
    '"',
    "{",
    "}",
    "[",
    "]",
    "-",
    "9" * 40,
    "é",
    "\u2028",
    "#",
    "=",
    ".",
)


def _places(value, path=()):
    """Go through every place of a JSON value."""
    yield path
    items = (
        value.items()
        if isinstance(value, dict)
        else enumerate(value)
        if isinstance(value, list)
        else ()
    )
    for key, item in items:
        yield from _places(item, (*path, key))


def _junk(random):
    """Return a value of its own each time: what is spoiled next may lie within it."""
    return copy.deepcopy(random.choice(JUNK))


def spoiled(random, body):
    """Return a JSON value with one to three places exchanged, taken out, added or doubled."""
    body = copy.deepcopy(body)
    for _ in range(random.randint(1, 3)):
        path = random.choice([path for path in _places(body) if path] or [()])
        if not path:
            return _junk(random)
        inside = body
        for key in path[:-1]:
            inside = inside[key]
        act = random.choice(("exchange", "exchange", "take", "add", "double"))
        if act == "exchange":
            inside[path[-1]] = _junk(random)
        elif act == "take":
            del inside[path[-1]]
        elif isinstance(inside, dict):
            inside[random.choice(("id", "kind", "text", "n", "unheard_of", ""))] = _junk(random)
        elif act == "double":
            inside.append(copy.deepcopy(inside[path[-1]]))
        else:
            inside.insert(0, _junk(random))
    return body


def spoiled_text(random, text):
    """Return a text with some signs or lines exchanged, taken out, doubled or cut off."""
    for _ in range(random.randint(1, 4)):
        act = random.randrange(4)
        at = random.randrange(len(text) + 1)
        if act == 0:
            text = text[:at] + random.choice(SIGNS) + text[at + random.randint(0, 3) :]
        elif act == 1:
            lines = text.split("\n")
            lines.insert(random.randrange(len(lines) + 1), random.choice(lines))
            text = "\n".join(lines)
        elif act == 2:
            lines = text.split("\n")
            del lines[random.randrange(len(lines))]
            text = "\n".join(lines)
        elif random.random() < 0.2:
            text = text[:at]
    return text
