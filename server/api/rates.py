"""How often one address, or one person, may ask; counted in the shared cache."""

from __future__ import annotations

import copy

from django.http import HttpRequest
from ninja.throttling import SimpleRateThrottle

__all__ = ["ByAddress", "ByPerson"]


class _Rate(SimpleRateThrottle):
    """A rate that several threads ask at once: each request counts on its own."""

    def allow_request(self, request: HttpRequest) -> bool:
        """Tell whether this request may be answered, and count it."""
        return SimpleRateThrottle.allow_request(copy.copy(self), request)

    def wait(self) -> None:
        """Name no time: the refusal says what to do."""
        return


class ByAddress(_Rate):
    """Counts by address, signed in or not."""

    scope = "address"

    def get_cache_key(self, request: HttpRequest) -> str:
        """Return what is counted under."""
        return f"rate-{self.scope}-{self.get_ident(request)}"


class ByPerson(_Rate):
    """Counts by person, and by address where nobody is signed in."""

    def __init__(self, rate: str, scope: str) -> None:
        super().__init__(rate)
        self.scope = scope

    def get_cache_key(self, request: HttpRequest) -> str:
        """Return what is counted under."""
        return f"rate-{self.scope}-{request.user.pk or self.get_ident(request)}"
