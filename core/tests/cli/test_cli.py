"""The command line: JSON or table out, exit codes, errors with field and hint."""

import io
import json
from pathlib import Path

import pytest

from evencoil.cli.main import main

GOLDEN = Path(__file__).parents[1] / "golden" / "job-schema-5.json"


def written(folder, **changes):
    """Write the golden job with some fields changed and return its path."""
    path = folder / "job.json"
    path.write_text(json.dumps({**json.loads(GOLDEN.read_text()), **changes}))
    return str(path)


def test_size_as_json(capsys):
    """Every figure comes with value, unit, rule and working; exit code 0."""
    assert main(["size", str(GOLDEN), "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)

    # the branch circuit first; then what the drawn starter adds
    assert [figure["shown"] for figure in said["figures"]][:6] == [
        "21",
        "10 AWG",
        "40",
        "24.12",
        "10 AWG",
        "60",
    ]
    assert {figure["id"] for figure in said["figures"][6:]} >= {"transformer_va"}
    worked = [step for step in said["steps"] if step["kind"] == "calculated"]
    assert all(step["rule"] and step["working"] for step in worked)


def test_size_as_table(capsys):
    """The table shows each step with its section."""
    assert main(["size", str(GOLDEN)]) == 0
    said = capsys.readouterr().out

    assert "21 A × 1.25 = 26.25 A" in said
    assert "Table 430.250" in said


def test_a_withheld_figure_exits_with_1_and_says_why(tmp_path, capsys):
    """230 V only on 480 V: no figure, the reason, exit code 1."""
    path = written(tmp_path, plate={"text": "15 HP 230 V 3 PH"})

    assert main(["size", path]) == 1
    assert "The motor would burn out." in capsys.readouterr().out


def test_json_tells_a_withheld_figure_too(tmp_path, capsys):
    """The refusal has the one shape of every problem."""
    path = written(tmp_path, plate={"text": "600 HP 460 V 3 PH"})

    assert main(["size", path, "--format", "json"]) == 1
    refusal = json.loads(capsys.readouterr().out)["figures"][0]["refusal"]
    assert set(refusal) == {"code", "detail", "field", "hint"}


@pytest.mark.parametrize("command", ["size", "validate"])
def test_a_wrong_file_exits_with_2_and_names_the_field(command, tmp_path, capsys):
    """The error goes to standard error with field and next step, as line or JSON."""
    path = written(tmp_path, schema=9)

    assert main([command, path]) == 2
    assert capsys.readouterr().err.startswith("schema: The file has schema 9")
    assert main([command, path, "--format", "json"]) == 2
    assert json.loads(capsys.readouterr().err)["code"] == "newer_schema"


def test_a_file_that_is_not_there(capsys):
    """The name is said, and nothing is traced."""
    assert main(["size", "nowhere.json"]) == 2
    assert "nowhere.json cannot be read" in capsys.readouterr().err


def test_validate_and_schema(capsys, monkeypatch):
    """A good file is valid with its fingerprint; the schema is JSON; ``-`` reads a pipe."""
    assert main(["validate", str(GOLDEN)]) == 0
    assert "valid, schema 7" in capsys.readouterr().out
    monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(GOLDEN.read_bytes())))
    assert main(["validate", "-", "--format", "json"]) == 0
    assert json.loads(capsys.readouterr().out)["valid"] is True
    assert main(["schema"]) == 0
    assert json.loads(capsys.readouterr().out)["title"] == "JobFile"


def test_a_wrong_call_exits_with_2():
    """No command is a wrong call."""
    with pytest.raises(SystemExit) as caught:
        main([])
    assert caught.value.code == 2


def test_connect_tells_the_joints_and_what_the_given_ones_do(tmp_path, capsys):
    """The derived connection, then a wrong one with its volts; a refusal exits with 1."""
    assert main(["connect", str(GOLDEN), "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert said["connection"] == "series_wye"
    assert said["as_joined"]["verdict"] == "right"
    assert main(["connect", str(GOLDEN)]) == 0
    assert "L1  T1" in capsys.readouterr().out

    leads = {"winding": "9-wye", "joints": [{"id": "x", "leads": ["T1", "T1"]}]}
    assert main(["connect", written(tmp_path, leads=leads), "--format", "json"]) == 1
    assert json.loads(capsys.readouterr().out)["as_joined"]["refusal"]["code"] == "refused"
    short = [{"id": "x", "leads": ["T1", "T2", "L2"], "line": "L1"}]
    path = written(tmp_path, leads={"winding": "9-wye", "joints": short})
    assert main(["connect", path]) == 1
    out = capsys.readouterr().out
    assert "bolted short circuit" in out
    path = written(tmp_path, plate={"text": "15 HP 230 V 3 PH 3 LEADS"}, leads={})
    assert main(["connect", path]) == 1
    assert "withheld: 480 V is 2.09 times" in capsys.readouterr().out


def test_wirelist_as_table_json_and_csv(tmp_path, capsys):
    """Every wire with its number and ends; the same wires in each form."""
    assert main(["wirelist", str(GOLDEN)]) == 0
    assert "START.14" in capsys.readouterr().out
    assert main(["wirelist", str(GOLDEN), "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert main(["wirelist", str(GOLDEN), "--format", "csv"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[0] == "number,from,to,way,color,wire_id"
    assert len(lines) == len(said["wires"]) + 1
    rated = {row["tag"]: row["ratings"] for row in said["material"]}
    assert ["iset", "19.3", "A"] in rated["OL"]
    assert ["a", "40", "A"] in rated["DISC"]

    path = written(tmp_path, starter={})
    assert main(["wirelist", path]) == 2
    assert "No starter is chosen" in capsys.readouterr().err
    path = written(tmp_path, starter={"standard_circuit": "7A"})
    assert main(["wirelist", path]) == 1
    assert "Needs a motor with 6 or 12 leads; this one has 9." in capsys.readouterr().out


def test_rehearse_tells_the_trace_and_exits_1_on_a_hazard(tmp_path, capsys):
    """A clean start is 0; two-wire control on power return is 1, with its chain."""
    scenario = tmp_path / "scenario.json"
    acts = [
        {"at_s": "0", "do": "close", "on": "breaker"},
        {"at_s": "1", "do": "push", "on": "start"},
    ]
    scenario.write_text(json.dumps({"until_s": "4", "actions": acts}))
    assert main(["rehearse", str(GOLDEN), str(scenario)]) == 0
    assert "MTR          drive        forward" in capsys.readouterr().out

    two_wire = written(tmp_path, starter={"standard_circuit": "2A"})
    acts = [
        {"at_s": "0", "do": "close", "on": "breaker"},
        {"at_s": "1", "do": "turn", "on": "SS1", "word": "AUTO"},
        {"at_s": "2", "do": "on", "on": "PS1"},
        {"at_s": "4", "do": "dip", "word": "1"},
    ]
    scenario.write_text(json.dumps({"actions": acts}))
    assert main(["rehearse", two_wire, str(scenario), "--format", "json"]) == 1
    said = json.loads(capsys.readouterr().out)
    assert said["hazards"][0]["code"] == "springs_to_life"
    assert main(["rehearse", two_wire, str(scenario)]) == 1
    assert "UNEXPECTED START: power back → KM1 pulls in" in capsys.readouterr().out

    scenario.write_text('{"actions": [{"at_s": "0", "do": "press", "on": "S77"}]}')
    assert main(["rehearse", two_wire, str(scenario)]) == 2
    assert "There is no S77 in this circuit." in capsys.readouterr().err


def test_identify_goes_on_from_the_readings_of_the_file(capsys, tmp_path):
    """Three pairs and a triple: nine-lead wye, and the next reading; without leads, why."""
    assert main(["identify", str(GOLDEN)]) == 1
    out = capsys.readouterr().out
    assert "9-wye" in out
    assert "next: feed" in out
    assert main(["identify", str(GOLDEN), "--format", "json"]) == 1
    said = json.loads(capsys.readouterr().out)
    assert said["left"] == 48
    assert said["ask"]["what"] == "volts"
    bare = json.loads(GOLDEN.read_text())
    bare["bench"] = {}
    other = tmp_path / "bare.json"
    other.write_text(json.dumps(bare))
    assert main(["identify", str(other)]) == 2


def test_convert_tells_moves_or_the_reason(capsys):
    """IC-2 from 480 to 240 V: can, with its moves; to 600 V: cannot, with the ways out."""
    assert main(["convert", str(GOLDEN), "--supply", "240 delta", "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert (said["answer"], said["amps_after"]) == ("can", "38.6")
    assert "Make L1 to T1-T7" in said["moves"]
    assert main(["convert", str(GOLDEN), "--supply", "600Y/347"]) == 1
    out = capsys.readouterr().out
    assert "cannot" in out
    assert "Replace it" in out


def test_trouble_tells_the_next_reading(tmp_path, capsys):
    """Two answers of a seal-in that does not hold; what is no answer exits with 2."""
    body = json.loads(GOLDEN.read_text())
    body["starter"] = {"standard_circuit": "3A"}
    file = tmp_path / "job.json"
    file.write_text(json.dumps(body))
    call = ["trouble", str(file), "--symptom", "runs_only_while_held"]
    assert main(call) == 1
    assert "next: " in capsys.readouterr().out
    told = "ohm|push_in.main.|main.13~main.14=open"
    assert main([*call, "--read", told, "--format", "json"]) == 1
    said = json.loads(capsys.readouterr().out)
    assert "no_make:main.13-14.open" in said["groups"][0]["ids"]
    assert said["groups"][0]["percent"] > 60
    assert main([*call, "--read", "flag|overload=blue"]) == 2


def test_circuit_commands(tmp_path, capsys):
    """Check, dead check, choosing and the netlist of a job file, without the server."""
    body = json.loads(GOLDEN.read_text())
    body["starter"] = {"standard_circuit": "6C", "load": "loaded"}
    file = tmp_path / "job.json"
    file.write_text(json.dumps(body))

    # plugging is a hazard that somebody has to take on by name
    assert main(["check", str(file), "--format", "json"]) == 1
    said = json.loads(capsys.readouterr().out)
    assert [one["code"] for one in said["holds_back"]] == ["restart.plugged"]
    taken = {"hazard": "plugged", "why": "rated AC-4", "by": "Dov Ansell", "at": ""}
    body["starter"]["accepted"] = [taken]
    file.write_text(json.dumps(body))
    assert main(["check", str(file), "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert [one["holds"] for one in said["proofs"]] == [True, True]
    # taken on by name, it is good to know and no longer to be decided
    assert {one["rule"] for one in said["found"] if one["level"] == "doubt"} == set()
    assert "H18" in {one["rule"] for one in said["found"]}
    assert main(["check", str(file)]) == 0
    assert "proof weld" in capsys.readouterr().out

    assert main(["deadcheck", str(file), "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    assert said["untold"] == []
    assert said["checks"]
    assert main(["deadcheck", str(file)]) == 0
    assert "hold S2" in capsys.readouterr().out

    assert main(["choose", str(file), "--format", "json"]) == 0
    said = {one["id"]: one for one in json.loads(capsys.readouterr().out)}
    assert said["6C"]["verdict"] == "can"
    assert said["7A"]["verdict"] == "cannot"
    assert main(["choose", str(file)]) == 0
    assert "torque" in capsys.readouterr().out

    assert main(["netlist", str(file)]) == 0
    assert "[wires]" in capsys.readouterr().out


@pytest.mark.many
def test_check_tells_by_its_exit_code_what_must_be_changed(tmp_path):
    """A push-button interlock alone breaks a rule and a proof."""
    body = json.loads(GOLDEN.read_text())
    body["starter"] = {"standard_circuit": "6B"}
    file = tmp_path / "job.json"
    file.write_text(json.dumps(body))
    assert main(["check", str(file)]) == 1


def test_the_readme_shows_what_the_command_says(capsys):
    """Every line of the README's example is a line of the command's output."""
    root = Path(__file__).resolve().parents[3]
    readme = (root / "README.md").read_text(encoding="utf-8")
    shown = readme.split("$ ./evencoil size docs/examples/IC-2.json\n")[1].split("```")[0]
    assert main(["size", str(root / "docs/examples/IC-2.json")]) == 0
    said = [" ".join(line.split()) for line in capsys.readouterr().out.splitlines()]
    lines = [" ".join(line.split()) for line in shown.strip().splitlines()]
    assert len(lines) == 6
    assert [line for line in lines if line not in said] == []


def test_size_prints_what_the_screen_shows_of_supply_and_marks(tmp_path, capsys):
    """Unbalance with its derating, and each assumption once, in words."""
    job = json.loads(GOLDEN.read_text())
    job["supply"]["measured_v"] = ["478", "464", "450"]
    job["size"] = {}
    path = tmp_path / "job.json"
    path.write_text(json.dumps(job))

    main(["size", str(path)])
    out = capsys.readouterr().out
    assert "3.02 % unbalance" in out
    marked = [line for line in out.splitlines() if line.startswith("  ASSUMED")]
    assert len([line for line in marked if "Fuse or breaker not chosen" in line]) == 1
    main(["size", str(path), "--format", "json"])
    codes = [found["code"] for found in json.loads(capsys.readouterr().out)["findings"]]
    assert "unbalance" in codes


def test_outside_the_nec_no_edition_is_named(tmp_path, capsys):
    """A job under another code names none of ours."""
    job = json.loads(GOLDEN.read_text())
    job["supply"]["territory"] = "other"
    path = tmp_path / "job.json"
    path.write_text(json.dumps(job))

    main(["size", str(path)])
    assert "NEC 20" not in capsys.readouterr().out.splitlines()[0]
    main(["size", str(path), "--format", "json"])
    assert json.loads(capsys.readouterr().out)["edition"] is None


def test_convert_prints_the_sizes_that_change(capsys):
    """To 240 V: twice the amps, so a larger conductor; heaters that nobody read are asked for."""
    assert main(["convert", str(GOLDEN), "--supply", "240 delta", "--format", "json"]) == 0
    said = json.loads(capsys.readouterr().out)
    sizes = {row["figure"]: row for row in said["sizes"]}
    assert sizes["conductor_size"]["before"] != sizes["conductor_size"]["after"]
    assert said["heaters"]
    main(["convert", str(GOLDEN), "--supply", "240 delta"])
    assert "conductor_size" in capsys.readouterr().out


def test_a_run_with_a_load_says_what_it_stands_on(capsys):
    """Text: each figure with its mark, each way with its verdict; 0 since it gets to speed."""
    assert main(["run", str(GOLDEN), "--load", "fan", "--torque", "80"]) == 0
    said = capsys.readouterr().out
    assert "assumed" in said
    assert "full_voltage" in said
    assert "Reaches" in said


def test_a_run_as_csv_and_json_are_the_same_run(capsys):
    """One line a sample; the time goes on within a way."""
    main(["run", str(GOLDEN), "--load", "conveyor", "--torque", "30", "--format", "csv"])
    head, *rows = capsys.readouterr().out.splitlines()
    assert head.split(",")[:3] == ["method", "time_s", "speed_rpm"]
    main(["run", str(GOLDEN), "--load", "conveyor", "--torque", "30", "--format", "json"])
    told = json.loads(capsys.readouterr().out)
    assert len(rows) == sum(len(one["samples"]) for one in told["methods"])
    full = next(one for one in told["methods"] if one["method"] == "full_voltage")
    times = [sample[0] for sample in full["samples"]]
    assert times == sorted(times)


def test_a_lost_phase_is_told_by_state(capsys):
    """A fuse lost at rest: no torque."""
    assert main(["run", str(GOLDEN), "--load", "fan", "--fault", "fuse"]) == 0
    assert "does not start this load" in capsys.readouterr().out
    main(["run", str(GOLDEN), "--load", "fan", "--fault", "fuse", "--format", "json"])
    told = json.loads(capsys.readouterr().out)
    assert [one["line_a"]["L2"] for one in told] == [0, 0]


@pytest.mark.parametrize("more", [["--torque", "-5"], ["--torque", "much"], []])
def test_a_run_without_a_usable_load_is_refused(more, capsys):
    """Exit 2, with field and next step; a file without a load is asked what is driven."""
    load = ["--load", "fan"] if more else []
    assert main(["run", str(GOLDEN), *load, *more]) == 2
    assert capsys.readouterr().err.startswith("load.")
