// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { benchWords } from "../../words/bench";
import { OwnReading } from "./OwnReading";

const onAdd = vi.fn();

beforeEach(() => {
  onAdd.mockReset();
  render(<OwnReading leadLetters={["a", "b", "c", "d", "e", "f"]} onAdd={onAdd} />);
});
afterEach(cleanup);

const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const status = () => screen.getByText(/^/, { selector: "p[role=status]" }).textContent ?? "";

describe("a reading nobody asked for", () => {
  it("adds continuity with its ohms, whatever way the pair is written", () => {
    type(benchWords.readBetween, "A-b");
    type(benchWords.meter2, "3,9");
    press(benchWords.addReading);
    expect(onAdd).toHaveBeenCalledWith({
      what: "touch",
      pair: ["a", "b"],
      rings: true,
      ohms: "3.9",
    });
  });

  it("adds an open pair without ohms", () => {
    type(benchWords.readBetween, "a c");
    press(benchWords.ol);
    press(benchWords.addReading);
    expect(onAdd).toHaveBeenCalledWith({
      what: "touch",
      pair: ["a", "c"],
      rings: false,
      ohms: null,
    });
  });

  it.each([
    ["a", benchWords.twoLeadsRead],
    ["a a", benchWords.twoLeadsRead],
    ["a z", benchWords.noLead("z")],
  ])("does not add %s, and says what is missing", (pair, says) => {
    type(benchWords.readBetween, pair);
    press(benchWords.addReading);
    expect(onAdd).not.toHaveBeenCalled();
    expect(status()).toContain(says);
  });

  it("adds volts at rest only with feed, volts of the feed and the meter", () => {
    press(benchWords.voltsRest);
    type(benchWords.fed, "a b");
    type(benchWords.readBetween, "c d");
    press(benchWords.addReading);
    expect(onAdd).not.toHaveBeenCalled();
    expect(status()).toContain(benchWords.voltageFeed);

    type(benchWords.feed, "10");
    type(benchWords.joinedIfAny, "a-c");
    type(benchWords.meter2, "4.1");
    press(benchWords.addReading);
    expect(onAdd).toHaveBeenCalledWith({
      what: "volts",
      feed: ["a", "b"],
      feed_v: "10",
      joined: [["a", "c"]],
      read: ["c", "d"],
      volts: "4.1",
    });
  });

  it("wants three leads of a running motor and gives the caution there", () => {
    press(benchWords.voltsMotorRunning);
    expect(screen.getByText(benchWords.onlyMotorUncoupled)).toBeTruthy();
    type(benchWords.fedLL, "a b");
    type(benchWords.readBetween, "c d");
    press(benchWords.addReading);
    expect(onAdd).not.toHaveBeenCalled();
    expect(status()).toContain(benchWords.countedWantedLead(3, 2));
  });
});

describe("a battery kick", () => {
  it("is added with plus, minus and the way of the needle", () => {
    press(benchWords.batteryKick);
    type(benchWords.batteryOn, "a b");
    type(benchWords.meterOn, "d c");
    expect(status()).toContain(benchWords.wayOfNeedle);
    press(benchWords.needle.down);
    press(benchWords.addReading);
    expect(onAdd).toHaveBeenCalledWith({
      what: "kick",
      feed: ["a", "b"],
      read: ["d", "c"],
      needle: "down",
    });
  });
});
