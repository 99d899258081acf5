import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, told } from "../../api/client";
import { useAnswer } from "../../components/useAnswer";

export type FeederGiven = Schemas["FeederInputs"];
export type FeederAnswer = Schemas["FeederOut"];

const AT_FIRST: FeederGiven = {
  supply: "",
  continuous_a: "0",
  noncontinuous_a: "0",
  material: "cu",
  termination_c: 75,
  device_kind: "inverse_time_breaker",
  is_group: false,
  interlocked: [],
  taps: [],
};

/** What is entered for a machine's feeder, and the answer to it. */
export function useFeeder(works: string, machine: string) {
  const [asked, setAsked] = useState<FeederGiven>(AT_FIRST);
  const query = useQuery({
    queryKey: ["feeder", works, machine, asked],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/feeder/{machine}", {
          params: { path: { works, machine } },
          body: asked,
          signal,
        }),
      ),
  });
  const { data: found, slab } = useAnswer(query);
  const set = (change: Partial<FeederGiven>) => setAsked({ ...asked, ...change });
  return { asked, set, query, found, slab };
}
