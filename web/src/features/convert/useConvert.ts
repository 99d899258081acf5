import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import { named } from "../../api/question";
import { useAnswer } from "../../components/useAnswer";
import { put } from "../../state/renew";

export type Conversion = Schemas["ConversionInputs"];
export type Transformer = NonNullable<Conversion["transformers"]>[number];

/** The saved conversion plan of a machine, a draft of it, and the answer to that draft. */
export function useConvert(works: string, machine: string) {
  const client = useQueryClient();
  const [draft, setDraft] = useState<Conversion | null>(null);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const path = { works, machine };
  const kept = useQuery({
    queryKey: ["convert", works, machine],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/convert/{machine}", { params: { path }, signal })),
    refetchOnWindowFocus: false,
  });
  const given = draft ?? kept.data?.given ?? null;
  const key = ["try-convert", works, machine, given];
  const tried = useQuery({
    queryKey: key,
    enabled: draft !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/convert/{machine}", {
          params: { path },
          body: given as Conversion,
          signal,
          ...named(key),
        }),
      ),
  });
  const answered = useAnswer(tried, kept.data, draft === null ? undefined : { works, key });
  const set = (change: Partial<Conversion>) => {
    if (given) setDraft({ ...given, ...change });
  };
  const keep = async () => {
    if (!given || !kept.data) return;
    try {
      const fresh = await told(
        api.PUT("/api/w/{works}/convert/{machine}", {
          params: { path },
          body: { based_on: kept.data.version.n, body: given },
        }),
      );
      await put(client, ["convert", works, machine], fresh);
      setDraft(null);
      setRefusal(null);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal(error);
    }
  };
  return { kept, given, answered, isDraft: draft !== null, refusal, set, keep };
}
