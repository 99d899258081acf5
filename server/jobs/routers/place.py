"""The address of one motor's job."""

from __future__ import annotations

from typing import Annotated

from ninja import Path

__all__ = ["JOB", "Number"]

Number = Annotated[int, Path(ge=1, le=1_000_000)]
JOB = "/w/{works}/m/{tag}/j/{number}"
