// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { feederWords } from "../../words/feeder";
import { Taps } from "./FeederTaps";

afterEach(cleanup);

const FOUND = {
  motors: [
    { tag: "IC-2", refusal: null },
    { tag: "BS-6", refusal: { detail: "240 V on a 480 V feeder." } },
  ],
  taps: [
    {
      tag: "IC-2",
      steps: [
        { id: "tap_conductor_size", shown: "8 AWG" },
        { id: "tap_least_a", working: "a third of the feeder" },
      ],
    },
  ],
};

function shown(asked: object) {
  const onAskedChange = vi.fn();
  render(<Taps asked={asked as never} found={FOUND as never} onAskedChange={onAskedChange} />);
  return onAskedChange;
}

it("asks no tap of a motor that does not count", () => {
  shown({ taps: [], is_group: false });
  expect(screen.getByLabelText(feederWords.tap("IC-2"))).toBeTruthy();
  expect(screen.queryByLabelText(feederWords.tap("BS-6"))).toBeNull();
});

it("makes a tap of a length, changes its run, and drops it with the length", () => {
  const onAskedChange = shown({ taps: [], is_group: false });
  fireEvent.change(screen.getByLabelText(feederWords.tap("IC-2")), { target: { value: "20" } });
  const tap = { tag: "IC-2", length_ft: "20", is_protected: true, to: "overload" };
  expect(onAskedChange).toHaveBeenCalledWith({ taps: [tap] });
  cleanup();

  const again = shown({ taps: [tap], is_group: false });
  fireEvent.click(screen.getByRole("button", { name: feederWords.open }));
  expect(again).toHaveBeenCalledWith({ taps: [{ ...tap, is_protected: false }] });
  fireEvent.change(screen.getByLabelText(feederWords.tap("IC-2")), { target: { value: "" } });
  expect(again).toHaveBeenLastCalledWith({ taps: [] });
});

it("asks for the group's device only where there is one", () => {
  shown({ taps: [], is_group: false });
  expect(screen.queryByLabelText(feederWords.groupFuseBreaker)).toBeNull();
  cleanup();
  shown({ taps: [], is_group: true });
  expect(screen.getByLabelText(feederWords.groupFuseBreaker)).toBeTruthy();
});
