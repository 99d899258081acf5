import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, told } from "../../api/client";
import { named } from "../../api/question";
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
  const key = ["feeder", works, machine, asked];
  const query = useQuery({
    queryKey: key,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/feeder/{machine}", {
          params: { path: { works, machine } },
          body: asked,
          signal,
          ...named(key),
        }),
      ),
  });
  const { data: found, slab } = useAnswer(query, undefined, { works, key });
  const set = (change: Partial<FeederGiven>) => setAsked({ ...asked, ...change });
  return { asked, set, query, found, slab };
}
