"""The Leads step calculated: the derived answer, and what the joints given would do.

The two never wait for each other: a wrong join is shown for what it would do
even where nothing can be derived, and the answer is there before a tap.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import cast

from evencoil.base import CoreError, Message, MissingError, RefusedError
from evencoil.leads.derive import Derived, derive, quick_tell
from evencoil.leads.inputs import AccessoryInput, LeadsInputs, MakerDiagramInput, SinglePhaseInput
from evencoil.leads.maker_diagram import Compared, compare, kinds_of_diagram, read_diagram
from evencoil.leads.outcome import CoilState, Outcome, judge_joints
from evencoil.leads.rotation import Turn, expected_turn, rotation_note
from evencoil.leads.stud_board import BOARDS, Board, Laid, lay_bars
from evencoil.leads.switched_box import box_joints, judge_switched
from evencoil.plate import PlateReading, Supply, Verdict
from evencoil.winding import (
    KINDS,
    Connection,
    Joint,
    LookAlike,
    Rating,
    RunShape,
    StartBranch,
    Told,
    Winding,
    WindingKind,
    joinings,
    kind_from_plate,
    lead_counts,
    look_alikes,
    names_of,
    rating_of,
    start_branch,
    swap_lines,
    tell_accessory,
)

__all__ = ["Box", "CheckedDiagram", "ToldAccessory", "work_out_box"]


@dataclass(frozen=True, slots=True)
class ToldAccessory:
    """Leads that are no winding, and what their ohms say."""

    given: AccessoryInput
    told: Told | None
    error: CoreError | None


@dataclass(frozen=True, slots=True)
class CheckedDiagram:
    """A diagram of the maker, held against the derived joints.

    ``kinds`` are the windings that it is a connection of, while the winding is not settled.
    """

    given: MakerDiagramInput
    compared: Compared | None
    error: CoreError | None
    joints: tuple[Joint, ...] = ()
    kinds: tuple[WindingKind, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """What is known of the terminal box.

    Attributes
    ----------
    winding : Winding or None
        None until plate, reading or person says which.
    alike : tuple of LookAlike
        Windings with as many leads, and what rules each out.
    rating : Rating or None
        For what line volts each connection is made.
    states : Derived or None
        The connection for this supply, in each state of the motor.
    derived_error : CoreError or None
        Why there is none.
    outcome : Outcome or None
        What the joints given do.
    outcome_error : CoreError or None
        Why there is no result.
    tell : Message or None
        How counting conductors tells the derived connection.
    notes : tuple of Message
        What is shown although nothing says it.
    names : mapping
        The mark of every lead, by T number.
    start : StartBranch or None
        The start circuit of a single-phase motor.
    laid : Laid or None
        Bars and stacks of a stud board.
    laid_by : mapping
        The same for every named connection, by its name.
    board_error : CoreError or None
        Why the board cannot be laid.
    diagrams : tuple of CheckedDiagram
        The maker's, each against the derived joints.
    is_disputed : bool
        True where a diagram differs and no one has decided.
    is_switched : bool
        True where the starter switches the leads: the box then holds only what stays joined,
        and a conductor to the starter for every other lead.
    counts : tuple of int
        Numbers of leads to choose from, where the nameplate does not say how many.
    rotation_note : Message or None
        What to exchange if it turns the wrong way, and where: lines, starter or drive output.
    turn : Turn or None
        The direction to expect, facing the shaft end.
    shared : tuple of Joint
        While the winding is not settled: the joints that every one still possible has alike.
    """

    winding: Winding | None = None
    alike: tuple[LookAlike, ...] = ()
    rating: Rating | None = None
    states: Derived | None = None
    derived_error: CoreError | None = None
    outcome: Outcome | None = None
    outcome_error: CoreError | None = None
    tell: Message | None = None
    notes: tuple[Message, ...] = ()
    names: Mapping[str, str] = field(default_factory=dict)
    accessories: tuple[ToldAccessory, ...] = ()
    start: StartBranch | None = None
    laid: Laid | None = None
    laid_by: Mapping[str, Laid] = field(default_factory=dict)
    board_error: CoreError | None = None
    diagrams: tuple[CheckedDiagram, ...] = ()
    is_disputed: bool = False
    followed: str = ""
    is_switched: bool = False
    shared: tuple[Joint, ...] = ()
    counts: tuple[int, ...] = ()
    rotation_note: Message | None = None
    turn: Turn | None = None

    @property
    def derived(self) -> Connection | None:
        """Return the connection derived for the state asked for."""
        return None if self.states is None else self.states.connection

    @property
    def intended(self) -> tuple[Joint, ...]:
        """Return the joints to be made: the maker's where a person follows them.

        Where the starter switches the leads they are those that stay, and the conductors to it.
        """
        if self.is_switched and self.winding is not None and self.states is not None:
            return box_joints(self.winding, self.states)
        if self.followed == "maker" and self.states is not None:
            for diagram in self.diagrams:
                if diagram.given.state == self.states.of:
                    return diagram.joints
        return () if self.derived is None else self.derived.joints

    @property
    def known(self) -> tuple[Connection, ...]:
        """Return every named connection of this winding."""
        return () if self.winding is None else joinings(self.winding.kind)


def _accessory(given: AccessoryInput, *, is_single: bool) -> ToldAccessory:
    if given.ohms is None and not given.is_open:
        return ToldAccessory(given, None, None)
    try:
        told = tell_accessory(
            len(given.marks), None if given.is_open else given.ohms, is_single=is_single
        )
    except CoreError as error:
        return ToldAccessory(given, None, error)
    return ToldAccessory(given, told, None)


def _diagram(
    given: MakerDiagramInput, winding: Winding, states: Derived, swap: str
) -> CheckedDiagram:
    try:
        joints = _drawn(given)
    except CoreError as error:
        return CheckedDiagram(given, None, error)
    derived = states.states.get(given.state)
    if derived is None:
        return CheckedDiagram(given, None, None, joints)
    if winding.phases == 3 and given.direction == "reverse":
        derived = swap_lines(derived, swap)
    try:
        return CheckedDiagram(given, compare(winding, joints, derived), None, joints)
    except CoreError as error:
        return CheckedDiagram(given, None, error, joints)


def _drawn(given: MakerDiagramInput) -> tuple[Joint, ...]:
    """Return a diagram's joints: as tapped, else as printed."""
    return tuple(joint.as_core() for joint in given.joints) or read_diagram(given.text)


def _fitting(given: MakerDiagramInput, kinds: Sequence[WindingKind]) -> CheckedDiagram:
    """Return a diagram with the windings it fits, before any winding is settled."""
    try:
        joints = _drawn(given)
    except CoreError as error:
        return CheckedDiagram(given, None, error)
    return CheckedDiagram(given, None, None, joints, kinds_of_diagram(joints, kinds))


def _board(inputs: LeadsInputs, winding: Winding) -> Board | None:
    if inputs.board is None:
        return None
    usual = BOARDS.get(winding.kind, ())
    typed = tuple(tuple(_stud(mark, inputs) for mark in row) for row in inputs.board.rows)
    return Board(
        rows=typed or usual,
        bars=inputs.board.bars,
        nuts_per_stud=inputs.board.nuts_per_stud,
        jumpers=inputs.board.jumpers,
        insulators=inputs.board.insulators,
    )


def _stud(mark: str, inputs: LeadsInputs) -> str:
    """Return the lead of a stud as typed: ``1``, ``T1``, or the mark found on the lead."""
    text = mark.strip().upper()
    for lead, name in inputs.names.items():
        if name.strip().upper() == text:
            return lead
    return f"T{text}" if text.isdigit() else text


def work_out_box(
    reading: PlateReading,
    supply: Supply | None,
    verdict: Verdict | None,
    refused: CoreError | None,
    inputs: LeadsInputs,
    *,
    swap: str = "L1-L3",
    is_two_speed_starter: bool = False,
    is_on_drive: bool = False,
) -> Box:
    """Work the Leads step out.

    Parameters
    ----------
    reading : PlateReading
        Volts, lead count, speeds, signs and words.
    supply : Supply or None
        None if it is not known.
    verdict : Verdict or None
        The nameplate column in use; None if the supply was refused.
    refused : CoreError or None
        Why there is no verdict.
    inputs : LeadsInputs
        The winding as settled, how it is to run, and the joints.
    swap : str
        Which two lines the plant exchanges for the other direction.
    is_two_speed_starter : bool
        Whether the starter chosen switches two speeds.
    is_on_drive : bool
        Whether it is a drive, which makes the direction itself.

    Returns
    -------
    Box
        Every part that can be determined, each with its reason where it cannot.
    """
    plate = reading.plate
    is_unsaid = plate.leads is None or any(item.field == "leads" for item in reading.assumed)
    told: dict[str, object] = {
        "counts": lead_counts(plate.phases) if is_unsaid or inputs.lead_count else (),
        "accessories": tuple(
            _accessory(item, is_single=plate.phases == 1) for item in inputs.accessories
        ),
        "alike": () if plate.leads is None else look_alikes(plate, plate.leads, inputs.groups),
    }
    winding: Winding | None = None
    rating: Rating | None = None
    states: Derived | None = None
    try:
        _refuse_other_count(plate.leads, inputs.lead_count)
        winding = kind_from_plate(plate, inputs.winding, inputs.groups)
        rating = rating_of(winding, plate, _shape(inputs))
        if supply is None or verdict is None:
            raise refused or MissingError(
                Message("supply.missing"), field="supply.text", hint=Message("supply.missing.hint")
            )
        states = derive(
            winding,
            rating=rating,
            supply=supply,
            verdict=verdict,
            start_method=inputs.start_method,
            speed=inputs.speed,
            is_reverse=inputs.direction == "reverse",
            swap=swap,
        )
    except CoreError as error:
        told["derived_error"] = error
    if winding is None:
        told["shared"] = _shared(reading, supply, verdict, inputs, swap)
        left = _kinds_left(reading, inputs)
        told["diagrams"] = tuple(_fitting(item, left) for item in inputs.maker)
        return Box(**told)  # type: ignore[arg-type]  # fields of Box
    told |= {"winding": winding, "rating": rating, "states": states}
    single = inputs.single or SinglePhaseInput()
    told["start"] = start_branch(
        winding,
        capacitors=single.capacitors,
        switch=single.switch,
        start_uf=single.start_uf,
        run_uf=single.run_uf,
        protector_leads=single.protector_leads,
    )
    told |= _named(winding, inputs)
    joints = [joint.as_core() for joint in inputs.joints]
    is_switched = states is not None and (
        inputs.start_method != "full_voltage" or (winding.is_two_speed and is_two_speed_starter)
    )
    told["is_switched"] = is_switched
    try:
        if is_switched and states is not None:
            told["outcome"] = replace(
                judge_switched(winding, joints, states), coils=_running(winding, states, rating)
            )
        elif rating is not None and supply is not None:
            volts = verdict.used_volts_v if verdict is not None else supply.line_volts_v
            told["outcome"] = judge_joints(
                winding,
                joints,
                volts_v=float(volts),
                rating=rating,
                others=inputs.others(),
                wanted="" if states is None else states.connection.name,
            )
    except CoreError as error:
        told["outcome_error"] = error
    if states is not None:
        judged = cast("Outcome | None", told.get("outcome"))
        told["turn"] = expected_turn(winding, inputs, judged)
        told["rotation_note"] = rotation_note(
            winding, supply, swap, is_switched=is_switched, is_on_drive=is_on_drive
        )
        told["tell"] = None if is_switched else quick_tell(winding, states.connection)
        told |= _checked_diagrams(winding, states, inputs, swap)
    try:
        board = _board(inputs, winding)
        if board is not None:
            shown = joints or _wanted(winding, states, is_switched=is_switched)
            told["laid"] = lay_bars(winding, shown, board)
            told["laid_by"] = {
                known.name: lay_bars(winding, known.joints, board)
                for known in joinings(winding.kind)
            }
    except CoreError as error:
        told["board_error"] = error
    told["notes"] = _notes(reading, winding, rating, inputs)
    return Box(**told)  # type: ignore[arg-type]  # fields of Box


def _refuse_other_count(stamped: int | None, counted: int | None) -> None:
    """Refuse a box with another number of leads than the nameplate says."""
    if stamped is not None and counted is not None and stamped != counted:
        raise RefusedError(
            Message("leads.count_differs", {"stamped": str(stamped), "counted": str(counted)}),
            field="leads.lead_count",
            hint=Message("leads.count_differs.hint"),
        )


def _kinds_left(reading: PlateReading, inputs: LeadsInputs) -> list[WindingKind]:
    """Return the windings that neither nameplate nor readings rule out."""
    plate = reading.plate
    if plate.leads is None:
        return list(KINDS)
    return [
        item.kind for item in look_alikes(plate, plate.leads, inputs.groups) if item.reason is None
    ]


def _shared(
    reading: PlateReading,
    supply: Supply | None,
    verdict: Verdict | None,
    inputs: LeadsInputs,
    swap: str,
) -> tuple[Joint, ...]:
    """Return the joints that all windings still possible have alike on this supply.

    Nine leads on high voltage are joined 4-7, 5-8, 6-9 whether they are wye or delta.
    """
    plate = reading.plate
    if supply is None or verdict is None or plate.leads is None:
        return ()
    left = _kinds_left(reading, inputs)
    answers: list[Connection] = []
    for kind in left:
        try:
            winding = KINDS[kind]
            states = derive(
                winding,
                rating=rating_of(winding, plate, _shape(inputs)),
                supply=supply,
                verdict=verdict,
                start_method=inputs.start_method,
                speed=inputs.speed,
                is_reverse=inputs.direction == "reverse",
                swap=swap,
            )
        except CoreError:
            return ()
        if len(states.states) > 1:
            return ()
        answers.append(states.connection)
    if len(answers) < 2 or len({answer.partition for answer in answers}) > 1:
        return ()
    return answers[0].joints


def _checked_diagrams(
    winding: Winding, states: Derived, inputs: LeadsInputs, swap: str
) -> dict[str, object]:
    """Return the maker's diagrams held against the derived joints, and whom a person follows."""
    diagrams = tuple(_diagram(item, winding, states, swap) for item in inputs.maker)
    differs = any(
        item.error is not None or (item.compared is not None and not item.compared.agrees)
        for item in diagrams
    )
    return {
        "diagrams": diagrams,
        "is_disputed": differs and inputs.followed is None,
        "followed": "" if inputs.followed is None or not differs else inputs.followed.side,
    }


def _named(winding: Winding, inputs: LeadsInputs) -> dict[str, object]:
    """Return the mark of every lead; the usual ones, and why, where those entered cannot be."""
    try:
        return {"names": names_of(winding, inputs.style, inputs.names)}
    except CoreError as error:
        return {"names": names_of(winding), "outcome_error": error}


def _running(winding: Winding, states: Derived, rating: Rating | None) -> tuple[CoilState, ...]:
    """Return what each coil sees when the starter has brought the motor to its last state."""
    if rating is None:
        return ()
    last = list(states.states.values())[-1]
    judged = judge_joints(
        winding, last.joints, volts_v=states.line_volts_v, rating=rating, wanted=last.name
    )
    return judged.coils


def _wanted(winding: Winding, states: Derived | None, *, is_switched: bool) -> list[Joint]:
    """Return the joints that a board is laid with before any are entered."""
    if states is None:
        return []
    return list(box_joints(winding, states) if is_switched else states.connection.joints)


def _shape(inputs: LeadsInputs) -> RunShape | None:
    """Return wye or delta as said; a wye-delta start says delta."""
    if inputs.run_shape is None and inputs.start_method == "wye_delta":
        return "delta"
    return inputs.run_shape


def _notes(
    reading: PlateReading, winding: Winding, rating: Rating | None, inputs: LeadsInputs
) -> tuple[Message, ...]:
    """Say what is shown although nothing on the nameplate says it."""
    plate = reading.plate
    found = list(rating.notes) if rating is not None else []
    said = {*plate.connection_signs, *(band.sign for band in plate.volts_v if band.sign)}
    if len(winding.leads) == 3 and inputs.winding is None and len(said) != 1:
        found.append(Message("leads.three"))
    if inputs.winding is not None and plate.leads is not None:
        against = next(
            (
                item.reason
                for item in look_alikes(plate, plate.leads, inputs.groups)
                if item.kind == inputs.winding and item.reason is not None
            ),
            None,
        )
        if against is not None:
            kind = str(Message(f"kind_name.{inputs.winding}"))
            found.append(Message("leads.chosen_against", {"kind": kind, "reason": str(against)}))
    return tuple(found)
