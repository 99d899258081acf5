import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import { useAnswer } from "../../components/useAnswer";
import type { Given } from "../../state/useJob";

/** Every starter beside this motor and this load. */
export function useChoices(works: string, given: Given | null) {
  const query = useQuery({
    queryKey: ["choose", works, given && { ...given, starter: given.starter.load }],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/choose", {
          params: { path: { works } },
          body: given as Given,
          signal,
        }),
      ),
    enabled: given !== null,
    placeholderData: keepPreviousData,
  });
  return useAnswer(query);
}
