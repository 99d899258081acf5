// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { handsOf } from "./hands";
import { MustDo } from "./MustDo";
import type { SimEvent } from "./timeline";

const DEVICES = [
  { id: "start", tag: "S2", type: "pb", verbs: [], positions: [] },
  { id: "stop", tag: "S1", type: "pb", verbs: [], positions: [] },
  { id: "overload", tag: "OL1", type: "olr", verbs: [], positions: [] },
].map((one) => ({
  legend: "",
  color: "",
  links: [],
  contacts: [],
  coils: [],
  terminals: [],
  ...one,
}));

const act = (n: number, value: string, device: string, effect: boolean): SimEvent => ({
  n,
  t: n * 1000,
  device,
  tag: device,
  what: "hand",
  value,
  cause: null,
  effect,
});

function done(events: SimEvent[]) {
  render(<MustDo events={events} hands={handsOf(DEVICES)} />);
  return [...document.querySelectorAll("[data-done=true]")].map((item) =>
    item.textContent?.replace(/[^A-Za-z0-9 ]/g, "").trim(),
  );
}

describe("what a rehearsal should show", () => {
  afterEach(cleanup);

  it("counts a press by what it did", () => {
    expect(done([act(1, "press", "start", true), act(2, "press", "stop", false)])).toEqual([
      "START S2 done",
    ]);
    expect(screen.getByText(/1 of 6/)).toBeTruthy();
  });

  it("counts power back only after it was lost while something ran", () => {
    expect(done([act(1, "off", "supply", false), act(2, "on", "supply", false)])).toEqual([]);
    cleanup();
    expect(done([act(1, "off", "supply", true), act(2, "on", "supply", false)])).toEqual([
      "power back done",
    ]);
  });

  it("counts a reset that the relay took, not one that it refused while hot", () => {
    expect(done([act(1, "trip", "overload", true), act(2, "reset", "overload", false)])).toEqual([
      "OL1 trips done",
    ]);
  });
});
