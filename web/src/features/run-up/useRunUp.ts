import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { named } from "../../api/question";
import { useAnswer } from "../../components/useAnswer";
import type { Given } from "../../state/useJob";

export type RunUp = Schemas["RunUpOut"];
export type Way = RunUp["ways"][number];
export type Advice = Schemas["AdviceOut"];

/** Every way to start this motor on its load. */
export function useRunUp(works: string, given: Given | null) {
  const key = ["run-up", works, given];
  const query = useQuery({
    queryKey: key,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/run-up", {
          params: { path: { works } },
          body: given as Given,
          signal,
          ...named(key),
        }),
      ),
    enabled: given !== null,
  });
  return useAnswer(query, undefined, { works, key });
}

/** Starts in a row, from cold and from running. */
export function useStartsInARow(works: string, given: Given | null, isRunning: boolean) {
  const key = ["starts-in-a-row", works, given];
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/starts-in-a-row", {
          params: { path: { works } },
          body: given as Given,
          signal,
          ...named(key),
        }),
      ),
    enabled: given !== null && isRunning,
  });
  return useAnswer(query, undefined, { works, key });
}

/** The timer of one way to start; not asked where there is none. */
export function useAdvice(works: string, given: Given | null, way: Way | undefined) {
  const method = way?.has_timer ? (way.method as "wye_delta") : null;
  const key = ["run-up", works, given, method];
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/run-up/{method}", {
          params: { path: { works, method: method ?? "wye_delta" } },
          body: given as Given,
          signal,
          ...named(key),
        }),
      ),
    enabled: given !== null && method !== null,
  });
  return useAnswer(query, undefined, { works, key });
}
