"""The one list of Debian packages holds what the code calls."""

import re
from pathlib import Path

ROOT = Path(__file__).parents[3]
LIST = (ROOT / "tools" / "apt.txt").read_text()
CALLS = {
    "postgresql-15": ("tools/cluster.py", r"/usr/lib/postgresql/15/bin"),
    "chromium": ("tests/e2e/conftest.py", r"/usr/bin/chromium"),
    "poppler-utils": ("server/paper/tests/test_pack.py", r"pdftotext|pdffonts"),
    "libpango-1.0-0": ("server/answers/pdf.py", r"weasyprint"),
}


def test_every_listed_package_has_a_proof_and_what_is_called_is_listed():
    """A package without a proof is installed at every start; one not listed is missing elsewhere."""
    rows = [line.split() for line in LIST.splitlines() if line and not line.startswith("#")]

    assert all(len(row) == 3 and row[1].startswith("/") for row in rows)
    listed = {row[0] for row in rows}
    for package, (file, call) in CALLS.items():
        assert package in listed
        assert re.search(call, (ROOT / file).read_text()), file
