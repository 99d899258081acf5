import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo } from "react";
import { api, type Job, told } from "../api/client";
import { type Given, type Part, type Place, same } from "./job";
import { useDraft } from "./useDraft";
import { useKeep } from "./useKeep";
import { useWorked } from "./useWorked";

export type { Clash, Given, Line, Part, Place } from "./job";

const KEEP_AFTER_MS = 900;

/**
 * A motor's job: the draft on this page, what the server calculates from it at once, and
 * saving it without a button when the typing rests. What is refused is never saved.
 */
export function useJob(place: Place) {
  const client = useQueryClient();
  const { works, tag, number } = place;
  const at = useMemo(() => ({ works, tag, number }), [works, tag, number]);
  const key = useMemo(() => ["job", works, tag, number], [works, tag, number]);
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/m/{tag}/j/{number}", { params: { path: at }, signal })),
    refetchOnWindowFocus: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const job = query.data;
  const draft = useDraft(job);
  const { given, isTouched, latest, set } = draft;
  const answer = useWorked(works, isTouched ? given : null, job);
  const { line, clash, keep, later, typed, settle } = useKeep(at, key, draft);

  // saved when the typing rests, and only what the server could calculate
  useEffect(() => {
    if (answer.read !== null && same(answer.read, latest.current)) later(KEEP_AFTER_MS);
  }, [answer.read, latest, later]);

  const change = useCallback(
    <P extends Part>(part: P, body: Given[P]) => {
      if (draft.change(part, body)) typed();
    },
    [draft.change, typed],
  );

  /** Take a job as the server has it now; the draft is dropped. */
  const take = useCallback(
    (fresh: Job) => {
      client.setQueryData(key, fresh);
      set(null);
    },
    [client, key, set],
  );
  const takeNewestPlate = useCallback(
    async () =>
      take(
        await told(
          api.POST("/api/w/{works}/m/{tag}/j/{number}/plate/newest", { params: { path: at } }),
        ),
      ),
    [at, take],
  );
  /** Take what the server has now, after it changed the job itself. */
  const reload = useCallback(
    async () =>
      take(await told(api.GET("/api/w/{works}/m/{tag}/j/{number}", { params: { path: at } }))),
    [at, take],
  );

  return {
    job,
    given,
    worked: answer.worked,
    readText: answer.readText,
    error: query.error,
    again: query.refetch,
    refusal: answer.refusal,
    line,
    clash,
    change,
    keep,
    settle,
    takeNewestPlate,
    reload,
  };
}

export type JobState = ReturnType<typeof useJob>;
