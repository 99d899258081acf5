import type { UseQueryResult } from "@tanstack/react-query";
import { type ReactNode, useRef } from "react";
import { Refused } from "../api/client";
import type { Question } from "../api/question";
import { frameWords } from "../words/frame";
import { HowFar } from "./HowFar";
import { AskAgain, ProblemSlab, Stop } from "./shapes";
import { useLong } from "./useLong";

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
 * then it is said to be old. `before` stands until there is a first one. A heavy `question`
 * is told how far it is, and can be stopped.
 */
export function useAnswer<T>(
  query: UseQueryResult<T, Error>,
  before?: T,
  question?: Question,
): Answer<T> {
  const last = useRef<T>(undefined);
  if (query.data !== undefined) last.current = query.data;
  const data = query.data ?? last.current ?? before;
  const isComing = query.isPlaceholderData || query.isPending;
  const isOld = data !== undefined && (isComing || query.isError);
  const isLate = useLong(isComing && query.fetchStatus !== "idle") || query.failureCount > 0;
  const isStopped = question !== undefined && isComing && query.fetchStatus === "idle";
  return {
    data,
    isOld,
    slab: slabOf(query, { isLate: isComing && isLate, isStopped, isOld, question }),
  };
}

interface How {
  isLate: boolean;
  isStopped: boolean;
  isOld: boolean;
  question: Question | undefined;
}

function slabOf(
  query: UseQueryResult<unknown, Error>,
  { isLate, isStopped, isOld, question }: How,
): ReactNode {
  if (query.error instanceof Refused) {
    return (
      <ProblemSlab problem={query.error.problem}>
        {isOld && <p>{OLD}</p>}
        <AskAgain query={query} />
      </ProblemSlab>
    );
  }
  if (!isLate && !isStopped) return null;
  return (
    <Stop strength="hold" title={frameWords.notCalculatedYet}>
      {isOld && <p>{OLD}</p>}
      {isStopped && <AskAgain query={query} />}
      {isLate && question && <HowFar question={question} />}
    </Stop>
  );
}
