"""A rehearsal tells what a program shows, beside what its circuit does."""

from circuit_play import circuit_of

from evencoil.circuit import Edit, replay
from evencoil.rehearsal import ScenarioAct, Stage
from evencoil.rehearsal.trace import ProgramFrame

SECOND = 1_000_000
NOTHING = ProgramFrame(is_running=False, values={}, flows={})


def played(name, acts, until_s):
    """Play second, verb, device and word of each act on a standard circuit."""
    told = [
        ScenarioAct(at_us=round(t * SECOND), do=do, on=on, word=word) for t, do, on, word in acts
    ]
    stage = Stage(circuit_of(name))
    return stage.play(told, until_us=round(until_s * SECOND), with_programs=True)


def shown_at(trace, second, relay="program_relay"):
    """Return values and flows of a program at a time, put together frame by frame."""
    values, flows, is_running = {}, {}, False
    for frame in trace.frames:
        if frame.time_us > second * SECOND:
            break
        if relay in frame.programs:
            told = frame.programs[relay]
            if told.is_running != is_running:
                values, flows = {}, {}
            is_running = told.is_running
            values, flows = {**values, **told.values}, {**flows, **told.flows}
    return is_running, values, flows


def test_inputs_outputs_and_contacts_are_told_with_the_circuit():
    """13A, ``Q1 := I1; Q2 := Q1 AND NOT I2;``: I1 the selector, I2 the contactor's own contact."""
    close, run = (0, "close", "breaker", ""), (2, "turn", "selector", "RUN")
    trace = played("13A", [close, run, (4, "lose", "", "L1")], 6)
    # power at 0, the first scan at 0.3 s
    assert shown_at(trace, 0.2) == (False, {}, {})
    off = {"I1": "0", "Q1": "0", "I2": "0", "Q2": "0"}
    assert shown_at(trace, 1) == (True, off, {0: "0:0", 1: "01:0"})
    # commanded and not yet closed: the lamp's rung has power until the feedback comes
    asked = {"I1": "1", "Q1": "1", "I2": "0", "Q2": "1"}
    assert shown_at(trace, 2.012) == (True, asked, {0: "2:1", 1: "22:1"})
    runs = {"I1": "1", "Q1": "1", "I2": "1", "Q2": "0"}
    assert shown_at(trace, 3) == (True, runs, {0: "2:1", 1: "20:0"})
    # its transformer is fed by that line: without supply nothing is worth anything
    assert shown_at(trace, 5) == (False, {}, {})


def test_what_only_the_program_knows_gets_its_own_frame():
    """13B: the edge of START is on for one scan of 10 ms, and both ends of it are told."""
    trace = played("13B", [(0, "close", "breaker", ""), (2, "push", "start", "")], 4)
    told = [
        (frame.time_us, frame.programs["program_relay"].values["R1.Q"])
        for frame in trace.frames
        if "R1.Q" in frame.programs.get("program_relay", NOTHING).values and frame.time_us > SECOND
    ]
    assert [value for _, value in told] == ["1", "0"]
    assert told[1][0] - told[0][0] == 10_000
    assert shown_at(trace, 3)[1]["RUN"] == "1"


def test_without_asking_nothing_is_told():
    """Searches play thousands of these."""
    stage = Stage(circuit_of("13A"))
    assert not any(frame.programs for frame in stage.play([], until_us=SECOND).frames)


def test_a_program_that_blinks_every_scan_is_cut_and_goes_on():
    """Too many pictures end the trace at one that a further play goes on from."""
    text = {"program": "%MX0.0 := NOT %MX0.0;\n"}
    edit = Edit(id="p", kind="set", device="program_relay", parameters=text)
    stage = Stage(replay(circuit_of("13A"), [edit]).circuit)
    closed = [ScenarioAct(at_us=0, do="close", on="breaker")]
    first = stage.play(closed, until_us=60 * SECOND, with_programs=True)
    assert first.is_cut
    assert first.frames[-1].snapshot is not None
    assert first.frames[-1].time_us == first.until_us > 10 * SECOND
    more = stage.play([], until_us=60 * SECOND, snapshot=first.snapshots[-1], with_programs=True)
    assert more.until_us > first.until_us


def test_a_long_program_is_cut_sooner():
    """Two thousand networks that change at every scan: some hundred pictures, not thousands."""
    text = "%MX0.0 := NOT %MX0.0;\n" + "Q1 := %MX0.0 AND I1;\n" * 1999
    edit = Edit(id="p", kind="set", device="program_relay", parameters={"program": text})
    stage = Stage(replay(circuit_of("13A"), [edit]).circuit)
    closed = [ScenarioAct(at_us=0, do="close", on="breaker")]
    trace = stage.play(closed, until_us=60 * SECOND, with_programs=True)
    assert trace.is_cut
    assert len(trace.frames) < 200
    assert trace.frames[-1].snapshot is not None
