// @vitest-environment happy-dom
import { fireEvent, renderHook } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { useKeys } from "./keys";

describe("keys of a screen", () => {
  beforeEach(() => {
    window.matchMedia = vi.fn().mockReturnValue({
      matches: false,
      addEventListener: vi.fn(),
      removeEventListener: vi.fn(),
    });
  });

  it("takes one key, one after the other, and one with control", () => {
    const [print, plate, undo] = [vi.fn(), vi.fn(), vi.fn()];
    renderHook(() =>
      useKeys([
        { press: "p", does: "print", run: print },
        { press: "g p", does: "plate", run: plate },
        { press: "Ctrl+z", does: "undo", run: undo },
      ]),
    );
    fireEvent.keyDown(window, { key: "g" });
    fireEvent.keyDown(window, { key: "p" });
    expect(plate).toHaveBeenCalledTimes(1);
    expect(print).not.toHaveBeenCalled();
    fireEvent.keyDown(window, { key: "p" });
    expect(print).toHaveBeenCalledTimes(1);
    fireEvent.keyDown(window, { key: "z", ctrlKey: true });
    fireEvent.keyDown(window, { key: "z" });
    expect(undo).toHaveBeenCalledTimes(1);
    // the browser's own keys stay the browser's
    fireEvent.keyDown(window, { key: "p", ctrlKey: true });
    expect(print).toHaveBeenCalledTimes(1);
  });
});
