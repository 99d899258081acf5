"""What held today, on which files: a part need not run again on the same ones.

The long parts of ``./check`` ask before they run. What a part stands on is every
file of the clone that git knows or would take in, but for those that it never
reads; beside them Python, Debian's packages and the day. If all is as it was when
the part last held, it would only be the same run again. Random tests look anew
each day, in CI (a fresh clone remembers nothing), and whenever a part is named
or `./check --anew` is called.
"""

from __future__ import annotations

import datetime as dt
import hashlib
import json
import os
import re
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path

__all__ = ["PARTS", "Held", "stands_on"]

_TOLD = r"[^/]*\.md$|docs/.*\.md$|docs/screenshots/|changelog\.d/|benchmarks/"
#: what each part never reads; whatever is not named here counts
PARTS = {
    "core": re.compile(rf"{_TOLD}|server/|web/|tests/"),
    "server": re.compile(rf"{_TOLD}|core/tests/|web/src/|tests/e2e/test_"),
    "e2e": re.compile(rf"{_TOLD}|core/tests/|server/[^/]+/tests/|web/src/.*\.test\.tsx?$"),
}
_PACKAGES = Path("/var/lib/dpkg/status")


def today() -> str:
    """Return the day, as the world counts it."""
    return dt.datetime.now(dt.UTC).date().isoformat()


def stands_on(clone: Path, part: str) -> list[str]:
    """Return the files that a part stands on, sorted; none if git cannot tell.

    Parameters
    ----------
    clone : Path
        The folder of the project.
    part : str
        One of `PARTS`.
    """
    told = subprocess.run(
        ["git", "ls-files", "-z", "--cached", "--others", "--exclude-standard"],
        check=False,
        cwd=clone,
        capture_output=True,
        text=True,
    )
    names = told.stdout.split("\0") if told.returncode == 0 else []
    return sorted(name for name in names if name and not PARTS[part].match(name))


class Held:
    """What held, kept in one file of the clone that git does not know."""

    def __init__(self, clone: Path) -> None:
        self.clone = clone
        self.file = clone / ".run" / "held.json"
        self._turn = threading.Lock()  # two parts may end together

    def _kept(self) -> dict[str, dict[str, str]]:
        try:
            kept = json.loads(self.file.read_text())
        except (OSError, ValueError):
            return {}
        return kept if isinstance(kept, dict) else {}

    def mark(self, part: str) -> str:
        """Return one word for all that a part stands on; empty if that cannot be told."""
        names = stands_on(self.clone, part)
        if not names:
            return ""
        word = hashlib.sha256()
        for text in self._around():
            word.update(text.encode() + b"\0")
        for name in names:
            file = self.clone / name
            # a file that git knows and that is gone counts too
            body = file.read_bytes() if file.is_file() else b"gone"
            word.update(name.encode() + b"\0" + hashlib.sha256(body).digest())
        return word.hexdigest()

    def _around(self) -> Iterator[str]:
        yield sys.version
        yield today()
        yield _PACKAGES.read_text() if _PACKAGES.is_file() else ""
        yield from sorted(f"{key}={os.environ[key]}" for key in os.environ if "EVENCOIL" in key)

    def said(self, part: str, mark: str) -> str | None:
        """Return what a part said when it held on just this, and when; None if it must run."""
        kept = self._kept().get(part, {})
        return f"{kept['at']}: {kept['said']}" if mark and kept.get("mark") == mark else None

    def keep(self, part: str, mark: str, said: str) -> None:
        """Keep that a part held; not if a file changed while it ran."""
        if not mark or mark != self.mark(part):
            return
        with self._turn:
            self._write(part, mark, said)

    def _write(self, part: str, mark: str, said: str) -> None:
        at = f"{dt.datetime.now().astimezone():%H:%M}"
        kept = {**self._kept(), part: {"mark": mark, "at": at, "said": said}}
        self.file.write_text(json.dumps(kept, indent=1))
