import type { Schemas } from "../../api/client";

export type Token = Schemas["TokenOut"];

/** A run of the plate's text: lit by a token, or plain. */
export interface Run {
  text: string;
  token: Token | null;
}

/**
 * Cut the text into lit and plain runs. Tokens were read from `readText`; while
 * a hand types they may be a moment old, so only those that still stand at
 * their place light up.
 */
export function runsOf(text: string, readText: string, tokens: readonly Token[]): Run[] {
  const runs: Run[] = [];
  let at = 0;
  // the core counts code points, the browser UTF-16 units
  const units = [0];
  for (const sign of readText) units.push((units.at(-1) ?? 0) + sign.length);
  for (const token of tokens) {
    const start = units[token.start] ?? 0;
    const end = units[token.end] ?? 0;
    if (start < at || text.slice(start, end) !== readText.slice(start, end)) continue;
    if (start > at) runs.push({ text: text.slice(at, start), token: null });
    runs.push({ text: text.slice(start, end), token });
    at = end;
  }
  if (at < text.length) runs.push({ text: text.slice(at), token: null });
  return runs;
}
