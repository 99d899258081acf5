/** How the plant calls things: the words of the screens follow its rules, as the server's do. */

export interface Names {
  terms: string;
  lines: string;
}

export const USUAL: Names = { terms: "american", lines: "L1-L2-L3" };
const IEC: readonly (readonly [string, string])[] = [
  ["wye", "star"],
  ["circuit breaker", "circuit breaker (MCB, MCCB)"],
  ["across the line", "direct on line (DOL)"],
];
const LINE = /(?<![\w.])L([123])(?!\w)/g;
let names = USUAL;

/** Set the plant's names; what is shown from then on uses them. */
export function setNames(given: Names) {
  names = given;
}

/** A text of our own in the plant's words. Never for what a person typed. */
export function inPlantNames(text: string): string {
  let said = text;
  if (names.terms === "iec") {
    for (const [word, other] of IEC) {
      said = said.replace(new RegExp(`\\b(${word})\\b`, "gi"), (found) =>
        found[0] === word[0] ? other : other.charAt(0).toUpperCase() + other.slice(1),
      );
    }
  }
  if (names.lines === USUAL.lines) return said;
  const lines = names.lines.split("-");
  return said.replace(LINE, (_, place: string) => lines[Number(place) - 1] ?? "");
}

/** Words that follow the plant's names each time they are read. */
export function named<T extends object>(words: T): T {
  return new Proxy(words, {
    get(target, key, receiver) {
      const word: unknown = Reflect.get(target, key, receiver);
      return typeof word === "string" ? inPlantNames(word) : word;
    },
  });
}
