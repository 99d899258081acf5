"""The sentences of the core, one module for each room, in American trade English.

An electrician's words, the unit always there, what is wrong before what to do, no sentence
copied from a standard. A gap may count or take an article: ``{wires:n wire}`` gives
``1 wire`` or ``2 wires``, ``{kind:a}`` gives ``an inverse-time breaker``.
"""

from __future__ import annotations

from evencoil.base.sentences import (
    audit,
    checks,
    circuit,
    codebook,
    common,
    job,
    labels,
    leads,
    logic,
    machine,
    panel,
    plate,
    practice,
    rehearsal,
    run_up,
    schedule,
    sensors,
    sizing,
    solver,
    starters,
    trouble,
    winding,
)

__all__ = ["ALL_SENTENCES"]

ALL_SENTENCES: dict[str, str] = {
    **common.SENTENCES,
    **labels.SENTENCES,
    **codebook.SENTENCES,
    **plate.SENTENCES,
    **practice.SENTENCES,
    **schedule.SENTENCES,
    **audit.SENTENCES,
    **logic.SENTENCES,
    **winding.SENTENCES,
    **circuit.SENTENCES,
    **sensors.SENTENCES,
    **sizing.SENTENCES,
    **solver.SENTENCES,
    **starters.SENTENCES,
    **trouble.SENTENCES,
    **leads.SENTENCES,
    **panel.SENTENCES,
    **rehearsal.SENTENCES,
    **run_up.SENTENCES,
    **checks.SENTENCES,
    **job.SENTENCES,
    **machine.SENTENCES,
}
