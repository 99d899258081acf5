import type { UseQueryResult } from "@tanstack/react-query";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";
import { frameWords } from "../words/frame";
import { AskAgain, ProblemSlab, Stop } from "./shapes";

const LONG_MS = 1000;
/** Said wherever an answer is not of what is given now. */
export const OLD = frameWords.figuresShownStill;

export interface Answer<T> {
  data: T | undefined;
  /** `data` answers what was given before, not what is given now. */
  isOld: boolean;
  /** To stand above the answer: why it is missing or old; nothing while all is well. */
  slab: ReactNode;
}

/**
 * An answer of the server to what is given, with what a person must know of it.
 * The last answer stays while the next one is made, and also if none can be had:
 * then it is said to be old. `before` stands until there is a first one.
 */
export function useAnswer<T>(query: UseQueryResult<T, Error>, before?: T): Answer<T> {
  const last = useRef<T>(undefined);
  if (query.data !== undefined) last.current = query.data;
  const data = query.data ?? last.current ?? before;
  const isComing = query.isPlaceholderData || query.isPending;
  const isOld = data !== undefined && (isComing || query.isError);
  const isLate = useLong(isComing && query.fetchStatus !== "idle") || query.failureCount > 0;
  return { data, isOld, slab: slabOf(query, isComing && isLate, isOld) };
}

function slabOf(query: UseQueryResult<unknown, Error>, isLate: boolean, isOld: boolean): ReactNode {
  if (query.error instanceof Refused) {
    return (
      <ProblemSlab problem={query.error.problem}>
        {isOld && <p>{OLD}</p>}
        <AskAgain query={query} />
      </ProblemSlab>
    );
  }
  if (!isLate) return null;
  return (
    <Stop strength="hold" title={frameWords.notCalculatedYet}>
      {isOld && <p>{OLD}</p>}
    </Stop>
  );
}

/** Whether something has been so for a second. */
function useLong(isSo: boolean): boolean {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!isSo) return;
    const timer = window.setTimeout(() => setLong(true), LONG_MS);
    return () => {
      window.clearTimeout(timer);
      setLong(false);
    };
  }, [isSo]);
  return isSo && isLong;
}
