// @vitest-environment happy-dom
import type { UseQueryResult } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { useAnswer } from "./useAnswer";

const FRESH = {
  data: undefined,
  error: null,
  isPlaceholderData: false,
  isPending: false,
  isError: false,
  fetchStatus: "idle",
  failureCount: 0,
};
const WAY = { fetchStatus: "fetching", isPlaceholderData: true };
const LOST = new Refused({ code: "no_line", detail: "No line.", field: "", hint: "Later." }, 0);

function Shown({ query, before }: { query: object; before?: string }) {
  const answer = useAnswer({ ...FRESH, ...query } as UseQueryResult<string, Error>, before);
  return (
    <>
      {answer.slab}
      <p data-testid="answer">{`${answer.data} ${answer.isOld ? "old" : "of now"}`}</p>
    </>
  );
}

const answer = () => screen.getByTestId("answer").textContent;
const slab = () => screen.queryByRole("alert")?.textContent ?? "";

describe("useAnswer", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
  });

  it("says nothing of an answer that comes soon, but knows that it is old until then", () => {
    const view = render(<Shown query={{ data: "21 A" }} />);
    expect(answer()).toBe("21 A of now");
    view.rerender(<Shown query={{ data: "21 A", ...WAY }} />);
    expect(answer()).toBe("21 A old");
    act(() => void vi.advanceTimersByTime(900));
    expect(slab()).toBe("");
    view.rerender(<Shown query={{ data: "28 A" }} />);
    act(() => void vi.advanceTimersByTime(900));
    expect([answer(), slab()]).toEqual(["28 A of now", ""]);
  });

  it("says so when the answer to what was given before stands for a second", () => {
    render(<Shown query={{ data: "21 A", ...WAY }} />);
    act(() => void vi.advanceTimersByTime(1100));
    expect(slab()).toContain("Not calculated yet for this input");
    expect(slab()).toContain("still for the previous input");
  });

  it("says so at the first try that failed, without waiting", () => {
    render(<Shown query={{ data: "21 A", ...WAY, failureCount: 1 }} />);
    expect(slab()).toContain("Not calculated yet");
  });

  it("keeps the last answer when none can be had, and says why and that it is old", () => {
    const view = render(<Shown query={{ data: "21 A" }} />);
    const refetch = vi.fn();
    view.rerender(<Shown query={{ error: LOST, isError: true, refetch }} />);
    expect(answer()).toBe("21 A old");
    expect(slab()).toContain("No line.");
    expect(slab()).toContain("still for the previous input");
    fireEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(refetch).toHaveBeenCalledOnce();
  });

  it("has nothing old to speak of when there was no answer yet", () => {
    render(<Shown query={{ error: LOST, isError: true }} />);
    expect(answer()).toBe("undefined of now");
    expect(slab()).toContain("Later.");
    expect(slab()).not.toContain("before");
  });

  it("lets what was kept stand until the first answer, as old", () => {
    render(<Shown query={{ isPending: true, fetchStatus: "fetching" }} before="kept" />);
    expect(answer()).toBe("kept old");
  });
});
