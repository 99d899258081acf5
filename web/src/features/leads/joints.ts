import type { Schemas } from "../../api/client";

export type Joint = Schemas["JointInput"];

const LINES = ["L1", "L2", "L3"];
type Line = "L1" | "L2" | "L3";

/** An id that lasts and sorts by time, as RFC 9562 version 7. */
export function lastingId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  let time = Date.now();
  for (let place = 5; place >= 0; place -= 1) {
    bytes[place] = time % 256;
    time = Math.floor(time / 256);
  }
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x70;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
}

/** The joint that an end (a lead or a line) is in; a second line stands among the leads. */
export function jointOf(joints: readonly Joint[], end: string): Joint | undefined {
  return joints.find((joint) => joint.line === end || (joint.leads ?? []).includes(end));
}

const ends = (joint: Joint) => [...(joint.line ? [joint.line] : []), ...(joint.leads ?? [])];

/** Take an end out of its joint; a joint of one end is none. */
export function takeOut(joints: readonly Joint[], end: string): Joint[] {
  return joints
    .map((joint) => ({
      ...joint,
      line: joint.line === end ? null : (joint.line ?? null),
      leads: (joint.leads ?? []).filter((lead) => lead !== end),
    }))
    .filter((joint) => ends(joint).length > 1);
}

/**
 * Join two ends, or part them if they are together. What is joined to either
 * comes along. Two lines in one joint are a short circuit: shown for what it is.
 */
export function tap(joints: readonly Joint[], one: string, other: string): Joint[] {
  const [first, second] = [jointOf(joints, one), jointOf(joints, other)];
  if (first && first === second) return takeOut(joints, other);
  const together = [...(first ? ends(first) : [one]), ...(second ? ends(second) : [other])];
  const lines = together.filter((end) => LINES.includes(end));
  const joined: Joint = {
    id: first?.id ?? second?.id ?? lastingId(),
    leads: together.filter((end) => end !== lines[0]),
    line: (lines[0] as Line | undefined) ?? null,
  };
  return [...joints.filter((joint) => joint !== first && joint !== second), joined];
}

/** Tell whether two lists hold the same joints, whatever their order and ids. */
export function sameJoints(
  one: readonly { leads?: string[]; line?: string | null }[],
  other: readonly { leads?: string[]; line?: string | null }[],
): boolean {
  const flat = (list: typeof one) =>
    list
      .map((joint) => `${joint.line ?? ""}:${[...(joint.leads ?? [])].sort().join("-")}`)
      .sort()
      .join(" ");
  return flat(one) === flat(other);
}
