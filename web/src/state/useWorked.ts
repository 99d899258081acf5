import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Job, Refused, told } from "../api/client";
import type { Given } from "./job";

const READ_AFTER_MS = 40;
export const AGAIN_AFTER_MS = 3000;
const isLost = (error: Error) => error instanceof Refused && error.status === 0;

/** The value once it has rested for a moment. */
function useRested<T>(value: T, ms: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setRested(value), ms);
    return () => window.clearTimeout(timer);
  }, [value, ms]);
  return rested;
}

/**
 * What the server calculates from a draft, without storing it. The last answer stays until
 * the next one; a lost line is tried again by itself, a refusal is not.
 */
export function useWorked(works: string, draft: Given | null, job: Job | undefined) {
  const rested = useRested(draft, READ_AFTER_MS);
  const query = useQuery({
    queryKey: ["work-out", works, rested],
    queryFn: async ({ signal }) => {
      const body = rested as Given;
      const found = await told(
        api.POST("/api/w/{works}/work-out", { params: { path: { works } }, body, signal }),
      );
      return { worked: found, given: body };
    },
    enabled: rested !== null && draft !== null,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    networkMode: "always",
    retry: (_, error) => isLost(error),
    retryDelay: AGAIN_AFTER_MS,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  });
  const answer = draft === null ? undefined : query.data;
  const trouble = query.error ?? query.failureReason;
  return {
    worked: answer?.worked ?? job?.worked ?? null,
    /** The nameplate's text that `worked` was read from. */
    readText: answer?.given.plate.text ?? job?.plate.text ?? "",
    refusal: draft !== null && trouble instanceof Refused ? trouble : null,
    /** The draft that was calculated last without a refusal. */
    read: query.isPlaceholderData || query.isError ? null : (answer?.given ?? null),
  };
}
