import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { put } from "../../state/renew";
import type { Place } from "../../state/useJob";
import { useTried } from "../../state/useTried";

export type Hunt = Schemas["HuntOut"];
export type Symptom = Schemas["SymptomOut"];
export interface Given {
  how: "read" | "unsure" | "cannot";
  value?: number | null;
  is_open?: boolean;
  word?: string;
}
export interface ClosingStep {
  what: "failed" | "passed" | "changed";
  row: string;
  said: string;
}

const at = (place: Place) => ({
  path: { works: place.works, tag: place.tag, number: place.number },
});

/** What people say of machines, with the general order. */
export function useSymptoms() {
  return useQuery({
    queryKey: ["symptoms"],
    queryFn: ({ signal }) => told(api.GET("/api/trouble/symptoms", { signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** The hunts of a job, and one of them: its next reading, its answers, its end. */
export function useHunt(place: Place, n: number | null) {
  const client = useQueryClient();
  const { problem, isBusy, tried } = useTried();
  const list = useQuery({
    queryKey: ["hunts", place.works, place.tag, place.number],
    queryFn: ({ signal }) =>
      told(api.GET("/api/w/{works}/m/{tag}/j/{number}/hunts", { params: at(place), signal })),
  });
  const key = ["hunt", place.works, place.tag, place.number, n];
  const hunt = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/hunts/{n}", {
          params: { path: { ...at(place).path, n: n ?? 0 } },
          signal,
        }),
      ),
    enabled: n !== null,
    retry: false,
  });
  const done = (asked: () => Promise<Hunt>) =>
    tried(
      async () => {
        const made = await asked();
        await put(client, [...key.slice(0, 4), made.n], made);
        await client.invalidateQueries({ queryKey: ["hunts"] });
        return made;
      },
      async (lost) => {
        if (lost.status === 409) await client.invalidateQueries({ queryKey: key });
      },
    );
  const path = { ...at(place).path, n: n ?? 0 };
  const rev = hunt.data?.rev ?? 0;
  return {
    list: list.data ?? [],
    hunt: n === null ? undefined : hunt.data,
    error: hunt.error,
    problem,
    isBusy,
    begin: (body: Schemas["HuntBeginIn"]) =>
      done(() =>
        told(api.POST("/api/w/{works}/m/{tag}/j/{number}/hunts", { params: at(place), body })),
      ),
    answer: (reading: string, given: Given) =>
      done(() =>
        told(
          api.POST("/api/w/{works}/m/{tag}/j/{number}/hunts/{n}/answers", {
            params: { path },
            body: { rev, reading, value: null, is_open: false, word: "", ...given },
          }),
        ),
      ),
    back: () =>
      done(() =>
        told(
          api.POST("/api/w/{works}/m/{tag}/j/{number}/hunts/{n}/back", {
            params: { path },
            body: { rev },
          }),
        ),
      ),
    close: (steps: ClosingStep[]) =>
      done(() =>
        told(
          api.POST("/api/w/{works}/m/{tag}/j/{number}/hunts/{n}/close", {
            params: { path },
            body: { rev, steps },
          }),
        ),
      ),
  };
}
