import { keepPreviousData, skipToken, useQuery } from "@tanstack/react-query";
import { api, type Schemas, told } from "../api/client";
import { useAnswer } from "../components/useAnswer";
import type { Given } from "../state/useJob";

export type Circuit = Schemas["CircuitOut"];

/** The starter of what is given, drawn; the last drawing stays while the next is made. */
export function useCircuit(works: string, given: Given | null) {
  const query = useQuery({
    queryKey: ["circuit", works, given],
    queryFn: given
      ? ({ signal }) =>
          told(
            api.POST("/api/w/{works}/circuit", {
              params: { path: { works } },
              body: given,
              signal,
            }),
          )
      : skipToken,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  return useAnswer(query);
}
