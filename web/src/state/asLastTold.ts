/** Whether the last answer came from this device, because no server gave one. */
let isOld = false;
const listeners = new Set<() => void>();

export const isAsLastTold = () => isOld;

export function onAsLastTold(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** Take note of an answer: kept by the service worker, or fresh. */
export function noteAnswer(headers: Headers): void {
  const now = headers.has("X-As-Last-Told");
  if (now === isOld) return;
  isOld = now;
  for (const listener of listeners) listener();
}
