"""What goes out by mail: to files, unless the server's settings name a mail server."""

from __future__ import annotations

from django.core.mail import send_mail

__all__ = ["send_invite"]


def send_invite(address: str, plant: str, by: str, role: str, link: str, ends: str) -> None:
    """Write to whom an invitation is for.

    Parameters
    ----------
    address : str
        Where to.
    plant, by, role : str
        Where they are invited, by whom, as what.
    link : str
        The one that lets them in.
    ends : str
        Until when, on the plant's clock.
    """
    send_mail(
        f"Your invitation to {plant}",
        f"{by} invites you to {plant} in Even Coil, as {role}.\n\n{link}\n\n"
        f"The link lets one person in, once, until {ends}. Whoever has it can use it: do not pass"
        " it on. If you do not know what this is about, do nothing.\n",
        None,
        [address],
    )
