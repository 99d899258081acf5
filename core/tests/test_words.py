"""Every sentence that the code says is there, and every gap in it is filled by name."""

import ast
from pathlib import Path

import pytest

import evencoil
from evencoil.base.sentences import ALL_SENTENCES
from evencoil.base.words import Message, say
from evencoil.plate.replaced import TAKES_DOWN
from evencoil.plate.vocabulary import FIELDS, FLAGS
from evencoil.winding.coils import KINDS

SOURCES = sorted(Path(evencoil.__file__).parent.rglob("*.py"))


def calls(path):
    """Return every ``Message(...)`` of a file whose id is a plain text."""
    for node in ast.walk(ast.parse(path.read_text())):
        if (
            isinstance(node, ast.Call)
            and getattr(node.func, "id", "") == "Message"
            and node.args
            and isinstance(node.args[0], ast.Constant)
        ):
            keys = None
            if len(node.args) > 1 and isinstance(node.args[1], ast.Dict):
                names = node.args[1].keys
                if all(isinstance(name, ast.Constant) for name in names):
                    keys = {name.value for name in names}
            elif len(node.args) == 1:
                keys = set()
            yield node.args[0].value, keys


@pytest.mark.parametrize("path", SOURCES, ids=lambda path: path.stem)
def test_every_message_has_its_sentence_and_its_gaps(path):
    """No id without a sentence; where the parameters are written out, none is missing."""
    for name, keys in calls(path):
        assert name in ALL_SENTENCES, name
        if keys is not None:
            say(Message(name, dict.fromkeys(keys, "1")))


def test_every_plate_field_has_its_label():
    """Whatever lights up on a nameplate or stands in a comparison can be called by name."""
    names = {field.name for field in FIELDS} | {name for name, _ in FLAGS.values()}
    for name in names | {"connection_signs"} | set(TAKES_DOWN):
        assert say(Message(f"label.{name}"))


@pytest.mark.parametrize("kind", list(KINDS))
def test_every_kind_is_called_by_name_and_says_why_it_cannot_start_otherwise(kind):
    """A name, and a sentence for each way to start that its leads do not give."""
    assert say(Message(f"kind_name.{kind}"))
    if kind not in {"6", "12"}:
        assert say(Message(f"leads.no_wye_delta.{kind}"))
    if kind not in {"9-wye", "12", "part-winding"}:
        assert say(Message(f"leads.no_part_winding.{kind}"))
