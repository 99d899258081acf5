import { del, get, keys, set, update } from "idb-keyval";

/** Entries that were made here and not sent, of somebody who is not signed in now. */
export interface Sealed {
  sealed: ArrayBuffer;
  iv: Uint8Array<ArrayBuffer>;
  /** Kinds of what is inside: an unsent closing shuts hands here, whoever made it. */
  kinds: readonly string[];
}

interface Inside {
  act: { kind: string };
  refused: string;
}

/** A person's unsent entries lie at ``acts who place``, their key at ``seal who``. */
const personOf = (box: string) => box.split(" ")[1] ?? "";
const keyOf = (who: string) => `seal ${who}`;

export function isSealed(kept: unknown): kept is Sealed {
  return typeof kept === "object" && kept !== null && "sealed" in kept;
}

/** What kinds of unsent entries a box holds, sealed or not. */
export function kindsIn(kept: readonly Inside[] | Sealed | undefined): readonly string[] {
  if (isSealed(kept)) return kept.kinds;
  return (kept ?? []).filter((one) => !one.refused).map((one) => one.act.kind);
}

/** Whether a person's key is here. */
export async function hasSeal(who: string): Promise<boolean> {
  return (await get(keyOf(who))) !== undefined;
}

/** Keep a person's key while they are signed in; it cannot be read out again. */
export async function keepSeal(who: string, key: string): Promise<void> {
  const bytes = Uint8Array.from(atob(key), (one) => one.charCodeAt(0));
  const made = await crypto.subtle.importKey("raw", bytes, "AES-GCM", false, [
    "encrypt",
    "decrypt",
  ]);
  await set(keyOf(who), made);
}

/** Seal the unsent entries of everybody but one, and throw their keys away. */
export async function sealOthers(who: string | null): Promise<void> {
  for (const name of await keys()) {
    const box = String(name);
    const person = personOf(box);
    if (!box.startsWith("acts ") || person === who) continue;
    const key = await get<CryptoKey>(keyOf(person));
    const held = await get<Inside[] | Sealed>(box);
    // without its key (a page that is not served safely has none) a box stays as it is
    if (!key || !held || isSealed(held) || held.length === 0) continue;
    const iv = crypto.getRandomValues(new Uint8Array(12));
    const text = new TextEncoder().encode(JSON.stringify(held));
    const sealed = await crypto.subtle.encrypt({ name: "AES-GCM", iv }, key, text);
    await set(box, { sealed, iv, kinds: kindsIn(held) } satisfies Sealed);
  }
  for (const name of await keys()) {
    const known = String(name);
    if (known.startsWith("seal ") && known !== keyOf(who ?? "")) await del(known);
  }
}

/** Open a box of the person who is signed in; true if it is open now. */
export async function unseal(box: string): Promise<boolean> {
  const kept = await get<unknown>(box);
  if (!isSealed(kept)) return true;
  const key = await get<CryptoKey>(keyOf(personOf(box)));
  if (!key) return false;
  const text = await crypto.subtle
    .decrypt({ name: "AES-GCM", iv: kept.iv }, key, kept.sealed)
    .catch(() => null);
  if (!text) return false;
  const held = JSON.parse(new TextDecoder().decode(text)) as Inside[];
  // another page may have opened it meanwhile, and gone on
  await update(box, (now) => (isSealed(now) ? held : now));
  return true;
}
