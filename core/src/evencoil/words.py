"""Every sentence of the core, by message id.

A `Message` holds an id and parameters, never a finished sentence, so that a
screen, a page and the command line say the same thing and a translation needs
no change in the rules. The sentences themselves are in ``words_en.py``,
``words_circuit_en.py``, ``words_leads_en.py`` and ``words_sizes_en.py``.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from evencoil.words_checks_en import CHECK_SENTENCES
from evencoil.words_circuit_en import CIRCUIT_SENTENCES
from evencoil.words_en import SENTENCES
from evencoil.words_leads_en import LEADS_SENTENCES
from evencoil.words_sizes_en import SIZE_SENTENCES

__all__ = ["Message", "say"]

_ALL = {**SENTENCES, **CIRCUIT_SENTENCES, **CHECK_SENTENCES, **LEADS_SENTENCES, **SIZE_SENTENCES}


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
    return _ALL[message.id].format_map(message.params)
