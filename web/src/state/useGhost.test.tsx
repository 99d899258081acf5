// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { act } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Ghosted } from "../components/Ghost";

describe("Ghosted", () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    cleanup();
  });

  it("strikes the old figure through for four seconds and then lets it go", () => {
    const { rerender } = render(<Ghosted value="10 AWG" />);
    expect(screen.queryByTestId("ghost")).toBeNull();

    rerender(<Ghosted value="8 AWG" />);
    expect(screen.getByTestId("ghost").textContent).toBe("was 10 AWG");
    act(() => vi.advanceTimersByTime(4001));
    expect(screen.queryByTestId("ghost")).toBeNull();
  });
});
