import type { Circuit } from "../../diagram/useCircuit";

export type Drawn = Circuit["problems"][number];

/** What an edit brought and what it cured, by rule and words. */
export function comparedWith(
  before: readonly Drawn[],
  now: readonly Drawn[],
): { fresh: readonly Drawn[]; cured: readonly Drawn[] } {
  const name = (one: Drawn) => `${one.rule} ${one.text}`;
  const [old, fresh] = [new Set(before.map(name)), new Set(now.map(name))];
  return {
    fresh: now.filter((one) => !old.has(name(one))),
    cured: before.filter((one) => !fresh.has(name(one))),
  };
}

/** Problems that were there before and still are. */
export function stillOpen(before: readonly Drawn[], now: readonly Drawn[]): readonly Drawn[] {
  const { fresh } = comparedWith(before, now);
  return now.filter((one) => !fresh.includes(one));
}
