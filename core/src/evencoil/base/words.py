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

__all__ = ["Message", "say"]

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
