"""A plant's data over the network: asked for as one file, taken, erased."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from allauth.account.internal.flows.reauthentication import did_recently_reauthenticate
from django.db.models import Max
from django.http import HttpRequest, StreamingHttpResponse
from ninja import Router, Status
from pydantic import Field, StringConstraints

from api.files import answers_file
from api.problems import ProblemError
from api.schemas import REFUSALS, ProblemOut, Schema
from office.erase import EraseWorks
from office.models import Takeout
from office.router import need_admin
from office.takeout import make_takeout
from people.access import Caller, caller_in, not_found
from people.actions import Action
from people.models import Role, Works

__all__ = ["router"]

router = Router(tags=["office"])
TakeoutNumber = Annotated[int, Field(ge=1, le=1_000_000)]


class TakeoutOut(Schema):
    """A plant's data as a file: by whom, how far, how large, what was left out."""

    n: int
    by: str
    at: str
    state: Literal["running", "done", "failed"]
    done: int
    total: int
    size: int
    sha256: str
    left: list[str]


class EraseIn(Schema):
    """The plant's name, typed by whoever erases it."""

    name: Annotated[str, StringConstraints(max_length=200)]


class AskTakeout(Action[Takeout]):
    """Ask for everything of a plant as one file."""

    name = "ask for the data"
    least_role = Role.ADMIN

    @property
    def target(self) -> str:
        """Return the plant."""
        return self.caller.works.name

    def perform(self) -> Takeout:
        """Ask a worker for it.

        Raises
        ------
        ProblemError
            409 while one is being made.
        """
        works = Works.objects.select_for_update().get(pk=self.caller.works.pk)
        own = Takeout.objects.filter(works=works)
        if own.filter(state="running").exists():
            raise ProblemError(
                409,
                code="running",
                detail="Such a file is being made now.",
                field="",
                hint="Wait until it is done.",
            )
        # one at a time is kept: they are as large as the plant
        n = (own.aggregate(n=Max("n"))["n"] or 0) + 1
        own.delete()
        made = Takeout.objects.create(works=works, n=n, by=self.caller.user)
        make_takeout.enqueue(made.pk)
        return made


def _takeout(row: Takeout, caller: Caller) -> TakeoutOut:
    return TakeoutOut(
        n=row.n,
        by=str(row.by),
        at=caller.works.local(row.at),
        state=row.state,  # type: ignore[arg-type]  # one of the three
        done=row.done,
        total=row.total,
        size=row.size,
        sha256=row.sha256,
        left=row.left,
    )


@router.get("/w/{works}/takeouts", response={200: list[TakeoutOut], **REFUSALS})
def takeouts(request: HttpRequest, works: str) -> list[TakeoutOut]:
    """Return the files of a plant's data that are there or being made; for administrators."""
    caller = caller_in(request, works)
    need_admin(caller, "The data of a whole plant")
    rows = Takeout.objects.select_related("by").filter(works=caller.works).order_by("-n")
    return [_takeout(row, caller) for row in rows]


@router.post("/w/{works}/takeouts", response={200: TakeoutOut, **REFUSALS, 409: ProblemOut})
def ask_takeout(request: HttpRequest, works: str) -> TakeoutOut:
    """Ask for everything of a plant as one file; a worker makes it."""
    caller = caller_in(request, works)
    return _takeout(AskTakeout(caller).run(), caller)


@router.get(
    "/w/{works}/takeouts/{n}/data.zip",
    response=REFUSALS,
    openapi_extra=answers_file("application/zip", is_binary=True),
)
def takeout_file(request: HttpRequest, works: str, n: TakeoutNumber) -> StreamingHttpResponse:
    """Return the file, a megabyte at a time."""
    caller = caller_in(request, works)
    need_admin(caller, "The data of a whole plant")
    row = Takeout.objects.filter(works=caller.works, n=n, state="done").first()
    if row is None:
        raise not_found("file")

    def parts() -> Iterator[bytes]:
        place = 1
        while data := row.parts.filter(n=place).values_list("data", flat=True).first():
            yield bytes(data)
            place += 1

    answer = StreamingHttpResponse(parts(), content_type="application/zip")
    answer.headers["Content-Length"] = str(row.size)
    answer.headers["Content-Disposition"] = (
        f'attachment; filename="{caller.works.slug} data {row.n}.zip"'
    )
    answer.headers["Cache-Control"] = "no-store"
    return answer


@router.post("/w/{works}/erase", response={204: None, **REFUSALS, 409: ProblemOut})
def erase(request: HttpRequest, works: str, body: EraseIn) -> Status[None]:
    """Erase a plant and everything in it; nothing brings it back but the server's own backups."""
    caller = caller_in(request, works)
    EraseWorks(caller, body.name, is_sure=did_recently_reauthenticate(request)).run()
    return Status(204, None)
