// @vitest-environment happy-dom
import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { jobOf } from "./testing";
import { useDraft } from "./useDraft";

describe("useDraft", () => {
  it("shows what is saved until something is typed, and only that step changes", () => {
    const { result, rerender } = renderHook(({ job }) => useDraft(job), {
      initialProps: { job: jobOf() },
    });
    expect(result.current.isTouched).toBe(false);
    expect(result.current.given?.supply.text).toBe("480Y/277");

    act(() => {
      result.current.change("supply", { ...jobOf().supply, text: "240 delta" });
    });
    expect(result.current.isTouched).toBe(true);
    expect(result.current.given?.supply.text).toBe("240 delta");
    expect(result.current.given?.plate.text).toBe("15 HP, 460 V");

    // a newer job from the server does not take what was typed away
    rerender({ job: jobOf({ supply: { ...jobOf().supply, text: "208Y/120" } }) });
    expect(result.current.given?.supply.text).toBe("240 delta");
    act(() => result.current.set(null));
    expect(result.current.given?.supply.text).toBe("208Y/120");
  });

  it("two changes before the next drawing both stay", () => {
    const { result } = renderHook(() => useDraft(jobOf()));
    act(() => {
      result.current.change("supply", { ...jobOf().supply, text: "240 delta" });
      result.current.change("plate", { ...jobOf().plate, text: "20 HP" });
    });
    expect(result.current.given?.supply.text).toBe("240 delta");
    expect(result.current.given?.plate.text).toBe("20 HP");
  });

  it("changes nothing while there is no job", () => {
    const { result } = renderHook(() => useDraft(undefined));
    act(() => {
      expect(result.current.change("supply", jobOf().supply)).toBeNull();
    });
    expect(result.current.given).toBeNull();
  });
});
