"""Settings that must not serve a plant: said at the start, all of them at once.

A server behind HTTPS serves a plant; one without it serves this machine only.
"""

from __future__ import annotations

from collections.abc import Mapping

__all__ = ["LEAST_KEY", "RefusedSettingsError", "refuse_unfit"]

#: letters of a key that signs sessions, and how many of them differ at least
LEAST_KEY, LEAST_DIFFERENT = 50, 12
_OWN = {"127.0.0.1", "localhost", "[::1]"}
#: words that stand in keys somebody copied
_COPIED = ("demo", "change-me", "changeme", "insecure", "example", "secret-key")


class RefusedSettingsError(Exception):
    """The server does not start; the text says which settings, and what to do."""


def refuse_unfit(given: Mapping[str, str]) -> None:
    """Refuse an environment that must not serve a plant.

    Parameters
    ----------
    given : Mapping
        The environment's variables.

    Raises
    ------
    RefusedSettingsError
        Naming each setting that is wrong and what to set instead.
    """
    hosts = {host for host in given.get("EVENCOIL_HOSTS", "").split(",") if host}
    if given.get("EVENCOIL_HTTPS") != "1":
        if hosts - _OWN:
            raise RefusedSettingsError(
                f"EVENCOIL_HOSTS names {', '.join(sorted(hosts - _OWN))}, and EVENCOIL_HTTPS is not"
                " 1: passwords would cross the network in the clear. Put a proxy with TLS in front"
                " and set EVENCOIL_HTTPS=1; docs/operating.md says how."
            )
        return
    wrong = [*_of_keys(given), *_of_access(given, hosts)]
    if wrong:
        raise RefusedSettingsError("Even Coil does not start:\n- " + "\n- ".join(wrong))


def _of_keys(given: Mapping[str, str]) -> list[str]:
    wrong = []
    names = ["EVENCOIL_SECRET_KEY", "EVENCOIL_SECRET_KEY_OLD"]
    for name in names:
        for key in filter(None, given.get(name, "").split(",")):
            if len(key) < LEAST_KEY or len(set(key)) < LEAST_DIFFERENT:
                wrong.append(
                    f"{name} is {len(key)} letters, {len(set(key))} of them different; at least"
                    f" {LEAST_KEY} and {LEAST_DIFFERENT} are needed. Make one:"
                    " python3 -c 'import secrets; print(secrets.token_urlsafe(64))'"
                )
            elif any(word in key.lower() for word in _COPIED):
                wrong.append(f"{name} looks like one that was copied from an example. Make one.")
    if not given.get("EVENCOIL_SECRET_KEY"):
        wrong.append("EVENCOIL_SECRET_KEY is not set.")
    return wrong


def _of_access(given: Mapping[str, str], hosts: set[str]) -> list[str]:
    wrong = []
    if given.get("EVENCOIL_DEMO") == "1":
        wrong.append("EVENCOIL_DEMO is 1: everybody would know everybody's password. Unset it.")
    if given.get("EVENCOIL_DEBUG") == "1":
        wrong.append("EVENCOIL_DEBUG is 1: errors would show what is inside. Unset it.")
    if not given.get("EVENCOIL_DB_PASSWORD"):
        wrong.append("EVENCOIL_DB_PASSWORD is not set.")
    if not hosts - _OWN:
        wrong.append("EVENCOIL_HOSTS names no address that others reach, such as coil.example.com.")
    if any("*" in host for host in hosts):
        wrong.append("EVENCOIL_HOSTS holds *: any name would be answered. Name your own.")
    return wrong
