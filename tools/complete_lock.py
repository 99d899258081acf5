"""Make web/package-lock.json fit for every registry: run after each `npm install`.

Two repairs. Addresses of the registry are taken out. And where the registry at
hand lacks a package of another platform, npm leaves it out of the lock file
and `npm ci` then refuses everywhere: such optional packages are written in by
name, version and platform, without a checksum that no one here could compute.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

LOCK = Path(__file__).resolve().parents[1] / "web" / "package-lock.json"
SYSTEMS = ("darwin", "linux", "win32", "android", "freebsd", "openharmony", "wasm32")
CHIPS = ("arm64", "x64", "arm", "ia32", "riscv64", "ppc64", "s390x", "loong64", "wasm32")


def platform(name: str) -> dict[str, list[str]]:
    """Return os, cpu and libc as a package's name tells them."""
    parts = name.rsplit("/", 1)[-1].split("-")
    told: dict[str, list[str]] = {}
    for part in parts:
        if part in SYSTEMS and part != "wasm32":
            told["os"] = [part]
        if part in CHIPS:
            told["cpu"] = [part]
    if "musl" in parts:
        told["libc"] = ["musl"]
    if "gnu" in parts:
        told["libc"] = ["glibc"]
    return told


def completed(lock: dict[str, Any]) -> int:
    """Repair a lock file in place; return how many packages were written in."""
    packages: dict[str, Any] = lock["packages"]
    added = 0
    for entry in packages.values():
        entry.pop("resolved", None)
    for parent in list(packages.values()):
        for name, version in parent.get("optionalDependencies", {}).items():
            place = f"node_modules/{name}"
            if place in packages or not platform(name):
                continue
            packages[place] = {
                "version": version,
                **({"dev": True} if parent.get("dev") else {}),
                "optional": True,
                **platform(name),
            }
            added += 1
    head = {"": packages.pop("")}
    lock["packages"] = head | dict(sorted(packages.items()))
    return added


if __name__ == "__main__":
    body = json.loads(LOCK.read_text())
    count = completed(body)
    LOCK.write_text(json.dumps(body, indent=2, ensure_ascii=False) + "\n")
    print(f"{count} packages of other platforms written in")
