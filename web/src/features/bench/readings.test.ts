import { expect, test } from "vitest";
import { cellOf, said, type Taken } from "./readings";

const touch = (one: string, other: string, rings: boolean, ohms: string | null = null): Taken => ({
  what: "touch",
  pair: [one, other],
  rings,
  ohms,
});

test("a touch says what the meter showed", () => {
  expect(said(touch("a", "b", false))).toBe("a to b: OL");
  expect(said(touch("a", "b", true, "1.1"))).toBe("a to b: 1.1 Ω");
});

test("an induction reading names feed, jumper and probes", () => {
  const reading: Taken = {
    what: "volts",
    feed: ["a", "b"],
    feed_v: "10",
    joined: [["b", "c"]],
    read: ["a", "d"],
    volts: "12.6",
  };
  expect(said(reading)).toBe("10 V on a-b, b joined to c, a to d: 12.6 V");
});

test("what rings through a third lead follows without a touch", () => {
  const readings = [touch("a", "b", true), touch("b", "c", true), touch("a", "d", false)];
  expect(cellOf("a", "c", readings, [])).toEqual({ text: "rings", kind: "follows" });
  expect(cellOf("a", "d", readings, [])).toEqual({ text: "OL", kind: "read" });
  expect(cellOf("c", "d", readings, [])).toEqual({ text: "", kind: "open" });
  expect(cellOf("c", "d", readings, [{ one: "c", other: "d", rings: false }])).toEqual({
    text: "OL",
    kind: "follows",
  });
});

test("a touch taken again shows the later reading", () => {
  const readings = [touch("a", "b", true, "1.1"), touch("b", "a", false)];
  expect(cellOf("a", "b", readings, []).text).toBe("OL");
});
