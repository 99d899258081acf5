import { describe, expect, it } from "vitest";
import { sentenceAt } from "./sentence";
import type { SimEvent } from "./timeline";

const event = (n: number, t: number, device: string, value: string, cause: number | null) =>
  ({
    n,
    t,
    device,
    tag: device.toUpperCase(),
    what: cause === null ? "hand" : "state",
    value,
    cause,
    effect: true,
  }) as SimEvent;
const circuit = {
  devices: [
    { id: "km1", type: "contactor" },
    { id: "h1", type: "lamp" },
    { id: "s2", type: "pb" },
  ],
} as never;

describe("what happens now", () => {
  const events = [
    event(1, 100, "s2", "press", null),
    event(2, 120, "km1", "1", 1),
    event(3, 125, "h1", "1", 2),
    event(4, 900, "km1", "0", 1),
  ];
  it("is told from its first cause", () => {
    expect(sentenceAt(events, 200, circuit)).toBe("S2 press → KM1 pulls in → H1 lights");
  });
  it("does not say of a button what the hand did to it", () => {
    const more = [
      ...events,
      event(5, 950, "s2", "release", null),
      event(6, 951, "s2", "closed", 5),
    ];
    expect(sentenceAt(more, 999, circuit)).toBe("S2 release");
  });
  it("is nothing before anything happened, and no later event is told", () => {
    expect(sentenceAt(events, 50, circuit)).toBe("");
    expect(sentenceAt(events, 121, circuit)).toBe("S2 press → KM1 pulls in");
  });
});

describe("what a motor tells of itself", () => {
  it("is said in words, not in its states' names", () => {
    const told = (what: string, value: string) =>
      sentenceAt([{ ...event(1, 10, "m1", value, null), what } as SimEvent], 20, {
        devices: [{ id: "m1", type: "motor" }],
      } as never);
    expect(told("drive", "single")).toBe("M1 is left with one phase");
    expect(told("winding", "burnt")).toBe("M1 winding passes its temperature");
  });
});
