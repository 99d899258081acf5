import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { put } from "../../state/renew";
import { useTried } from "../../state/useTried";

export type Audit = Schemas["AuditOut"];
export type WhatIf = Schemas["WhatIf"];
/** What of an audit is listed. */
export interface Chosen {
  topic: string;
  state: string;
  machine: string;
  panel: string;
  fact: string;
  change: "" | "any" | "new" | "gone" | "moved";
  page: number;
}

/** Everything but what nobody recorded, which stands under the unknown facts. */
export const FOUND: Chosen = {
  topic: "",
  state: "found",
  machine: "",
  panel: "",
  fact: "",
  change: "",
  page: 1,
};
const LOOKS_MS = 900;

/** The audits of a plant, the one that is open, and the lines of it that are chosen. */
export function useAudit(
  works: string,
  n: number | null,
  chosen: Chosen,
  onOpen: (n: number) => void,
) {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const list = useQuery({
    queryKey: ["audits", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/audits", { params: { path: { works } }, signal })),
  });
  const shown = n ?? list.data?.[0]?.n ?? null;
  const path = { works, n: shown ?? 0 };
  const key = ["audit", works, shown];
  const one = useQuery({
    queryKey: key,
    enabled: shown !== null,
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/audits/{n}", { params: { path }, signal })),
  });
  const isRunning = one.data?.state === "running";
  const progress = useQuery({
    queryKey: ["audit progress", works, shown],
    enabled: isRunning,
    refetchInterval: LOOKS_MS,
    gcTime: 0,
    queryFn: async ({ signal }) => {
      const now = await told(
        api.GET("/api/w/{works}/audits/{n}/progress", { params: { path }, signal }),
      );
      if (now.state !== "running") {
        await client.invalidateQueries({ queryKey: key });
        await client.invalidateQueries({ queryKey: ["audit lines", works, shown] });
        await client.invalidateQueries({ queryKey: ["audits", works] });
      }
      return now;
    },
  });
  const lines = useQuery({
    queryKey: ["audit lines", works, shown, chosen],
    enabled: shown !== null && one.data?.is_kept === true && !isRunning,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/audits/{n}/lines", {
          params: { path, query: chosen },
          signal,
        }),
      ),
  });
  const keep = async (asked: () => Promise<Audit>) => {
    const made = await tried(asked);
    if (!made) return;
    await put(client, ["audit", works, made.n], made);
    void client.invalidateQueries({ queryKey: ["audits", works] });
    if (made.n !== n) onOpen(made.n);
  };
  return {
    list: list.data ?? [],
    isEmpty: list.data?.length === 0,
    one: one.data,
    error: one.error,
    now: isRunning ? progress.data : undefined,
    lines: lines.data,
    problem,
    isBusy,
    begin: (body: WhatIf) =>
      keep(() => told(api.POST("/api/w/{works}/audits", { params: { path: { works } }, body }))),
    stop: () => keep(() => told(api.POST("/api/w/{works}/audits/{n}/stop", { params: { path } }))),
  };
}
