import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import { renew } from "../../state/renew";
import type { useWorks } from "../../state/session";

type Sent = Required<Schemas["RulesIn"]>;
export type RulesIn = { [Rule in keyof Sent]: NonNullable<Sent[Rule]> };

/** Change one of the plant's rules; every answer that used it is asked again. */
export function useRules(works: ReturnType<typeof useWorks>) {
  const client = useQueryClient();
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const set = async (change: Partial<RulesIn>) => {
    if (!works) return;
    try {
      await told(
        api.PATCH("/api/w/{works}/rules", {
          params: { path: { works: works.slug } },
          body: change,
        }),
      );
      setRefusal(null);
      await renew(client);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefusal(error);
    }
  };
  return { refusal, set };
}
