import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { vi } from "vitest";
import type { Job, Worked } from "../api/client";
import type { Given } from "./job";

/** A job of the demo with two steps filled, as the server sends it. */
export function jobOf(more: Partial<Given> = {}, versions: Record<string, number> = {}): Job {
  const given = {
    plate: { text: "15 HP, 460 V", photo: "", assumed: [] },
    supply: { text: "480Y/277" },
    leads: {},
    size: {},
    starter: {},
    ...more,
  };
  const parts = Object.keys(given);
  return {
    works: "Larkfall Lime Works",
    tag: "IC-2",
    job: 1,
    is_stale: false,
    newest_plate_n: 1,
    versions: Object.fromEntries(
      parts.map((part) => [part, { n: versions[part] ?? 1, by: "Marta Quillan", at: "10:00" }]),
    ),
    worked: { rating_rule: "next_size_up" } as Worked,
    ...given,
  } as unknown as Job;
}

export const PLACE = { works: "larkfall", tag: "IC-2", number: 1 };
export const KEY = ["job", "larkfall", "IC-2", 1] as const;

export function withQueries() {
  const client = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  return { client, wrapper };
}

interface Sent {
  method: string;
  path: string;
  body: { based_on?: number; body?: unknown } & Record<string, unknown>;
}

/** Let `fetch` answer by a function of what was sent; null is a lost line. */
export function answering(answer: (sent: Sent) => { status?: number; body: unknown } | null) {
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.clone().text();
    const one = {
      method: request.method,
      path: new URL(request.url).pathname,
      body: text ? JSON.parse(text) : {},
    };
    sent.push(one);
    const found = answer(one);
    if (found === null) throw new TypeError("Failed to fetch");
    return new Response(JSON.stringify(found.body), {
      status: found.status ?? 200,
      headers: { "Content-Type": "application/json" },
    });
  });
  return sent;
}
