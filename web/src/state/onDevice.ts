import { delMany, keys } from "idb-keyval";
import { sealOthers } from "./sealed";

/** What this device keeps, and how much room is left. */
export interface Room {
  usedMb: number;
  ofMb: number;
  isTight: boolean;
}

const MB = 1_000_000;
/** From this part of the room on, a person is told before it is full. */
const TIGHT = 0.8;

/** Let the page open without a network from now on, and ask that its data stay. */
export function keepOnDevice(): void {
  if (!("serviceWorker" in navigator)) return;
  void navigator.serviceWorker.register("/sw.js").catch(() => undefined);
  void navigator.storage?.persist?.().catch(() => undefined);
}

/** How much of this device's room is used; null where it does not say. */
export async function roomOnDevice(): Promise<Room | null> {
  const found = await navigator.storage?.estimate?.().catch(() => null);
  if (!found?.quota) return null;
  const used = found.usage ?? 0;
  return { usedMb: used / MB, ofMb: found.quota / MB, isTight: used > TIGHT * found.quota };
}

/**
 * Erase what a plant showed on this device. What was done and not sent yet stays: it belongs to
 * the person who did it, is sealed until they sign in again, and goes then.
 */
export async function erasePlants(): Promise<void> {
  await sealOthers(null);
  if ("caches" in globalThis) await caches.delete("opened");
  const shown = (await keys()).filter((key) => String(key).startsWith("panel "));
  await delMany(shown);
}
