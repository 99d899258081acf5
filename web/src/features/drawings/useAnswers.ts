import { useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import type { Given } from "../../state/useJob";

const PAUSE_MS = 700;
/** States of a proof that still runs. */
export const OPEN = new Set(["waiting", "running"]);

/** What the checks say of a circuit. */
export function useChecks(works: string, given: Given | null) {
  return useQuery({
    queryKey: ["checks", works, given],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/checks", {
          params: { path: { works } },
          body: given as Given,
          signal,
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

/** The proofs of a circuit, asked again while one still runs. */
export function useProofs(works: string, given: Given) {
  return useQuery({
    queryKey: ["proofs", works, given],
    queryFn: ({ signal }) =>
      told(api.POST("/api/w/{works}/proofs", { params: { path: { works } }, body: given, signal })),
    refetchInterval: ({ state }) =>
      state.data?.some((one) => OPEN.has(one.state)) ? PAUSE_MS : false,
  });
}

/** The scenario tests of a circuit. */
export function useProbes(works: string, given: Given) {
  return useQuery({
    queryKey: ["probes", works, given],
    queryFn: ({ signal }) =>
      told(api.POST("/api/w/{works}/probes", { params: { path: { works } }, body: given, signal })),
  });
}
