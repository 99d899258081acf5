import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import { useAnswer } from "../../components/useAnswer";
import type { Given } from "../../state/useJob";

/** What differs between the old motor and the new one, and what is still open. */
export function useReplaced(works: string, given: Given | null) {
  const query = useQuery({
    queryKey: ["replaced", works, given?.replace, given?.plate],
    enabled: given !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/replaced", {
          params: { path: { works } },
          body: { replace: (given as Given).replace, plate: (given as Given).plate },
          signal,
        }),
      ),
  });
  const { data: found, slab } = useAnswer(query);
  return { found, slab };
}
