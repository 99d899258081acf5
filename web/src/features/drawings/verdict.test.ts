import { describe, expect, it } from "vitest";
import { comparedWith, type Drawn, stillOpen } from "./verdict";

const problem = (rule: string, text: string): Drawn => ({
  rule,
  text,
  level: "error",
  devices: [],
  nets: [],
});

describe("what an edit did to the drawing", () => {
  const old = problem("H11", "OL1.96 has 3 wires");
  const loose = problem("H46", "OL1.95 is open");
  it("tells what is new, cured and still open, by rule and words", () => {
    const now = [{ ...old }, problem("H07", "With OL1 tripped")];
    expect(comparedWith([old, loose], now).fresh.map((one) => one.rule)).toEqual(["H07"]);
    expect(comparedWith([old, loose], now).cured).toEqual([loose]);
    expect(stillOpen([old, loose], now).map((one) => one.rule)).toEqual(["H11"]);
  });
});
