"""How the sign-in package behaves here: accounts are made by the plant."""

from __future__ import annotations

from allauth.account.adapter import DefaultAccountAdapter
from django.http import HttpRequest

__all__ = ["ClosedAdapter"]


class ClosedAdapter(DefaultAccountAdapter):  # type: ignore[misc]  # the package ships no types
    """No sign-up from outside."""

    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """Tell that no one can make an account by themselves."""
        del request
        return False
