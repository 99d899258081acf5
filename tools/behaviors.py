"""Play the whole catalogue and write how each circuit behaves: ``trouble/tables/behaviors.json``.

Call after a circuit, an option or a rule of playing changed:
``.venv/bin/python tools/behaviors.py``; it takes some minutes on two processors.
"""

from __future__ import annotations

import json
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

from evencoil.starters import catalogue
from evencoil.trouble.which import played_anew

OUT = Path(__file__).resolve().parents[1] / "core/src/evencoil/trouble/tables/behaviors.json"


def main() -> None:
    """Play every circuit and write the table."""
    with ProcessPoolExecutor() as pool:
        rows = [row for part in pool.map(played_anew, catalogue()) for row in part]
    about = {
        "title": "How each circuit of the catalogue behaves when it is worked",
        "source": "played by this project's own solver; tools/behaviors.py makes it anew",
        "rows": rows,
    }
    OUT.write_text(json.dumps(about, indent=0, sort_keys=True) + "\n", encoding="utf-8")
    print(f"{len(rows)} rows")


if __name__ == "__main__":
    main()
