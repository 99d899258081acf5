// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import { rehearseWords } from "../../words/rehearse";
import { Events } from "./Events";
import { Held } from "./Held";

afterEach(cleanup);

const HAZARD = {
  code: "unexpected_start",
  device: "MTR1",
  name: "Unexpected start",
  sentence: "Power came back and the motor started.",
};

it("shows nothing while the rehearsal runs", () => {
  const { container } = render(
    <Held hazards={[]} base="/w" onRewind={vi.fn()} onContinue={vi.fn()} />,
    { wrapper: MemoryRouter },
  );
  expect(container.textContent).toBe("");
});

it("names the hazard and offers to rewind, to change the starter, or to go on", () => {
  const [onRewind, onContinue] = [vi.fn(), vi.fn()];
  render(<Held hazards={[HAZARD]} base="/w/x" onRewind={onRewind} onContinue={onContinue} />, {
    wrapper: MemoryRouter,
  });

  expect(screen.getByTestId("chain").textContent).toBe(HAZARD.sentence);
  fireEvent.click(screen.getByRole("button", { name: rehearseWords.rewindS }));
  fireEvent.click(screen.getByRole("button", { name: rehearseWords.continue }));
  expect([onRewind.mock.calls.length, onContinue.mock.calls.length]).toEqual([1, 1]);
  expect(screen.getByRole("link").getAttribute("href")).toBe("/w/x/starter");
});

it("lists the newest sixty events up to now, in seconds", () => {
  const events = Array.from({ length: 80 }, (_, n) => ({
    n,
    t: n * 500_000,
    tag: "KM1",
    what: "coil",
    value: true,
  }));
  render(<Events events={events} now={35_000_000} />);

  const rows = screen.getAllByRole("listitem").map((row) => row.textContent);
  expect(rows).toHaveLength(60);
  expect(rows[0]).toBe("5.500 KM1 coil true");
  expect(rows.at(-1)).toBe("35.000 KM1 coil true");
});
