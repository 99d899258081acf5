import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../../api/client";
import { useAnswer } from "../../../components/useAnswer";
import type { Given } from "../../../state/useJob";

export type Curves = Schemas["CurvesOut"];

/** The time-current curves of a job, with what they show. */
export function useCurves(works: string, given: Given) {
  const query = useQuery({
    queryKey: ["curves", works, given],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(api.POST("/api/w/{works}/curves", { params: { path: { works } }, body: given, signal })),
  });
  return useAnswer(query);
}
