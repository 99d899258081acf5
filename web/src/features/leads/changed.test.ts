import { describe, expect, it } from "vitest";
import { coilsChanged } from "./changed";

const coil = (name: string, volts_v: number) => ({ name, volts_v }) as never;

describe("what the last joint changed", () => {
  it("names the coils whose volts moved, old beside new", () => {
    const before = [coil("A1", 138.6), coil("B1", 138.6), coil("C1", 138.6)];
    const now = [coil("A1", 240), coil("B1", 138.9), coil("D1", 10)];
    expect(coilsChanged(before, now)).toEqual([{ coil: "A1", before: "139", now: "240" }]);
  });
});
