"""Who is signed in, and where they belong."""

from __future__ import annotations

import base64
from typing import cast

from django.http import HttpRequest
from django.utils.crypto import salted_hmac
from ninja import Router
from pydantic import Field

from api.schemas import REFUSALS, Schema
from evencoil.base import ConductorSize, LineNames, Message, Text, TradeTerms, say
from evencoil.codebook import (
    DeviceNames,
    Edition,
    Ferrules,
    PhaseColors,
    RatingRule,
    Swap,
    TwistOn,
    WireColors,
    check_amendment,
)
from evencoil.job import FileAmendment, WhichWires
from people.access import Caller, caller_in
from people.actions import Action
from people.models import Member, Role, User, Works
from people.roles import SIGNERS

__all__ = ["router"]

router = Router(tags=["people"])


class AmendmentOut(Schema):
    """What the place asks for beyond the code, with its name in words."""

    subject: str
    value: str
    author: str
    reason: str
    by: str = ""
    at: str = ""
    label: str


class WorksOut(Schema):
    """A works that the caller belongs to, and as what; ``may_sign`` in their own name."""

    slug: str
    name: str
    role: str
    may_sign: bool
    time_zone: str
    edition: int
    rating_rule: str
    swap_lines: str
    twist_on: str
    twist_on_largest: str
    rating_rule_reason: str
    wire_colors: str
    phase_colors: str
    control_wire: str
    ferrules: str
    device_names: str
    trade_terms: str
    line_names: str
    amendments: list[AmendmentOut]
    torque_record: WhichWires
    second_person: WhichWires
    two_sign: bool
    license_asked: bool
    guest_card: bool


class RulesIn(Schema):
    """Changes of the works' own rules: what is left out stays as it is."""

    edition: Edition | None = None
    rating_rule: RatingRule | None = None
    swap_lines: Swap | None = None
    twist_on: TwistOn | None = None
    twist_on_largest: Text | None = None
    rating_rule_reason: Text | None = Field(default=None, max_length=400)
    wire_colors: WireColors | None = None
    phase_colors: PhaseColors | None = None
    control_wire: Text | None = None
    ferrules: Ferrules | None = None
    device_names: DeviceNames | None = None
    trade_terms: TradeTerms | None = None
    line_names: LineNames | None = None
    amendments: tuple[FileAmendment, ...] | None = Field(default=None, max_length=24)
    torque_record: WhichWires | None = None
    second_person: WhichWires | None = None
    two_sign: bool | None = None
    license_asked: bool | None = None
    guest_card: bool | None = None


class SessionOut(Schema):
    """The signed-in person, or no one."""

    is_signed_in: bool
    username: str = ""
    display_name: str = ""
    works: list[WorksOut] = []


@router.get("/session", response=SessionOut, auth=None)
def session(request: HttpRequest) -> SessionOut:
    """Return who is signed in and the plant that they belong to."""
    user = request.user
    if not isinstance(user, User):
        return SessionOut(is_signed_in=False)
    members = (
        Member.objects.select_related("works")
        .filter(user=user, works__erased_at=None)
        .order_by("works__name")
    )
    return SessionOut(
        is_signed_in=True,
        username=user.username,
        display_name=str(user),
        works=[_works(member) for member in members],
    )


class SealOut(Schema):
    """What locks a person's unsent entries on a device while another person is signed in."""

    key: str


@router.post("/seal", response={200: SealOut, **REFUSALS})
def seal(request: HttpRequest) -> SealOut:
    """Return the key of one's own unsent entries; nobody else is ever told it."""
    user = cast("User", request.user)
    found = salted_hmac("people.seal", str(user.pk), algorithm="sha256").digest()
    return SealOut(key=base64.b64encode(found).decode())


def _works(member: Member) -> WorksOut:
    works = member.works
    return WorksOut(
        slug=works.slug,
        name=works.name,
        role=member.role,
        may_sign=member.role in SIGNERS,
        time_zone=works.time_zone,
        edition=works.edition,
        rating_rule=works.rating_rule,
        swap_lines=works.swap_lines,
        twist_on=works.twist_on,
        twist_on_largest=works.twist_on_largest,
        rating_rule_reason=works.rating_rule_reason,
        wire_colors=works.wire_colors,
        phase_colors=works.phase_colors,
        control_wire=works.control_wire,
        ferrules=works.ferrules,
        device_names=works.device_names,
        trade_terms=works.trade_terms,
        line_names=works.line_names,
        amendments=[
            AmendmentOut(**item, label=say(Message(f"amendment.{item['subject']}")))
            for item in works.amendments
        ],
        torque_record=cast("WhichWires", works.torque_record),
        second_person=cast("WhichWires", works.second_person),
        two_sign=works.two_sign,
        license_asked=works.license_asked,
        guest_card=works.guest_card,
    )


class SetRules(Action[Works]):
    """Change the plant's own rules: they hold for every job that does not say otherwise."""

    name = "set rules"
    least_role = Role.REVIEWER

    def __init__(self, caller: Caller, rules: RulesIn) -> None:
        super().__init__(caller)
        self.rules = rules

    @property
    def target(self) -> str:
        """Return the plant and what was set."""
        return f"{self.caller.works} {self.rules.model_dump(exclude_none=True)}"

    def perform(self) -> Works:
        """Keep them.

        Raises
        ------
        CoreError
            If the conductor size is in no table, or an amendment is looser than the code.
        """
        works = self.caller.works
        for size in (self.rules.twist_on_largest, self.rules.control_wire):
            if size is not None:
                ConductorSize(size)
        for amendment in self.rules.amendments or ():
            check_amendment(amendment.as_core())
        said = self.rules.model_dump(mode="json", exclude_none=True)
        if self.rules.amendments is not None:
            said["amendments"] = [
                self._entered(one).model_dump(mode="json") for one in self.rules.amendments
            ]
        for name, value in said.items():
            setattr(works, name, value)
        works.save(update_fields=list(said))
        return works

    def _entered(self, amendment: FileAmendment) -> FileAmendment:
        """Return an amendment with who entered it: as before if it was there, else the caller."""
        for item in self.caller.works.amendments:
            before = FileAmendment.model_validate(item)
            if before.as_core() == amendment.as_core():
                return before
        return amendment.model_copy(update=self.caller.stamp)


@router.patch("/w/{works}/rules", response={200: WorksOut, **REFUSALS})
def set_rules(request: HttpRequest, works: str, body: RulesIn) -> WorksOut:
    """Change the plant's own rules; a reviewer or an admin may."""
    caller = caller_in(request, works)
    SetRules(caller, body).run()
    return _works(Member.objects.select_related("works").get(works=caller.works, user=caller.user))
