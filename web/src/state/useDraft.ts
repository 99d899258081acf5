import { useCallback, useRef, useState } from "react";
import type { Job } from "../api/client";
import { type Given, givenOf, type Part } from "./job";

/** What stands on this page: the saved inputs, or what was typed over them. */
export function useDraft(job: Job | undefined) {
  const [draft, setDraft] = useState<Given | null>(null);
  const given = draft ?? (job ? givenOf(job) : null);
  const latest = useRef<Given | null>(given);
  latest.current = given;

  /** Replace the draft; null takes what is saved. */
  const set = useCallback((next: Given | null) => {
    latest.current = next;
    setDraft(next);
  }, []);

  /** Change one step and return the whole, null while there is no job. */
  const change = useCallback(
    <P extends Part>(part: P, body: Given[P]): Given | null => {
      const base = latest.current;
      if (!base) return null;
      const next = { ...base, [part]: body };
      set(next);
      return next;
    },
    [set],
  );

  return { given, isTouched: draft !== null, latest, set, change };
}

export type Draft = ReturnType<typeof useDraft>;
