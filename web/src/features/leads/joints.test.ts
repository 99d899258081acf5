import { describe, expect, it } from "vitest";
import { type Joint, jointOf, lastingId, takeOut, tap } from "./joints";

const joint = (id: string, leads: string[], line: Joint["line"] = null): Joint => ({
  id,
  leads,
  line,
});

describe("tap", () => {
  it("joins two free ends under a new lasting id", () => {
    const [made] = tap([], "T4", "T7");

    expect(made?.leads).toEqual(["T4", "T7"]);
    expect(made?.id).toMatch(
      /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/,
    );
  });

  it("brings along what is joined already and keeps the joint's id", () => {
    const found = tap([joint("a", ["T1"], "L1"), joint("b", ["T7", "T8"])], "T1", "T7");

    expect(found).toEqual([joint("a", ["T1", "T7", "T8"], "L1")]);
  });

  it("parts two ends that are together, and lets a joint of one end go", () => {
    expect(tap([joint("a", ["T4", "T7"])], "T4", "T7")).toEqual([]);
    expect(tap([joint("a", ["T4", "T7", "T8"])], "T4", "T8")).toEqual([joint("a", ["T4", "T7"])]);
  });

  it("joins two lines too: the core says what that does", () => {
    expect(tap([joint("a", ["T1"], "L1"), joint("b", ["T2"], "L2")], "T1", "T2")).toEqual([
      joint("a", ["T1", "L2", "T2"], "L1"),
    ]);
  });
});

describe("takeOut", () => {
  it("takes a line off its lead", () => {
    expect(takeOut([joint("a", ["T1", "T7"], "L1")], "L1")).toEqual([joint("a", ["T1", "T7"])]);
    expect(jointOf([joint("a", ["T1"], "L1")], "L1")?.id).toBe("a");
  });
});

describe("lastingId", () => {
  it("never gives one twice and sorts by time", () => {
    const ids = Array.from({ length: 50 }, lastingId);

    expect(new Set(ids).size).toBe(50);
    expect([...ids.map((id) => id.slice(0, 13))].sort()).toEqual(ids.map((id) => id.slice(0, 13)));
  });
});
