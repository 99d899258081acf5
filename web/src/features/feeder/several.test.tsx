// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { feederWords } from "../../words/feeder";
import { Several } from "./Several";

afterEach(cleanup);

const step = (more: object) => ({
  id: "shared_disconnect",
  label: "One disconnect for all",
  said: "30 A",
  working: "30 A is below the 350 A needed.",
  rule: { standard: "NEC", edition: 2023, section: "430.110(C)" },
  marks: [],
  verdict: "fails",
  ...more,
});

function shown(asked: object, found: object) {
  const onAskedChange = vi.fn();
  render(
    <Several
      asked={asked as never}
      found={{ several: [], several_refusal: null, ...found } as never}
      onAskedChange={onAskedChange}
    />,
  );
  return onAskedChange;
}

it("asks for ratings only once a reason says that one disconnect may serve all", () => {
  const onAskedChange = shown({}, {});
  expect(screen.queryByLabelText(feederWords.marked)).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: feederWords.oneRoom }));
  expect(onAskedChange).toHaveBeenCalledWith({ disconnect: { reason: "room" } });
});

it("drops the disconnect with its reason, and the small group with its fuse", () => {
  const onAskedChange = shown(
    { disconnect: { reason: "room", amps_a: "30" }, small_group: { device_a: "15" } },
    {},
  );
  fireEvent.click(screen.getByRole("button", { name: feederWords.eachItsOwn }));
  expect(onAskedChange).toHaveBeenCalledWith({ disconnect: null });
  fireEvent.change(screen.getByLabelText(feederWords.smallMotorsDevice), { target: { value: "" } });
  expect(onAskedChange).toHaveBeenLastCalledWith({ small_group: null });
});

it("shows verdict, arithmetic, section and marks of every step", () => {
  shown({}, { several: [step({ marks: [{ kind: "doubted", text: "Only one rating." }] })] });
  expect(screen.getByText(feederWords.verdict.fails)).toBeTruthy();
  expect(screen.getByText(/below the 350 A/)).toBeTruthy();
  expect(screen.getByText("430.110(C)")).toBeTruthy();
  expect(screen.getByText("Only one rating.")).toBeTruthy();
});
