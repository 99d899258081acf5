"""Every sentence of the core, by message id.

A `Message` holds an id and parameters, never a finished sentence, so that a
screen, a page and the command line say the same thing and a translation needs
no change in the rules. The sentences themselves are in ``words_en.py``,
``words_circuit_en.py``, ``words_leads_en.py`` and ``words_sizes_en.py``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from evencoil.base.sentences.checks import CHECK_SENTENCES
from evencoil.base.sentences.circuit import CIRCUIT_SENTENCES
from evencoil.base.sentences.common import SENTENCES
from evencoil.base.sentences.leads import LEADS_SENTENCES
from evencoil.base.sentences.sizes import SIZE_SENTENCES

__all__ = ["Message", "counted", "say", "with_article"]

ALL_SENTENCES = {
    **SENTENCES,
    **CIRCUIT_SENTENCES,
    **CHECK_SENTENCES,
    **LEADS_SENTENCES,
    **SIZE_SENTENCES,
}


@dataclass(slots=True)
class Message:
    """One sentence to be said: its id and what goes into the gaps.

    Nothing changes it once made; it is not frozen because the rules make many.
    """

    id: str
    params: Mapping[str, str] = field(default_factory=dict)

    def __str__(self) -> str:
        """Return the finished sentence."""
        return say(self)


def say(message: Message) -> str:
    """Return the finished sentence of a message.

    Parameters
    ----------
    message : Message
        Id and parameters; every gap of the sentence must be filled.

    Returns
    -------
    str
        The sentence, in the one language that ships so far.

    Raises
    ------
    KeyError
        If the id is unknown or a parameter is missing: a bug, not bad input.
    """
    return ALL_SENTENCES[message.id].format_map(message.params)


def counted(count: int, noun: str, plural: str = "") -> str:
    """Return a count with its noun, singular or plural.

    Parameters
    ----------
    count : int
        How many.
    noun : str
        Singular.
    plural : str
        Where it is not the singular with an ``s``.

    Examples
    --------
    >>> counted(1, "wire"), counted(2, "wire"), counted(0, "box", "boxes")
    ('1 wire', '2 wires', '0 boxes')
    """
    return f"{count} {noun if count == 1 else plural or noun + 's'}"


def with_article(noun: str) -> str:
    """Return a noun with its indefinite article, by how it is spoken.

    Parameters
    ----------
    noun : str
        May begin with a figure.

    Examples
    --------
    >>> with_article("inverse-time breaker"), with_article("40 A fuse"), with_article("8 A fuse")
    ('an inverse-time breaker', 'a 40 A fuse', 'an 8 A fuse')
    >>> with_article("11 A fuse"), with_article("110 A fuse"), with_article("18 AWG wire")
    ('an 11 A fuse', 'a 110 A fuse', 'an 18 AWG wire')
    """
    first = noun.split(maxsplit=1)[0].lower()
    digits = first.rstrip(".,") if first[:1].isdigit() else ""
    if digits:
        whole = digits.split(".", maxsplit=1)[0].split("/", maxsplit=1)[0].split("-", maxsplit=1)[0]
        spoken = whole[: len(whole) % 3 or 3]  # the group that is spoken first
        is_vowel = whole[:1] == "8" or spoken in {"11", "18"}
    else:
        is_vowel = first[:1] in set("aeiou")
    return f"{'an' if is_vowel else 'a'} {noun}"
