import { useState } from "react";
import { type Problem, Refused } from "../api/client";

/** Does something that the server may refuse: what was refused, and whether it is under way. */
export function useTried() {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [isBusy, setBusy] = useState(false);
  /** What came of it; null where it was refused, which `onRefused` is told of. */
  const tried = async <T>(
    asked: () => Promise<T>,
    onRefused?: (lost: Refused) => Promise<void>,
  ): Promise<T | null> => {
    setBusy(true);
    setProblem(null);
    try {
      return await asked();
    } catch (lost) {
      if (!(lost instanceof Refused)) throw lost;
      setProblem(lost.problem);
      await onRefused?.(lost);
      return null;
    } finally {
      setBusy(false);
    }
  };
  return { problem, isBusy, tried };
}
