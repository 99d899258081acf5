import { useRef, useState } from "react";
import { type Edit, type Starter, withEdits, withoutEdit } from "./edits";
import type { Drawn } from "./verdict";

/** Edits that can be taken back and made again, and what the drawing said before the last one. */
export function useHistory(
  starter: Starter | undefined,
  problems: readonly Drawn[],
  onChange: (starter: Starter) => void,
) {
  const undone = useRef<Edit[]>([]);
  const [before, setBefore] = useState<readonly Drawn[] | null>(null);
  const changed = (next: Starter) => {
    setBefore(problems);
    onChange(next);
  };
  const edits = starter?.edits ?? [];
  return {
    before,
    canUndo: edits.length > 0,
    canRedo: undone.current.length > 0,
    edit: (made: readonly Partial<Edit>[], why: string) => {
      if (!starter) return;
      undone.current = [];
      changed(withEdits(starter, made, why));
    },
    undo: () => {
      const last = edits.at(-1);
      if (!starter || !last) return;
      undone.current.push(last);
      changed(withoutEdit(starter));
    },
    redo: () => {
      const last = undone.current.pop();
      if (!starter || !last) return;
      changed({ ...starter, edits: [...edits, last] });
    },
  };
}
