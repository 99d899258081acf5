import type { Schemas } from "../../api/client";

export type Frame = Schemas["FrameOut"];
export type Trace = Schemas["TraceOut"];
export type Hazard = Schemas["HazardOut"];
export type SimEvent = Schemas["EventOut"];
export type Act = Schemas["ActIn"];

/** One line of simulated time: what is known of it, and from where it can go on. */
export interface Timeline {
  frames: readonly Frame[];
  events: readonly SimEvent[];
  hazards: readonly Hazard[];
  /** Sealed states of the server, by the frame that carries them. */
  snapshots: readonly string[];
  until: number;
  neverSettles: boolean;
  /** Whether the motor is this job's own, and what the server says of it. */
  isOwnMotor: boolean;
  said: string;
  /** What must be known of every figure shown; empty where all was entered. */
  mark: string;
}

export const EMPTY: Timeline = {
  frames: [],
  events: [],
  hazards: [],
  snapshots: [],
  until: 0,
  neverSettles: false,
  isOwnMotor: false,
  said: "",
  mark: "",
};

/** The last frame at or before a time; full frames only if wanted. */
export function frameAt(line: Timeline, time: number, isFull = false): Frame | null {
  let found: Frame | null = null;
  for (const frame of line.frames) {
    if (frame.t > time) break;
    if (!isFull || frame.words !== null) found = frame;
  }
  return found;
}

/** A sealed state to go on from at a time, and when it was taken. */
export function startAt(line: Timeline, time: number): { snapshot: string; t: number } | null {
  const frame = frameAt(line, time, true);
  if (frame?.snapshot === null || frame?.snapshot === undefined) return null;
  const snapshot = line.snapshots[frame.snapshot];
  return snapshot ? { snapshot, t: frame.t } : null;
}

/** Put a reply behind what stays: everything from its start on is replaced. */
export function spliced(line: Timeline, reply: Trace): Timeline {
  const shift = line.snapshots.length;
  const first = reply.frames[0];
  const kept = line.frames.filter((frame) => frame.t < reply.start);
  // the opening frame of a reply is the kept one of that instant, told again
  const before = line.frames.filter((frame) => frame.t === reply.start && frame !== first);
  return {
    frames: [
      ...kept,
      ...before,
      ...reply.frames.map((frame) =>
        frame.snapshot === null ? frame : { ...frame, snapshot: frame.snapshot + shift },
      ),
    ],
    events: [
      ...line.events.filter((event) => event.t <= reply.start && !reply.events.includes(event)),
      ...reply.events.filter(
        (event) => !line.events.some((old) => old.t <= reply.start && old.n === event.n),
      ),
    ],
    hazards: [...line.hazards.filter((hazard) => hazard.t <= reply.start), ...reply.hazards],
    snapshots: [...line.snapshots, ...reply.snapshots],
    until: reply.until,
    neverSettles: reply.never_settles,
    isOwnMotor: reply.constants === "physical",
    said: reply.said,
    mark: reply.mark,
  };
}

/** Speed in percent at a time, on the straight line between two frames. */
export function between(
  line: Timeline,
  time: number,
  read: (frame: Frame) => number | undefined,
): number {
  let before: Frame | null = null;
  for (const frame of line.frames) {
    const value = read(frame);
    if (value === undefined) continue;
    if (frame.t >= time) {
      if (!before || frame.t === before.t) return value;
      const from = read(before) ?? value;
      return from + ((value - from) * (time - before.t)) / (frame.t - before.t);
    }
    before = frame;
  }
  return before ? (read(before) ?? 0) : 0;
}
