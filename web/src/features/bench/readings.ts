import type { Schemas } from "../../api/client";
import { benchWords } from "../../words/bench";

export type Bench = Schemas["BenchInputs"];
export type Guided = Schemas["GuidedOut"];
export type Taken = NonNullable<Bench["readings"]>[number];
export type Ask = NonNullable<Guided["ask"]>;

/** Say a reading in one line. */
export function said(reading: Taken): string {
  if (reading.what === "touch") {
    const [one, other] = reading.pair;
    if (!reading.rings) return benchWords.ol2(one ?? "", other ?? "");
    return benchWords.measured(one ?? "", other ?? "", reading.ohms ?? "");
  }
  if (reading.what === "kick") {
    return benchWords.kicked(
      reading.feed.join(benchWords.to),
      reading.read.join(benchWords.to),
      benchWords.needle[reading.needle],
    );
  }
  const joined = (reading.joined ?? [])
    .map(([one, other]) => benchWords.joined(one ?? "", other ?? ""))
    .join("");
  return benchWords.vV(
    reading.feed_v,
    reading.feed.join("-"),
    joined,
    reading.read.join(benchWords.to),
    reading.volts,
  );
}

/** What a cell of the grid shows: read, following from what was read, or nothing yet. */
export interface Cell {
  text: string;
  kind: "read" | "follows" | "open";
}

/** The grid of every two lead letters: what was touched, and what follows from it. */
export function cellOf(
  one: string,
  other: string,
  readings: readonly Taken[],
  settled: Guided["settled"],
): Cell {
  const has = (pair: readonly string[]) => pair.includes(one) && pair.includes(other);
  const touch = readings.findLast((item) => item.what === "touch" && has(item.pair));
  if (touch?.what === "touch") {
    return { text: touch.rings ? (touch.ohms ?? "rings") : "OL", kind: "read" };
  }
  const rings = readings.filter((item) => item.what === "touch" && item.rings);
  if (follows(one, other, rings)) return { text: "rings", kind: "follows" };
  const known = settled.find((pair) => has([pair.one, pair.other]));
  if (known) return { text: known.rings ? "rings" : "OL", kind: "follows" };
  return { text: "", kind: "open" };
}

/** Whether two lead letters hang together by a chain of touches that rang. */
function follows(one: string, other: string, rings: readonly Taken[]): boolean {
  const reach = new Set([one]);
  for (let step = 0; step < rings.length; step += 1) {
    for (const item of rings) {
      if (item.what !== "touch") continue;
      const [a = "", b = ""] = item.pair;
      if (reach.has(a)) reach.add(b);
      else if (reach.has(b)) reach.add(a);
    }
  }
  return reach.has(other);
}
