import { get, keys, set, update } from "idb-keyval";
import { v7 } from "uuid";
import type { Schemas } from "../api/client";
import { isSealed, kindsIn, type Sealed, unseal } from "./sealed";

export type Act = Schemas["PanelActIn"];

/** An entry that is on this device only, or that was refused and waits for a person. */
export interface Held {
  act: Act;
  /** Why it was not kept; empty while it was not answered. */
  refused: string;
  /** A picture that goes first, base64; the entry then names it. */
  picture?: string;
}

/** The entries of this person that lie here cannot be opened: nothing is written over them. */
export class SealedError extends Error {}

/** Where a person's unsent entries of one job lie on this device. */
export const boxOf = (who: string, works: string, tag: string, number: number) =>
  `acts ${who} ${works}/${tag}/${number}`;

/** Kinds of the unsent entries of other people here, of the same job; what they say is theirs. */
export async function othersIn(box: string): Promise<readonly string[]> {
  const place = box.split(" ").slice(2).join(" ");
  const found: string[] = [];
  for (const key of await keys()) {
    const known = String(key);
    if (known === box || !known.startsWith("acts ") || !known.endsWith(` ${place}`)) continue;
    found.push(...kindsIn(await get<Held[] | Sealed>(known)));
  }
  return found;
}

/** What this device is called in its entries; made once, and kept. */
export async function deviceName(): Promise<string> {
  const known = await get<string>("device");
  if (known) return known;
  const made = `device-${v7().slice(-12)}`;
  await set("device", made);
  return made;
}

/** What is held for one box, oldest first. */
export async function heldIn(box: string): Promise<readonly Held[]> {
  if (!(await unseal(box))) return [];
  const kept = await get<Held[] | Sealed>(box);
  return isSealed(kept) ? [] : (kept ?? []);
}

/**
 * Make an entry and save it before anything says so. It has seen what the server showed last,
 * and everything this person made here before.
 */
export async function make(
  box: string,
  told: { kind: string; about?: Act["about"]; body?: Act["body"]; picture?: string },
  seen: { rev: number; heads: readonly string[] },
): Promise<readonly Held[]> {
  const device = await deviceName();
  // never over entries that could not be opened: they would be gone
  if (!(await unseal(box))) throw new SealedError("sealed");
  let now: Held[] = [];
  await update<Held[]>(box, (held = []) => {
    const own = held.filter((one) => !one.refused).map((one) => one.act.uid);
    const act: Act = {
      uid: v7(),
      kind: told.kind,
      device,
      rev: seen.rev,
      about: told.about ?? {},
      body: told.body ?? {},
      based_on: [...seen.heads, ...own.slice(-1)],
      observed_at: new Date().toISOString(),
      clock_off_s: 0,
    };
    now = [...held, { act, refused: "", ...(told.picture ? { picture: told.picture } : {}) }];
    return now;
  });
  return now;
}

/** Take the answers of the server: what is kept leaves, what is refused stays with its reason. */
export async function answered(
  box: string,
  answers: readonly { uid: string; answer: string; said: string }[],
): Promise<readonly Held[]> {
  const by = new Map(answers.map((one) => [one.uid, one]));
  let now: Held[] = [];
  await update<Held[]>(box, (held = []) => {
    now = held.flatMap((one) => {
      const answer = by.get(one.act.uid);
      if (!answer || answer.answer === "history_missing") return [one];
      return answer.answer.startsWith("refused") ? [{ ...one, refused: answer.said }] : [];
    });
    return now;
  });
  return now;
}

/** A picture has arrived: its entry names it from now on, and is as small as any other. */
export async function pictured(box: string, uid: string, sha256: string): Promise<void> {
  await update<Held[]>(box, (held = []) =>
    held.map((one) =>
      one.act.uid === uid
        ? { act: { ...one.act, body: { ...one.act.body, sha256 } }, refused: one.refused }
        : one,
    ),
  );
}

/** What the server would not take of an entry's picture: it stays, and holds back nothing. */
export async function notTaken(box: string, uid: string, why: string): Promise<void> {
  await update<Held[]>(box, (held = []) =>
    held.map((one) => (one.act.uid === uid ? { ...one, refused: why } : one)),
  );
}

/** A person drops what was refused; it is nowhere afterwards. */
export async function dropped(box: string, uid: string): Promise<readonly Held[]> {
  let now: Held[] = [];
  await update<Held[]>(box, (held = []) => {
    now = held.filter((one) => one.act.uid !== uid || !one.refused);
    return now;
  });
  return now;
}
