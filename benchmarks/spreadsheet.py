"""10,000 motors sized with evidence, beside an open spreadsheet program on the same machine.

    benchmarks/spreadsheet.py [MOTORS]

The program (Debian's package libreoffice-calc, wanted for this only) opens a workbook of the same
motors with ten plain formulas each, recalculates and saves, headless. Here the same rows are read
as nameplates, judged against their supply, sized with evidence and written as JSON, a line for
each motor. One after the other, three times; the medians are compared. Its start, measured on a
workbook of one row, is printed too.
"""

from __future__ import annotations

import json
import random
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

sys.path[:0] = [str(Path(__file__).parents[1] / "core/src"), str(Path(__file__).parent)]

import openpyxl
from designs import POWERS, SUPPLIES

from evencoil.base import say
from evencoil.codebook.profile import Profile
from evencoil.plate.reader import read
from evencoil.plate.supply import judge, read_supply
from evencoil.sizing.branch_circuit import MotorCircuit, branch_circuit
from evencoil.sizing.inputs import SizeInputs

ROUNDS = 3
#: of a row: hp in A, volts in B, amps in C; what a person would write beside them
FORMULAS = (
    "=C{n}*1.25",
    "=C{n}*1.15",
    "=C{n}*1.75",
    "=C{n}*2.5",
    "=A{n}*746/(B{n}*1.732*C{n})",
    "=ROUNDUP(D{n}/5,0)*5",
    "=IF(D{n}>100,1,2)",
    "=MAX(E{n},F{n},G{n})",
    "=ROUND(D{n}*0.88,1)",
    "=SUM(D{n}:G{n})/4",
)
Row = tuple[str, str, float, str]


def rows(count: int) -> list[Row]:
    """Return motors: hp, volts on the plate, amps, supply."""
    chosen = random.Random(7)  # noqa: S311 - no secret
    found = []
    for _ in range(count):
        volts, system = chosen.choice(SUPPLIES)
        found.append((chosen.choice(POWERS), volts, chosen.randint(20, 2000) / 10, system))
    return found


def sized(part: list[Row]) -> str:
    """Return some motors sized, one JSON object a line."""
    profile, lines = Profile(), []
    for power, volts, amps, system in part:
        supply = read_supply(system)
        reading = read(f"{power} HP {volts} {amps} A 1765 RPM 60 HZ 3 PH SF 1.15 CODE G")
        size = SizeInputs(
            conductor_material="cu",
            insulation="THWN",
            termination_c=75,
            ambient_c="40",
            current_carrying=3,
            protection_kind="dual_element_fuse",
        )
        case = MotorCircuit(
            reading=reading,
            supply=supply,
            verdict=judge(reading.plate, supply),
            error=None,
            size=size,
            profile=profile,
        )
        steps, figures = branch_circuit(case)[:2]
        del figures
        lines.append(
            json.dumps(
                [
                    {
                        "id": step.id,
                        "value": step.text,
                        "unit": step.unit,
                        "rule": str(step.rule),
                        "working": say(step.working),
                    }
                    for step in steps
                ],
                ensure_ascii=False,
            )
        )
    return "\n".join(lines)


def workbook(path: Path, motors: list[Row]) -> None:
    """Write the motors with their formulas, none of them calculated."""
    book = openpyxl.Workbook(write_only=True)
    sheet = book.create_sheet("motors")
    for n, (power, volts, amps, _) in enumerate(motors, 1):
        first = float(str(volts).split("/")[0])
        sheet.append((float(power), first, amps, *(text.format(n=n) for text in FORMULAS)))
    book.save(path)


def recalculated(folder: Path, source: Path) -> float:
    """Open, recalculate and save a workbook; return the seconds."""
    out = folder / "out"
    begun = time.perf_counter()
    subprocess.run(
        [
            shutil.which("soffice") or "soffice",
            f"-env:UserInstallation=file://{folder}/profile",
            "--headless",
            "--norestore",
            "--convert-to",
            "xlsx",
            "--outdir",
            str(out),
            str(source),
        ],
        check=True,
        capture_output=True,
        timeout=600,
    )
    took = time.perf_counter() - begun
    made = openpyxl.load_workbook(out / source.name, read_only=True, data_only=True)
    first = next(made.active.iter_rows(max_row=1, values_only=True))
    if first[3] is None or abs(float(first[3]) - float(first[2]) * 1.25) > 1e-9:
        raise SystemExit("the program did not calculate")
    return took


def ours(folder: Path, motors: list[Row], processes: int) -> float:
    """Size every motor with evidence and write it; return the seconds."""
    begun = time.perf_counter()
    if processes == 1:
        said = sized(motors)
    else:
        parts = [motors[start :: processes * 8] for start in range(processes * 8)]
        with ProcessPoolExecutor(processes) as pool:
            said = "\n".join(pool.map(sized, parts))
    (folder / "ours.jsonl").write_text(said)
    return time.perf_counter() - begun


if __name__ == "__main__":
    motors = rows(int(sys.argv[1]) if len(sys.argv) > 1 else 10_000)
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        workbook(folder / "motors.xlsx", motors)
        workbook(folder / "one.xlsx", motors[:1])
        recalculated(folder, folder / "one.xlsx")  # makes its profile
        start = recalculated(folder, folder / "one.xlsx")
        theirs, one, two = [], [], []
        for _ in range(ROUNDS):
            theirs.append(recalculated(folder, folder / "motors.xlsx"))
            one.append(ours(folder, motors, 1))
            two.append(ours(folder, motors, 2))
        size = (folder / "ours.jsonl").stat().st_size
    them, single, double = (statistics.median(each) for each in (theirs, one, two))
    print(f"{len(motors)} motors: spreadsheet {them:.2f} s, of it its start {start:.2f} s")
    print(f"sized with evidence, {size / 1e6:.0f} MB written: {single:.2f} s and {double:.2f} s")
    print(f"ratio in one process {single / them:.2f}, in two {double / them:.2f}")
    less = them - start
    print(f"without its start: {single / less:.2f} and {double / less:.2f}")
