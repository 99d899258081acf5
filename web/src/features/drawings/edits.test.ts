import { describe, expect, it } from "vitest";
import { newId, type Starter, withEdits, withoutEdit } from "./edits";

describe("changes of a drawing", () => {
  it("gives each change an id of its own, in order of time", () => {
    const one = newId(1_700_000_000_000);
    const two = newId(1_700_000_000_001);
    expect(one).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(one.slice(0, 13) < two.slice(0, 13)).toBe(true);
  });

  it("adds, undoes the last, and takes out one", () => {
    const empty = { standard_circuit: "3A" } as Starter;
    const one = withEdits(empty, [{ kind: "remove_wire", wire: "a" }], "worn");
    const two = withEdits(one, [{ kind: "remove_wire", wire: "b" }]);
    expect(two.edits?.map((edit) => edit.wire)).toEqual(["a", "b"]);
    expect(two.edits?.[0]?.why).toBe("worn");
    expect(withoutEdit(two).edits).toEqual(one.edits);
    expect(withoutEdit(two, one.edits?.[0]?.id).edits?.map((edit) => edit.wire)).toEqual(["b"]);
  });

  it("takes proposed changes with fresh ids", () => {
    const fixed = withEdits({ standard_circuit: "3A" } as Starter, [
      { id: "fix.x", kind: "set", device: "k" },
    ]);
    expect(fixed.edits?.[0]?.id).not.toContain("fix.");
  });
});
