import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import type { SimEvent } from "./timeline";

const LONGEST = 4;
/** What a hand moves: how it stands then is the move itself. */
const MOVED = new Set(["pb", "estop", "sel", "drum"]);

const POINT = /^(A?I\d+|FWD|REV|HLD|RST|ENA)$/;

/** One event in words. */
export function said(event: SimEvent, types: ReadonlyMap<string, string>): string {
  const { tag, value } = event;
  if (event.what === "hand") return rehearseWords.byHand(tag, value);
  const own = rehearseWords.motorTells[`${event.what} ${value}`];
  if (own) return `${tag} ${own}`;
  if (POINT.test(event.what) && ["plc", "drive"].includes(types.get(event.device) ?? ""))
    return rehearseWords.input(tag, event.what, value === "1");
  if (/^Q\d+$/.test(event.what)) return rehearseWords.output(tag, event.what, value);
  const isLamp = types.get(event.device) === "lamp";
  if (["1", "on"].includes(value))
    return isLamp ? rehearseWords.lights(tag) : rehearseWords.pullsIn(tag);
  if (["0", "off"].includes(value))
    return isLamp ? rehearseWords.goesDark(tag) : rehearseWords.dropsOut(tag);
  return rehearseWords.becomes(tag, rehearseWords.motorStates[value]?.toLowerCase() ?? value);
}

/** What happens now: the newest event and the chain of causes it came by, first cause first. */
export function sentenceAt(
  events: readonly SimEvent[],
  now: number,
  circuit: Pick<Circuit, "devices">,
): string {
  const types = new Map(circuit.devices.map((device) => [device.id, device.type]));
  const tells = (event: SimEvent) =>
    event.tag !== "" && (event.what === "hand" || !MOVED.has(types.get(event.device) ?? ""));
  const last = events.findLast((event) => event.t <= now && tells(event));
  const chain: string[] = [];
  let at: SimEvent | undefined = last;
  const seen = new Set<number>();
  while (at && chain.length < LONGEST && !seen.has(at.n)) {
    seen.add(at.n);
    const words = tells(at) ? said(at, types) : "";
    if (words && chain[0] !== words) chain.unshift(words);
    const { cause }: SimEvent = at;
    at = cause === null ? undefined : events.find((event) => event.n === cause);
  }
  return chain.join(" → ");
}
