import { describe, expect, it } from "vitest";
import {
  between,
  EMPTY,
  type Frame,
  frameAt,
  type SimEvent,
  spliced,
  startAt,
  type Trace,
} from "./timeline";

function frame(t: number, snapshot: number | null, speed?: number): Frame {
  return {
    t,
    words: snapshot === null ? null : { main: "1" },
    closed: snapshot === null ? null : [],
    nets: snapshot === null ? null : {},
    live: snapshot === null ? null : [],
    motors:
      speed === undefined
        ? {}
        : {
            motor: {
              word: "fwd",
              v: 100,
              n: speed,
              a: 10,
              field: "high",
              rpm: null,
              torque: null,
              lead: null,
              hot: null,
            },
          },
    heats: {},
    drives: {},
    programs: {},
    snapshot,
  };
}

const event = (n: number, t: number): SimEvent => ({
  n,
  t,
  device: "main",
  tag: "KM1",
  what: "word",
  value: "1",
  cause: null,
  effect: false,
});

function trace(start: number, frames: Frame[], more: Partial<Trace> = {}): Trace {
  return {
    constants: "catalogue",
    said: "",
    mark: "",
    fingerprint: "f",
    start,
    until: start + 10,
    never_settles: false,
    cut: false,
    frames,
    events: [],
    hazards: [],
    snapshots: frames.filter((one) => one.snapshot !== null).map((_, place) => `${start}-${place}`),
    ...more,
  };
}

describe("a line of time", () => {
  const first = spliced(EMPTY, trace(0, [frame(0, 0), frame(4, null), frame(6, 1), frame(9, 2)]));

  it("goes on from the last full frame before an act, never from a light one", () => {
    expect(startAt(first, 5)).toEqual({ snapshot: "0-0", t: 0 });
    expect(startAt(first, 6)).toEqual({ snapshot: "0-1", t: 6 });
    expect(startAt(EMPTY, 5)).toBeNull();
    expect(frameAt(first, 5)?.t).toBe(4);
  });

  it("forgets what an act in the past made untrue, and keeps what came before", () => {
    const again = spliced(first, trace(6, [frame(6, 0), frame(8, 1)]));

    expect(again.frames.map((one) => one.t)).toEqual([0, 4, 6, 6, 8]);
    expect(startAt(again, 9)).toEqual({ snapshot: "6-1", t: 8 });
    expect(startAt(again, 5)).toEqual({ snapshot: "0-0", t: 0 });
    expect(again.until).toBe(16);
  });

  it("tells an event once, however often its instant is played again", () => {
    const told = spliced(EMPTY, trace(0, [frame(0, 0)], { events: [event(1, 2), event(2, 5)] }));
    const again = spliced(told, trace(5, [frame(5, 0)], { events: [event(2, 5), event(3, 7)] }));

    expect(again.events.map((one) => one.n)).toEqual([1, 2, 3]);
  });

  it("puts a speed on the straight line between two frames", () => {
    const line = spliced(EMPTY, trace(0, [frame(0, 0, 0), frame(4, null, 40), frame(8, null, 40)]));
    const speed = (one: Frame) => one.motors.motor?.n;

    expect(between(line, 1, speed)).toBe(10);
    expect(between(line, 6, speed)).toBe(40);
    expect(between(line, 99, speed)).toBe(40);
    expect(between(EMPTY, 1, speed)).toBe(0);
  });
});
