"""A new plant, and the link that lets its first administrator in."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from zoneinfo import available_timezones

from django.core.exceptions import ValidationError
from django.core.management import BaseCommand, CommandError, CommandParser
from django.core.validators import validate_slug
from django.db import transaction
from django.utils import timezone

from office.models import Invite
from people.models import Role, Works
from people.tokens import hashed, new_token

__all__ = ["Command"]

HOLDS = timedelta(days=7)


class Command(BaseCommand):
    """Found a plant."""

    help = "Found a plant; prints the link for its first administrator, good for 7 days, once."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take its address, its name and its clock."""
        parser.add_argument("slug", help="its address: letters, digits, dashes")
        parser.add_argument("name", help="as its people call it")
        parser.add_argument("--time-zone", default="UTC", help="such as America/Denver")

    def handle(self, *args: Any, **options: Any) -> None:
        """Found it, or only make a new link where nobody belongs to it yet.

        Raises
        ------
        CommandError
            If the address is wrong or taken, or there is no such time zone.
        """
        del args
        slug, name, zone = options["slug"], options["name"].strip(), options["time_zone"]
        try:
            validate_slug(slug)
        except ValidationError as wrong:
            raise CommandError(f"{slug!r} is no address: use letters, digits, dashes.") from wrong
        if not name or len(name) > 120:
            raise CommandError("A plant needs a name of 1 to 120 letters.")
        if zone not in available_timezones():
            raise CommandError(f"There is no time zone {zone!r}; one is America/Denver.")
        token = new_token()
        with transaction.atomic():
            works, is_new = Works.objects.get_or_create(
                slug=slug, defaults={"name": name, "time_zone": zone}
            )
            if not is_new and works.memberships.exists():
                raise CommandError(f"{slug} is taken: {works.name}. Its administrators invite.")
            # a link that was lost before anybody used it lets nobody in any more
            Invite.objects.filter(works=works, used_at=None).update(revoked_at=timezone.now())
            Invite.objects.create(
                works=works,
                token_hash=hashed(token),
                role=Role.ADMIN,
                whom="the first administrator",
                ends_at=timezone.now() + HOLDS,
            )
        self.stdout.write(f"/join#{token}")
