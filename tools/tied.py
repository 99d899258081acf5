"""Run a program that ends with whoever started it, also where that one was killed.

tools/tied.py PROGRAM [ARGUMENTS]
"""

from __future__ import annotations

import ctypes
import os
import signal
import sys

_PDEATHSIG = 1


def tie() -> None:
    """End this process when the one that started it ends, however it ends."""
    ctypes.CDLL(None).prctl(_PDEATHSIG, signal.SIGTERM)


if __name__ == "__main__":
    # what the kernel was told outlives the change of program below
    tie()
    os.execv(sys.argv[1], sys.argv[1:])  # noqa: S606 - the arguments are this project's own
