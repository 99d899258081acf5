"""Secrets that let somebody in: made, kept as their hash, and found again by it."""

from __future__ import annotations

import hashlib
import secrets

from django.utils import timezone

from people.models import AccessToken

__all__ = ["hashed", "live_token", "new_token"]


def new_token() -> str:
    """Return a secret: said once, kept only as its hash."""
    return secrets.token_urlsafe(32)


def hashed(token: str) -> str:
    """Return what is kept of a secret.

    Parameters
    ----------
    token : str
        As it stands in a link or a header.
    """
    return hashlib.sha256(token.encode()).hexdigest()


def live_token(token: str) -> AccessToken | None:
    """Return the token of a program that still opens its plant.

    Parameters
    ----------
    token : str
        As it stands in the header.
    """
    return (
        AccessToken.objects.select_related("user", "works")
        .filter(
            token_hash=hashed(token),
            ends_at__gt=timezone.now(),
            user__is_active=True,
            works__erased_at=None,
        )
        .first()
    )
