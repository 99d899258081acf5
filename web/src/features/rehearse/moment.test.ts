import { describe, expect, it } from "vitest";
import { addressOf, momentOf } from "./moment";

const acts = [
  { t: 0, do: "close", on: "disconnect", word: "" },
  { t: 900_000, do: "press", on: "start", word: "" },
  { t: 5_000_000, do: "press", on: "stop", word: "" },
];

describe("the link to a moment", () => {
  it("holds what was done until then, and comes back the same", () => {
    const wrong = [{ said: "The wire S1.12 – S2.13 is missing.", edit: { kind: "remove_wire" } }];
    const moment = { at: 2_000_000.4, acts, wrong } as never;
    expect(momentOf(addressOf(moment))).toEqual({
      at: 2_000_000,
      acts: acts.slice(0, 2),
      wrong,
    });
    expect(addressOf(moment)).toMatch(/^[A-Za-z0-9_-]+$/);
  });

  it("is refused when it is none", () => {
    const bad = [
      [2, 0, [], []],
      [1, -1, [], []],
      [1, 0, [[0, 1, "a", ""]], []],
      [1, 0, [], [1]],
    ];
    for (const one of bad) expect(momentOf(btoa(JSON.stringify(one)))).toBeNull();
    expect(momentOf("%%%")).toBeNull();
    expect(momentOf("")).toBeNull();
  });
});
