import { hashKey, type QueryKey } from "@tanstack/react-query";

/** A heavy question: the key it is asked under, and the plant. */
export interface Question {
  works: string;
  key: QueryKey;
}

/** A short name for a question, the same for the same key: the server tells under it how far it is. */
export function nameOf(key: QueryKey): string {
  // FNV-1a over the text of the key, two runs of 32 bits
  const text = hashKey(key);
  const run = (start: number) => {
    let hash = start;
    for (let place = 0; place < text.length; place++) {
      hash = Math.imul(hash ^ text.charCodeAt(place), 0x01000193) >>> 0;
    }
    return hash.toString(16);
  };
  return `${run(0x811c9dc5)}-${run(0x9e3779b9)}`;
}

/** The header that names a question. */
export const named = (key: QueryKey) => ({ headers: { "X-Question": nameOf(key) } });
