import type { Schemas } from "../../api/client";
import { rehearseWords } from "../../words/rehearse";

type Device = Schemas["DeviceOut"];

/** A control under the hand: what it is, its key, what pressing and letting go do. */
export interface Hand {
  device: Device;
  kind: "hold" | "latch" | "switch" | "selector" | "pilot" | "reset";
  key: string;
  label: string;
}

/** Keys of the panel by what a button is for; others take the first free letter of their tag. */
const WISHES: Record<string, string> = {
  start: "a",
  stop: "s",
  forward: "f",
  reverse: "r",
  low: "l",
  high: "i",
  jog: "j",
  reset: "t",
  estop_1: "e",
  estop_2: "u",
  overload: "o",
  breaker: "b",
  selector: "v",
  pilot: "c",
};
/** Taken by the frame of every job screen, or by time itself. */
const TAKEN = ["h", "p", "g", "k", "m", "x", "w", "z"];
const KINDS: Record<string, Hand["kind"]> = {
  pb: "hold",
  estop: "latch",
  cb3: "switch",
  fdisc: "switch",
  isolator: "switch",
  mms: "switch",
  manual: "switch",
  sel: "selector",
  drum: "selector",
  pilot: "pilot",
  olr: "reset",
};
const ORDER: Hand["kind"][] = ["switch", "hold", "latch", "selector", "pilot", "reset"];

export function handsOf(devices: readonly Device[]): Hand[] {
  const taken = new Set(TAKEN);
  const found: Hand[] = [];
  const listed = devices.filter((device) => KINDS[device.type]);
  listed.sort(
    (one, other) =>
      ORDER.indexOf(KINDS[one.type] ?? "hold") - ORDER.indexOf(KINDS[other.type] ?? "hold"),
  );
  for (const device of listed) {
    const letters = `${WISHES[device.id] ?? ""}${device.id}${device.tag}qwertyuiopasdfghjklzxcvbnm`;
    const key =
      [...letters.toLowerCase()].find((sign) => /[a-z]/.test(sign) && !taken.has(sign)) ?? "";
    if (key) taken.add(key);
    const kind = KINDS[device.type] ?? "hold";
    const role = { start: "START", stop: "STOP", forward: "FWD", reverse: "REV", low: "LOW" }[
      device.id
    ];
    const label =
      device.legend || (role && role !== device.tag ? `${role} ${device.tag}` : device.tag);
    found.push({
      device,
      kind,
      key,
      label: kind === "reset" ? rehearseWords.reset(device.tag) : label,
    });
  }
  return found;
}
