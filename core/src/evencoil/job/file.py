"""The open job format: what people gave for one job, as JSON.

Versioned: every file carries ``schema``; `UPCASTS` holds one pure function for
each step from n to n+1; reading upcasts, writing stores the newest. A file
newer than this code is refused with its version. The published JSON Schema is
``docs/job.schema.json``. Only inputs are in the file: figures are calculated
again wherever it is opened.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Mapping
from typing import Any, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from evencoil.base import (
    CoreError,
    FileFormatError,
    LineNames,
    Message,
    MotorTag,
    NewerSchemaError,
    ShortText,
    Text,
    TradeTerms,
)
from evencoil.codebook import (
    Amendment,
    AmendmentSubject,
    DeviceNames,
    Edition,
    Ferrules,
    PhaseColors,
    Profile,
    RatingRule,
    Swap,
    TwistOn,
    WireColors,
)
from evencoil.job.inputs import STEPS, JobInputs
from evencoil.job.work_out import work_out
from evencoil.job.worked import Worked

__all__ = [
    "FORMAT",
    "MAX_BYTES",
    "SCHEMA",
    "UPCASTS",
    "FileAmendment",
    "FileMotor",
    "FileProfile",
    "JobFile",
    "JobKind",
    "canonical",
    "dump",
    "fingerprint",
    "json_schema",
    "load",
    "upcast_step",
    "work_out_job",
]

FORMAT = "even-coil-job"
SCHEMA = 7
MAX_BYTES = 1_000_000
MAX_DEPTH = 40


def _from_1(body: dict[str, Any]) -> dict[str, Any]:
    """Give a file of schema 1 the Leads step that schema 2 brought."""
    return {**body, "leads": {"winding": None, "joints": []}}


def _from_2(body: dict[str, Any]) -> dict[str, Any]:
    """Give a file of schema 2 the Starter step that schema 3 brought."""
    return {**body, "starter": {}}


def _from_3(body: dict[str, Any]) -> dict[str, Any]:
    """Give a file of schema 3 the steps that schema 4 brought; all start empty."""
    return {**body, "joints": {}, "bench": {}, "trust": {}, "replace": {}}


def _from_4(body: dict[str, Any]) -> dict[str, Any]:
    """Take a file of schema 4 as it is: schema 5 only adds parts to sizes and profile."""
    return dict(body)


def _from_5(body: dict[str, Any]) -> dict[str, Any]:
    """Take a file of schema 5 as it is: schema 6 only adds parts to the starter."""
    return dict(body)


#: a name of schema 6 and the trade's word for it in schema 7, by step
_RENAMED: dict[str, dict[str, str]] = {
    "size": {"school": "rating_rule", "there": "existing"},
    "starter": {"recipe": "standard_circuit"},
    "profile": {
        "school": "rating_rule",
        "school_reason": "rating_rule_reason",
        "wire_colours": "wire_colors",
    },
}
_RULES = {"exam": "main_rule", "field": "next_size_up"}


_SPELLED = {"colour": "color", "colours": "colors"}


def _spelled(given: Any) -> Any:
    """Return the same with the American spelling of every name in it."""
    if isinstance(given, dict):
        return {_SPELLED.get(name, name): _spelled(value) for name, value in given.items()}
    if isinstance(given, list):
        return [_spelled(value) for value in given]
    return given


def _renamed(part: str, body: Any) -> Any:
    names = _RENAMED.get(part)
    if names is None or not isinstance(body, dict):
        return body
    now = {names.get(name, name): value for name, value in body.items()}
    if isinstance(rule := now.get("rating_rule"), str):
        now["rating_rule"] = _RULES.get(rule, rule)
    return now


def _from_6(body: dict[str, Any]) -> dict[str, Any]:
    """Give the inputs of a file of schema 6 the trade's names that schema 7 has."""
    return {part: _spelled(_renamed(part, inputs)) for part, inputs in body.items()}


UPCASTS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: _from_1,
    2: _from_2,
    3: _from_3,
    4: _from_4,
    5: _from_5,
    6: _from_6,
}


class _Model(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


JobKind = Literal["new", "replace", "convert", "as_found"]


class FileMotor(_Model):
    """Which motor: an id that never changes, and the tag on it today."""

    id: UUID
    motor_tag: MotorTag
    name: Text = ""
    machine: ShortText = ""


class FileAmendment(_Model):
    """What the place asks for beyond the code: by whom, and why; who entered it, and when."""

    subject: AmendmentSubject
    value: Text = ""
    author: Text = Field(min_length=1)
    reason: Text = Field(min_length=1)
    by: Text = ""
    at: Text = ""

    def as_core(self) -> Amendment:
        """Return it as the calculation takes it."""
        return Amendment(
            subject=self.subject, value=self.value, author=self.author, reason=self.reason
        )


class FileProfile(_Model):
    """The works' own rules at the time of writing."""

    edition: Edition = 2023
    rating_rule: RatingRule = "next_size_up"
    swap_lines: Swap = "L1-L3"
    twist_on: TwistOn = "building"
    twist_on_largest: Text = "10"
    rating_rule_reason: Text = ""
    wire_colors: WireColors = "nfpa79"
    phase_colors: PhaseColors = "plain"
    control_wire: Text = "14"
    ferrules: Ferrules = "number"
    device_names: DeviceNames = "iec"
    trade_terms: TradeTerms = "american"
    line_names: LineNames = "L1-L2-L3"
    amendments: tuple[FileAmendment, ...] = Field(default=(), max_length=24)

    def as_core(self) -> Profile:
        """Return it as the rules take it."""
        said = self.model_dump(exclude={"amendments"})
        more = tuple(item.as_core() for item in self.amendments)
        return Profile(**said, amendments=more)


class _Head(_Model):
    """What stands in a job file before the inputs."""

    format: Literal["even-coil-job"] = "even-coil-job"
    schema_: Literal[7] = Field(default=7, alias="schema")
    job_id: UUID
    kind: JobKind = "new"
    motor: FileMotor
    profile: FileProfile = FileProfile()


class JobFile(JobInputs, _Head):
    """One job of one motor: everything that people entered, nothing calculated."""

    @property
    def inputs(self) -> JobInputs:
        """Return the inputs alone."""
        return JobInputs.model_construct(**{step: getattr(self, step) for step in STEPS})


def _not_json(reason: str) -> FileFormatError:
    return FileFormatError(
        Message("file.not_json", {"reason": reason[:160]}),
        field="file",
        hint=Message("file.not_json.hint"),
    )


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is no number")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    kept = dict(pairs)
    if len(kept) != len(pairs):
        raise ValueError("a name stands twice in one object")
    return kept


def _parse(data: bytes) -> dict[str, Any]:
    if len(data) > MAX_BYTES:
        raise FileFormatError(
            Message("file.too_large", {"size": str(len(data)), "most": str(MAX_BYTES)}),
            field="file",
            hint=Message("file.too_large.hint"),
        )
    try:
        body = json.loads(data, parse_constant=_no_constant, object_pairs_hook=_once)
    except RecursionError as deep:
        raise _not_json("nested too deeply") from deep
    except ValueError as wrong:
        raise _not_json(str(wrong)) from wrong
    if not isinstance(body, dict) or body.get("format") != FORMAT:
        raise FileFormatError(
            Message("file.other_format", {"format": FORMAT}),
            field="format",
            hint=Message("file.other_format.hint"),
        )
    return body


def _upcast(
    body: dict[str, Any],
    newest: int,
    upcasts: Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]],
) -> dict[str, Any]:
    version = body.get("schema")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise FileFormatError(
            Message("file.no_schema"), field="schema", hint=Message("file.no_schema.hint")
        )
    if version > newest:
        raise NewerSchemaError(
            Message("file.newer", {"version": str(version)[:20], "known": str(newest)}),
            field="schema",
            hint=Message("file.newer.hint"),
        )
    while version < newest:
        body = upcasts[version](body)
        version += 1
        body["schema"] = version
    return body


def _first_error(wrong: ValidationError) -> FileFormatError:
    """Turn a validation error into the one shape, naming the field by its path."""
    first = wrong.errors()[0]
    said = str(first["msg"]).removeprefix("Value error, ")
    return FileFormatError(
        Message("file.field", {"reason": said[:200], "more": str(len(wrong.errors()) - 1)}),
        field=".".join(str(part) for part in first["loc"])[:120],
        hint=Message("file.field.hint"),
    )


def load(
    data: bytes,
    *,
    newest: int = SCHEMA,
    upcasts: Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]] = UPCASTS,
) -> JobFile:
    """Read a job file.

    Parameters
    ----------
    data : bytes
        The whole file, UTF-8 JSON, at most `MAX_BYTES`.
    newest : int
        Schema version that this code writes.
    upcasts : mapping
        From version n, the function that gives version n + 1.

    Returns
    -------
    JobFile
        Validated, in the newest schema.

    Raises
    ------
    FileFormatError
        If it is not JSON, not a job file, or a field is wrong; the field is
        named by its path. Nothing is taken over.
    NewerSchemaError
        If it was written by a newer Even Coil.
    """
    body = _upcast(_parse(data), newest, upcasts)
    try:
        return JobFile.model_validate_json(json.dumps(body))
    except ValidationError as wrong:
        raise _first_error(wrong) from wrong
    except CoreError:
        raise
    except (ValueError, RecursionError) as wrong:
        raise _not_json(str(wrong)) from wrong


def upcast_step(step: str, body: dict[str, Any], version: int) -> dict[str, Any]:
    """Return the stored inputs of one step in the newest schema.

    Parameters
    ----------
    step : str
        One of `STEPS`.
    body : dict
        The inputs as they were stored.
    version : int
        Schema that they were stored in; the newest is returned as it is.
    """
    known = {step: body}
    for older in range(version, SCHEMA):
        known = UPCASTS[older](known)
    return known[step]


def canonical(job: JobFile) -> bytes:
    """Return the canonical JSON of a job: sorted keys, decimals as text."""
    body = job.model_dump(mode="json", by_alias=True)
    return json.dumps(
        body, sort_keys=True, ensure_ascii=False, separators=(",", ":"), allow_nan=False
    ).encode()


def fingerprint(job: JobFile) -> str:
    """Return the SHA-256 of the canonical JSON, for issues and comparison."""
    return hashlib.sha256(canonical(job)).hexdigest()


def dump(job: JobFile) -> bytes:
    """Return a job as a file for people: indented, keys in the model's order."""
    body = job.model_dump(mode="json", by_alias=True)
    return (json.dumps(body, indent=2, ensure_ascii=False, allow_nan=False) + "\n").encode()


def json_schema() -> dict[str, Any]:
    """Return the JSON Schema of the newest job file."""
    schema = JobFile.model_json_schema(by_alias=True)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def work_out_job(job: JobFile) -> Worked:
    """Calculate a job file.

    Raises
    ------
    CoreError
        As `evencoil.work_out`.
    """
    return work_out(job.inputs, job.profile.as_core())
