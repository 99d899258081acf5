import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { put } from "../../state/renew";
import { useTried } from "../../state/useTried";

export type Schedule = Schemas["ScheduleOut"];

const LOOKS_MS = 700;
const CHUNK = 0x8000;

/** A file compressed and written in letters, as the server takes it. */
export async function packed(file: Blob): Promise<string> {
  const stream = file.stream().pipeThrough(new CompressionStream("gzip"));
  const bytes = new Uint8Array(await new Response(stream).arrayBuffer());
  let text = "";
  for (let at = 0; at < bytes.length; at += CHUNK)
    text += String.fromCharCode(...bytes.subarray(at, at + CHUNK));
  return btoa(text);
}

/** The tables of a plant, and the one that is open. */
export function useSchedule(works: string, n: number | null, onOpen: (n: number) => void) {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const list = useQuery({
    queryKey: ["schedules", works],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/schedules", { params: { path: { works } }, signal })),
  });
  const key = ["schedule", works, n];
  const one = useQuery({
    queryKey: key,
    enabled: n !== null,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/schedules/{n}", {
          params: { path: { works, n: n ?? 0 } },
          signal,
        }),
      ),
  });
  const isRunning = one.data?.state === "running";
  const progress = useQuery({
    queryKey: ["schedule progress", works, n],
    enabled: isRunning,
    refetchInterval: LOOKS_MS,
    gcTime: 0,
    queryFn: async ({ signal }) => {
      const now = await told(
        api.GET("/api/w/{works}/schedules/{n}/progress", {
          params: { path: { works, n: n ?? 0 } },
          signal,
        }),
      );
      if (now.state !== "running") await client.invalidateQueries({ queryKey: key });
      return now;
    },
  });
  const keep = async (asked: () => Promise<Schedule>) => {
    const made = await tried(asked);
    if (!made) return;
    await put(client, ["schedule", works, made.n], made);
    void client.invalidateQueries({ queryKey: ["schedules", works] });
    if (made.n !== n) onOpen(made.n);
  };
  const path = { works, n: n ?? 0 };
  return {
    list: list.data ?? [],
    one: one.data,
    now: isRunning ? progress.data : undefined,
    problem,
    isBusy,
    read: (file: File) =>
      keep(async () =>
        told(
          api.POST("/api/w/{works}/schedules", {
            params: { path: { works } },
            body: { name: file.name.slice(0, 120), data: await packed(file) },
          }),
        ),
      ),
    map: (columns: Record<string, string>) =>
      keep(() =>
        told(
          api.POST("/api/w/{works}/schedules/{n}/map", {
            params: { path },
            body: { told: columns },
          }),
        ),
      ),
    take: () =>
      keep(() => told(api.POST("/api/w/{works}/schedules/{n}/take", { params: { path } }))),
    stop: () =>
      keep(() => told(api.POST("/api/w/{works}/schedules/{n}/stop", { params: { path } }))),
  };
}
