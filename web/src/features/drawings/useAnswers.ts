import { useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import { named, type Question } from "../../api/question";
import type { Given } from "../../state/useJob";

/** A heavy question about a starter: its key is its name at the server too. */
export const questionOf = (
  kind: "checks" | "proofs" | "probes",
  works: string,
  given: Given | null,
): Question => ({ works, key: [kind, works, given] });

/** What the checks say of a circuit. */
export function useChecks(works: string, given: Given | null) {
  const { key } = questionOf("checks", works, given);
  return useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/checks", {
          params: { path: { works } },
          body: given as Given,
          signal,
          ...named(key),
        }),
      ),
    enabled: given !== null,
  });
}

/** Which standard circuits this one is nearest to. */
export function useNearest(works: string, given: Given) {
  return useQuery({
    queryKey: ["nearest", works, given],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/nearest", { params: { path: { works } }, body: given, signal }),
      ),
  });
}

/** The proofs of a circuit. */
export function useProofs(works: string, given: Given) {
  const { key } = questionOf("proofs", works, given);
  return useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/proofs", {
          params: { path: { works } },
          body: given,
          signal,
          ...named(key),
        }),
      ),
  });
}

/** The scenario tests of a circuit. */
export function useProbes(works: string, given: Given) {
  const { key } = questionOf("probes", works, given);
  return useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/probes", {
          params: { path: { works } },
          body: given,
          signal,
          ...named(key),
        }),
      ),
  });
}
