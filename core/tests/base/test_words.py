"""Every sentence that the code says is there, and every gap in it is filled by name."""

import ast
import re
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis.strategies import decimals

import evencoil
from evencoil.base.quantities import plain
from evencoil.base.sentences import ALL_SENTENCES
from evencoil.base.words import Message, _Gap, say
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


HOUSE = re.compile(
    r"\b(the Yard|joinings?|sleeves?|(?<!\.)recipes?|thin leads?|made leg|worked out|put right|springs? to life|"
    r"aluminium|colours?|behaviou?rs? itself|judgement|centre|nobody|somebody|smokes?|sense checks?)\b",
    re.IGNORECASE,
)


def test_sentences_speak_the_trades_words():
    """American trade English: no word of the house, no British spelling."""
    bare = {name: re.sub(r"{[^}]*}", "", text) for name, text in ALL_SENTENCES.items()}
    wrong = {name: text for name, text in bare.items() if HOUSE.search(text)}
    assert wrong == {}


def test_one_is_one_and_articles_fit():
    """`1 wire`, `2 wires`; `an inverse-time`, `an 80 A`, `a 40 A`; a capital where a sentence begins."""
    assert [format(_Gap(n), "n wire") for n in ("0", "1", "2")] == ["0 wires", "1 wire", "2 wires"]
    assert format(_Gap("1"), "N PROBLEM") == "1 PROBLEM"
    assert [format(_Gap(word), "a") for word in ("inverse-time breaker", "40 A", "80 A")] == [
        "an inverse-time breaker",
        "a 40 A",
        "an 80 A",
    ]
    assert format(_Gap("series wye"), "C") == "Series wye"


@given(decimals(min_value="0.00001", max_value="1000000", allow_nan=False, places=9))
def test_no_figure_is_shown_with_long_decimals(value):
    """At most four decimals or four significant figures, and never far from the full figure."""
    said = plain(value)
    digits = said.lstrip("-0.").replace(".", "")
    assert len(said.partition(".")[2]) <= 4 or len(digits) <= 4, said
    assert abs(Decimal(said) - value) <= abs(value) * Decimal("0.0005")
