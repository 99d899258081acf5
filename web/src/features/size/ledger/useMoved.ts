import { useEffect, useRef, useState } from "react";
import type { Worked } from "../../../api/client";

const NOTHING: ReadonlyMap<string, string> = new Map();

/** What every figure said before the last change, of those that it moved; empty for a new one. */
export function useMoved(worked: Worked | null | undefined): ReadonlyMap<string, string> {
  const last = useRef<Map<string, string>>(undefined);
  const [moved, setMoved] = useState(NOTHING);
  useEffect(() => {
    if (!worked) return;
    const now = new Map(worked.steps.map((step) => [step.id, step.said]));
    const before = last.current;
    last.current = now;
    if (!before) return;
    const found = new Map<string, string>();
    for (const [id, said] of now) {
      if (before.get(id) !== said) found.set(id, before.get(id) ?? "");
    }
    // an answer that moves nothing leaves what moved before in sight
    if (found.size > 0) setMoved(found);
  }, [worked]);
  return moved;
}
