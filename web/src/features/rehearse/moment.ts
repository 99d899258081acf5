import type { Act } from "./timeline";
import type { WireFault } from "./WireFaults";

/** A moment of a rehearsal: what was done until then, and with which wires wrong. */
export interface Moment {
  at: number;
  acts: readonly Act[];
  wrong: readonly WireFault[];
}

const MOST_ACTS = 400;

/** The part of an address that leads to a moment. */
export function addressOf(moment: Moment): string {
  const acts = moment.acts
    .filter((act) => act.t <= moment.at)
    .map((act) => [act.t, act.do, act.on, act.word]);
  const text = JSON.stringify([1, Math.round(moment.at), acts, moment.wrong]);
  const bytes = String.fromCharCode(...new TextEncoder().encode(text));
  return btoa(bytes).replaceAll("+", "-").replaceAll("/", "_").replaceAll("=", "");
}

/** The moment of an address; null if it is none. */
export function momentOf(address: string): Moment | null {
  try {
    const bytes = atob(address.replaceAll("-", "+").replaceAll("_", "/"));
    const text = new TextDecoder().decode(Uint8Array.from(bytes, (sign) => sign.charCodeAt(0)));
    const [version, at, acts, wrong] = JSON.parse(text) as unknown[];
    if (version !== 1 || typeof at !== "number" || !(at >= 0)) return null;
    if (!Array.isArray(acts) || acts.length > MOST_ACTS || !Array.isArray(wrong)) return null;
    const read = acts.map((one: unknown): Act | null => {
      if (!Array.isArray(one)) return null;
      const [t, verb, on, word] = one as unknown[];
      const isRight =
        typeof t === "number" && [verb, on, word].every((part) => typeof part === "string");
      return isRight ? { t, do: verb as string, on: on as string, word: word as string } : null;
    });
    const isFault = (one: unknown) =>
      typeof one === "object" && one !== null && "edit" in one && "said" in one;
    if (read.includes(null) || !wrong.every(isFault)) return null;
    return { at, acts: read as Act[], wrong: wrong as WireFault[] };
  } catch {
    return null;
  }
}
