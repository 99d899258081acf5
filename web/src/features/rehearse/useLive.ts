import { useMemo } from "react";
import type { Live } from "../../diagram/Diagram";
import type { Rehearsal } from "./useRehearsal";

/** What a rehearsal shows on a drawing: drawn anew only when something changed. */
export function useLive({ full, held }: Rehearsal): Live | undefined {
  const culprit = held[0]?.device;
  return useMemo(
    () =>
      full?.nets
        ? {
            nets: full.nets,
            hot: new Set(full.live ?? []),
            closed: new Set(full.closed ?? []),
            words: full.words ?? {},
            culprit,
          }
        : undefined,
    [full, culprit],
  );
}
