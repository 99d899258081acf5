// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { Verdict } from "./Verdict";
import type { Drawn } from "./verdict";

afterEach(cleanup);

const bridged: Drawn = {
  rule: "E04",
  text: "S2 is bridged",
  level: "error",
  devices: [],
  nets: [],
};

it("says nothing of an edit before the drawing of it has come", () => {
  const { rerender } = render(<Verdict before={[]} now={[]} isOld onShow={() => undefined} />);
  expect(screen.getByText("No new problem.").closest("[hidden]")).not.toBeNull();
  rerender(<Verdict before={[]} now={[bridged]} isOld={false} onShow={() => undefined} />);
  expect(screen.getByRole("button").textContent).toBe("S2 is bridged");
  expect(screen.queryByText("No new problem.")).toBeNull();
});
