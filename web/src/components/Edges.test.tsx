// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it, vi } from "vitest";
import { NO_LINE, Refused } from "../api/client";
import { Failure, Working } from "./Edges";

afterEach(cleanup);

it("says why a part cannot be calculated, and asks again", () => {
  const refetch = vi.fn();
  const way = { refetch, fetchStatus: "fetching" };
  const { rerender } = render(<Working query={{ error: null, ...way }} />);
  expect(screen.getByRole("status").textContent).toBe("Calculating…");

  const lost = { code: "no_line", detail: "No line.", field: "", hint: "Later." };
  rerender(<Working query={{ error: new Refused(lost, 0), ...way }} />);
  expect(screen.queryByRole("status")).toBeNull();
  expect(screen.getByRole("alert").textContent).toContain("Later.");
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(refetch).toHaveBeenCalledOnce();
});

it("tells a lost line at the start from a screen that broke, and offers to try again", () => {
  const lost = { code: NO_LINE, detail: "No answer.", field: "", hint: "Entries are sent again." };
  render(
    <MemoryRouter>
      <Failure error={new Refused(lost, 0)} />
    </MemoryRouter>,
  );
  // nothing was entered on a screen that never opened
  expect(screen.getByRole("alert").textContent).not.toContain("Entries are sent again.");
  screen.getByRole("button", { name: "Try again" });
});
