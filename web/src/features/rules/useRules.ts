import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import { renew } from "../../state/renew";
import type { useWorks } from "../../state/session";

export type RulesIn = Schemas["RulesIn"];

/** Change one of the plant's rules; every answer that used it is asked again. */
export function useRules(works: ReturnType<typeof useWorks>) {
  const client = useQueryClient();
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const set = async (change: Partial<RulesIn>) => {
    if (!works) return;
    const body = {
      edition: works.edition,
      rating_rule: works.rating_rule,
      swap_lines: works.swap_lines,
      twist_on: works.twist_on,
      twist_on_largest: works.twist_on_largest,
      rating_rule_reason: works.rating_rule_reason,
      wire_colors: works.wire_colors,
      phase_colors: works.phase_colors,
      control_wire: works.control_wire,
      ferrules: works.ferrules,
      device_names: works.device_names,
      trade_terms: works.trade_terms,
      line_names: works.line_names,
      amendments: works.amendments.map(({ subject, value, author, reason }) => ({
        subject,
        value,
        author,
        reason,
      })),
      ...change,
    } as RulesIn;
    try {
      await told(
        api.PUT("/api/w/{works}/rules", { params: { path: { works: works.slug } }, body }),
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
