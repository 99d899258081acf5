import { panelWords as w } from "../../words/panel";

/** Between what a reading should lie, in words; null is no bound. */
export function bounds(least: string | null, most: string | null, unit: string): string {
  if (least !== null && most !== null) return w.asked(least, most, unit);
  return most === null ? w.atLeast(least ?? "0", unit) : w.atMost(most, unit);
}
