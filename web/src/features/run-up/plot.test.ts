import { describe, expect, it } from "vitest";
import { marksOf, pathOf, readAt } from "./plot";

describe("axes of a plot", () => {
  it("marks round figures only", () => {
    expect(marksOf(0, 1800)).toEqual([0, 500, 1000, 1500]);
    expect(marksOf(0, 8.5)).toEqual([0, 5]);
    expect(marksOf(-3, 3, 6)).toEqual([-3, -2, -1, 0, 1, 2, 3]);
    expect(marksOf(2, 2)).toEqual([2]);
    // no tail of binary fractions
    expect(marksOf(0, 0.45, 5).map(String)).toEqual(["0", "0.1", "0.2", "0.3", "0.4"]);
  });

  it("reads between points, and at the ends outside them", () => {
    expect(readAt([0, 10], [100, 200], 2.5)).toBe(125);
    expect(readAt([0, 10], [100, 200], -1)).toBe(100);
    expect(readAt([0, 10], [100, 200], 11)).toBe(200);
    // a jump at one time reads what comes after
    expect(readAt([0, 5, 5, 9], [1, 1, 7, 7], 6)).toBe(7);
  });

  it("draws through every point", () => {
    const same = (value: number) => value;
    expect(pathOf([0, 1], [2, 3], same, same)).toBe("M0.0 2.0L1.0 3.0");
  });
});
