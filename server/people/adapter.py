"""How the sign-in package behaves here: accounts are made by the plant."""

from __future__ import annotations

from typing import Any

from allauth.account.adapter import DefaultAccountAdapter
from allauth.mfa.adapter import DefaultMFAAdapter
from django.http import HttpRequest

__all__ = ["ClosedAdapter", "PasskeyAdapter"]


class ClosedAdapter(DefaultAccountAdapter):  # type: ignore[misc]  # the package ships no types
    """No sign-up from outside."""

    def is_open_for_signup(self, request: HttpRequest) -> bool:
        """Tell that no one can make an account by themselves."""
        del request
        return False

    def _get_login_attempts_cache_key(self, request: HttpRequest, **credentials: Any) -> str:
        """Count wrong tries by name and address together.

        By name alone a stranger could lock a person out; by address alone a plant behind one
        address would be one person. The limit by address stays beside it.
        """
        key: str = super()._get_login_attempts_cache_key(request, **credentials)
        return f"{key}:{self.get_client_ip(request)}"


class PasskeyAdapter(DefaultMFAAdapter):  # type: ignore[misc]  # the package ships no types
    """A passkey is another way to sign in, never a second step after the password."""

    def is_mfa_enabled(self, user: Any, types: Any = None) -> bool:
        """Tell that no second step is asked for."""
        del user, types
        return False

    def generate_authenticator_name(self, user: Any, type: Any) -> str:  # noqa: A002  # the package's own name
        """Return what a passkey is called until its owner says otherwise."""
        del user, type
        return "This device"
