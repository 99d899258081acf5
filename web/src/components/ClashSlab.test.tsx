// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { JobState } from "../state/useJob";
import { ClashSlab, differences } from "./ClashSlab";

afterEach(cleanup);

describe("differences", () => {
  it("names only the fields that differ, in words for what is not given", () => {
    const rows = differences(
      { insulation: "THWN", ambient_c: null, parallel_sets: 1 },
      { insulation: "TW", ambient_c: "40", parallel_sets: 1 },
    );

    expect(rows).toEqual([
      { field: "insulation", mine: "THWN", theirs: "TW" },
      { field: "ambient_c", mine: "not given", theirs: "40" },
    ]);
  });
});

describe("ClashSlab", () => {
  it("shows both versions and leaves the choice to the person", async () => {
    const settle = vi.fn();
    const state = {
      clash: {
        part: "supply",
        theirs: { n: 4, by: "Marta Quillan", at: "2026-11-24 10:42" },
        body: { text: "240 delta" },
      },
      given: { supply: { text: "480Y/277" }, plate: {}, size: {} },
      settle,
    } as unknown as JobState;
    render(<ClashSlab state={state} />);

    expect(screen.getByRole("alert").textContent).toContain("Marta Quillan changed this at 10:42");
    expect(screen.getByRole("cell", { name: "480Y/277" })).toBeTruthy();
    expect(screen.getByRole("cell", { name: "240 delta" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: /Keep mine/ }));
    expect(settle).toHaveBeenCalledWith("mine");
  });
});
