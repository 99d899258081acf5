import { expect, it } from "vitest";
import { withoutRow, withRow } from "./rows";

const ROWS = [
  { tag: "T1", volts: "120" },
  { tag: "T2", volts: "24" },
];

it("changes one row and leaves the others the same objects", () => {
  const next = withRow(ROWS, 1, { volts: "48" });
  expect(next).toEqual([ROWS[0], { tag: "T2", volts: "48" }]);
  expect(next[0]).toBe(ROWS[0]);
  expect(ROWS[1]?.volts).toBe("24");
});

it("takes one row out by its place, whatever it holds", () => {
  expect(withoutRow(ROWS, 0)).toEqual([ROWS[1]]);
  expect(withoutRow(ROWS, 5)).toEqual(ROWS);
});
