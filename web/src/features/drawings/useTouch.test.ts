import { describe, expect, it } from "vitest";
import { namesOf, tapped } from "./useTouch";

describe("a wire by touching", () => {
  it("begins at the first terminal and ends at the second", () => {
    const first = tapped({ kind: "wire", from: "" }, "stop.12");
    expect(first).toEqual({ touch: { kind: "wire", from: "stop.12" }, edit: null });
    const second = tapped({ kind: "wire", from: "stop.12" }, "start.13");
    expect(second.edit).toMatchObject({ kind: "add_wire", start: "stop.12", end: "start.13" });
    expect(second.touch).toEqual({ kind: "wire", from: "" });
  });

  it("makes nothing of one terminal touched twice", () => {
    expect(tapped({ kind: "wire", from: "stop.12" }, "stop.12")).toEqual({
      touch: { kind: "wire", from: "" },
      edit: null,
    });
  });

  it("moves one end and leaves the other, or nothing if it stays", () => {
    const moving = { kind: "move", wire: "w7", from: "overload.95", why: "" } as const;
    expect(tapped(moving, "overload.96").edit).toEqual({
      kind: "move_end",
      wire: "w7",
      start: "overload.95",
      end: "overload.96",
    });
    expect(tapped(moving, "overload.95")).toEqual({ touch: null, edit: null });
  });

  it("names a terminal by its tag", () => {
    const name = namesOf({ devices: [{ id: "stop", tag: "S1" }] as never });
    expect(name("stop.12")).toBe("S1.12");
  });
});
