// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { Working } from "./Edges";

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
