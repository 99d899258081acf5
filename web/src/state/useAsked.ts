import { useCallback, useState } from "react";
import { type Problem, Refused } from "../api/client";

/** An answer asked for by a key, or why there is none. */
export function useAsked<Told>() {
  const [shown, setShown] = useState<Told>();
  const [problem, setProblem] = useState<Problem>();
  const ask = useCallback(async (asked: () => Promise<Told>) => {
    try {
      setShown(await asked());
      setProblem(undefined);
    } catch (lost) {
      if (!(lost instanceof Refused)) throw lost;
      setShown(undefined);
      setProblem(lost.problem);
    }
  }, []);
  return { shown, problem, ask };
}
