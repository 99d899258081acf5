"""Jobs at random: whatever the schema of a job allows, and a little that it does not.

A body is grown from the JSON schema of `JobInputs`, so that a new field is tried without a line
here; what the models refuse is taken out piece by piece until the rest is let in.
"""

import re

from pydantic import ValidationError

from evencoil.base import CoreError
from evencoil.job import JobInputs
from evencoil.starters import catalogue

SCHEMA = JobInputs.model_json_schema()
TEXTS = (
    *("", "a", "0", "1", "-1", "460", "T1", "T4", "M1.U1", "main", "main.A1", "control_fuse.2"),
    *("x" * 120, "L1", "contactor", "tb", "10 AWG", "é", "4/0", "1 2 3", "ab,cd", "1000000"),
)
PLATES = (
    "15 HP 460 V 19.3 A 3 PH 9 LEADS",
    "15 HP 208-230/460 V 42-38/19 A 1760 RPM 60 HZ 3 PH SF 1.15 CODE G 9 LEADS",
    "1 HP 115/230 V 16/8 A 1 PH",
    "10/5 HP 460 V 14/9 A 1750/870 RPM 60 HZ 3 PH 6 LEADS 2 SPEED",
    "15 HP 480 V 18.5 A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G 6 LEADS",
)
SUPPLIES = (
    *("480Y/277 60 Hz", "240 delta", "208Y/120", "400Y/230 50 Hz", "120/240 1PH"),
    *("240/120 high leg", "drive 460 V", "480 V corner grounded"),
)
AMOUNTS = ("0", "1", "2.5", "12", "40", "100", "230", "480", "9999", "0.01", "-1")
AMOUNT = re.compile(
    r"_(v|a|ka|va|hp|kw|percent|ft|m|ohm|c|f|s|in|mm|rpm|hz|lb|pf)$|^(volts|amps|ohms|value|factor)$"
)


def grown(random, schema=SCHEMA, depth=0, name=""):
    """Return a value that a schema allows, by a source of chance."""
    for key in ("anyOf", "oneOf", "allOf"):
        if key in schema:
            return grown(random, random.choice(schema[key]), depth, name)
    if "$ref" in schema:
        return grown(random, SCHEMA["$defs"][schema["$ref"].rpartition("/")[2]], depth, name)
    if "const" in schema:
        return schema["const"]
    if "enum" in schema:
        return random.choice(schema["enum"])
    return _GROWN[schema.get("type", "string")](random, schema, depth, name)


def _text(random, schema, depth, name):
    del schema, depth
    if name == "standard_circuit" and random.random() < 0.9:
        return random.choice([*catalogue(), "found"])
    amount = AMOUNT.search(name) and random.random() < 0.9
    return random.choice(AMOUNTS if amount else TEXTS)


def _whole(random, schema, depth, name):
    del depth, name
    least = schema.get("minimum", schema.get("exclusiveMinimum", -1))
    most = schema.get("maximum", 100)
    return random.choice([least, most, least + 1, random.randint(int(least), int(most))])


def _list(random, schema, depth, name):
    if "prefixItems" in schema:
        return [grown(random, one, depth + 1, name) for one in schema["prefixItems"]]
    count = random.choice([0, 1, 1, 2, 3]) if depth < 6 else 0
    count = min(max(count, schema.get("minItems", 0)), schema.get("maxItems", 9))
    return [grown(random, schema.get("items", {}), depth + 1, name) for _ in range(count)]


def _object(random, schema, depth, name):
    found = {
        key: grown(random, value, depth + 1, key)
        for key, value in schema.get("properties", {}).items()
        if key in schema.get("required", ()) or random.random() < (0.3 if depth else 0.8)
    }
    more = schema.get("additionalProperties")
    if isinstance(more, dict) and random.random() < 0.4:
        found |= {random.choice(TEXTS): grown(random, more, depth + 1, name) for _ in range(2)}
    return found


_GROWN = {
    "null": lambda random, schema, depth, name: None,
    "boolean": lambda random, schema, depth, name: random.random() < 0.5,
    "integer": _whole,
    "number": _whole,
    "string": _text,
    "array": _list,
    "object": _object,
}


def any_job(random):
    """Return a job that the models let in, or None where too much of it was refused."""
    body = grown(random)
    if random.random() < 0.7:
        body["plate"] = {**body.get("plate", {}), "text": random.choice(PLATES)}
    if random.random() < 0.7:
        body["supply"] = {**body.get("supply", {}), "text": random.choice(SUPPLIES)}
    for _ in range(60):
        try:
            return JobInputs.model_validate(body)
        except ValidationError as wrong:
            _take_out(body, wrong.errors()[0]["loc"])
        except CoreError:
            body.popitem()
    return None


def _take_out(body, place):
    """Take what was refused out of a body, or the whole step where that is not found."""
    node = body
    try:
        for key in place[:-1]:
            node = node[key] if not isinstance(node, dict) or key in node else node
        node.pop(place[-1])
    except (KeyError, IndexError, TypeError, AttributeError):
        body.pop(place[0], None)
