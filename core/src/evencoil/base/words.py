"""Every sentence of the core, by message id.

A `Message` holds an id and parameters, never a finished sentence, so that a screen, a page
and the command line say the same thing and a translation needs no change in the rules. The
sentences themselves are in `base.sentences`, one module for each room.

A gap may count or take an article: ``{wires:n wire}``, ``{count:N PROBLEM}`` in capitals,
``{kind:a}``, ``{kind:A}`` at the start of a sentence.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from evencoil.base.names import in_trade_terms, is_usual, line_said
from evencoil.base.sentences import ALL_SENTENCES

__all__ = ["Message", "counted", "say", "with_article"]


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
        The sentence, in the one language that ships so far and the names in use.

    Raises
    ------
    KeyError
        If the id is unknown or a parameter is missing: a bug, not bad input.
    """
    sentence = ALL_SENTENCES[message.id]
    params = message.params
    if not is_usual():
        sentence = in_trade_terms(sentence)
        params = {name: line_said(value) for name, value in params.items()}
    if ":" in sentence:
        params = {name: _Gap(value) for name, value in params.items()}
    return sentence.format_map(params)


class _Gap(str):
    """What goes into a gap: alone, with a noun in the right number, or with its article."""

    __slots__ = ()

    def __format__(self, spec: str) -> str:
        """Return the text as ``n NOUN``, ``N NOUN``, ``a``, ``A`` or ``C`` (capital) ask for it."""
        if spec == "C":
            return str(self)[:1].upper() + str(self)[1:]
        if spec in {"a", "A"}:
            said = with_article(str(self))
            return said if spec == "a" else said[0].upper() + said[1:]
        if spec[:2] in {"n ", "N "}:
            noun = spec[2:]
            return counted(str(self), noun, noun + "s" if spec[0] == "n" else noun + "S")
        return str(self)


def counted(count: int | str, noun: str, plural: str = "") -> str:
    """Return a count with its noun, singular or plural.

    Parameters
    ----------
    count : int or str
        How many; text as it is shown.
    noun : str
        Singular.
    plural : str
        Where it is not the singular with an ``s``.

    Examples
    --------
    >>> counted(1, "wire"), counted(2, "wire"), counted(0, "box", "boxes")
    ('1 wire', '2 wires', '0 boxes')
    """
    return f"{count} {noun if str(count) == '1' else plural or noun + 's'}"


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
