import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, type Job, Refused, type Schemas, told } from "../api/client";
import {
  type Clash,
  type Given,
  type Line,
  type Part,
  type Place,
  type SaveAddress,
  same,
  unsaved,
} from "./job";
import { renew } from "./renew";
import type { Draft } from "./useDraft";
import { AGAIN_AFTER_MS } from "./useWorked";

interface Saving {
  part: Part;
  given: Given;
  basedOn: number;
}
type Saved = Schemas["VersionOut"] & { body: Given[Part] };

/** Save one step; every step has the same shape of address, body and answer. */
function save(place: Place, { part, given, basedOn }: Saving): Promise<Saved> {
  const path = { works: place.works, tag: place.tag, number: place.number };
  const address: SaveAddress<Part> = `/api/w/{works}/m/{tag}/j/{number}/${part}`;
  const body = { based_on: basedOn, body: given[part] };
  // the address is a union of nine; one of them stands for all in the types
  return told(
    api.PUT(address as SaveAddress<"supply">, {
      params: { path },
      body: body as Schemas["SupplyIn"],
      keepalive: true,
    }),
  ) as Promise<Saved>;
}

/**
 * Saves a draft step by step as versions, without a button: one request at a time, each based
 * on the version before. A newer version by somebody else is a clash that a person settles; a
 * lost line is tried again by itself.
 */
export function useKeep(place: Place, jobKey: readonly unknown[], draft: Draft) {
  const client = useQueryClient();
  const [line, setLine] = useState<Line>({ state: "saved", version: undefined });
  const [clash, setClash] = useState<Clash | null>(null);
  const open = useRef<Clash | null>(clash);
  open.current = clash;
  const timer = useRef(0);
  const isBusy = useRef(false);
  const { latest, set } = draft;
  const { mutateAsync } = useMutation({
    mutationFn: (saving: Saving) => save(place, saving),
    networkMode: "always",
    retry: false,
  });

  /** Put what the server says is saved into the job that every screen reads. */
  const write = useCallback(
    (part: Part, body: Given[Part], version: Schemas["VersionOut"], more: Partial<Job> = {}) =>
      client.setQueryData<Job>(jobKey, (before) =>
        before
          ? {
              ...before,
              ...more,
              [part]: body,
              versions: { ...before.versions, [part]: version },
            }
          : before,
      ),
    [client, jobKey],
  );

  const keep = useCallback(async (): Promise<void> => {
    window.clearTimeout(timer.current);
    const now = latest.current;
    // the cache, not the last drawing: it already knows the version that was just saved
    const base = client.getQueryData<Job>(jobKey);
    if (!now || !base || open.current || isBusy.current) return;
    const part = unsaved(base, now);
    if (!part) {
      setLine((before) =>
        before.state === "typing" || before.state === "saving"
          ? { state: "saved", version: undefined }
          : before,
      );
      return;
    }
    isBusy.current = true;
    setLine({ state: "saving" });
    try {
      const { body: stored, ...version } = await mutateAsync({
        part,
        given: now,
        basedOn: base.versions[part]?.n ?? 0,
      });
      if (latest.current && same(latest.current[part], now[part])) {
        // what a person decided or recorded comes back with who and when
        set({ ...latest.current, [part]: stored });
      }
      const newest = part === "plate" ? version.n : base.newest_plate_n;
      write(part, stored, version, { is_stale: false, newest_plate_n: newest });
      void renew(client, ["yard", place.works]);
      // what was typed meanwhile is not saved yet, and it is not said to be
      const fresh = client.getQueryData<Job>(jobKey);
      const isMore = fresh && latest.current && unsaved(fresh, latest.current);
      setLine((before) =>
        isMore
          ? before.state === "typing"
            ? before
            : { state: "saving" }
          : { state: "saved", version },
      );
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const { theirs, body } = error.problem;
      if (error.status === 409 && theirs) {
        setClash({ part, theirs, body: body as unknown as Given[Part] });
      }
      setLine({ state: "refused", problem: error.problem });
      if (error.status === 0) {
        timer.current = window.setTimeout(() => void keep(), AGAIN_AFTER_MS);
      }
      return;
    } finally {
      isBusy.current = false;
    }
    // whatever was changed meanwhile, or is another step, is saved next
    timer.current = window.setTimeout(() => void keep(), 0);
  }, [client, jobKey, latest, mutateAsync, place.works, set, write]);

  /** Save after a while, unless something else happens before. */
  const later = useCallback(
    (ms: number) => {
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void keep(), ms);
    },
    [keep],
  );

  /** Something was typed: nothing is saved until it has been calculated. */
  const typed = useCallback(() => {
    window.clearTimeout(timer.current);
    setLine({ state: "typing" });
  }, []);

  /** Settle a clash: `theirs` drops the own change, `mine` makes it the next version. */
  const settle = useCallback(
    (whose: "theirs" | "mine") => {
      const found = open.current;
      const now = latest.current;
      if (!found || !now) return;
      write(found.part, found.body, found.theirs);
      setClash(null);
      open.current = null;
      set(whose === "theirs" ? { ...now, [found.part]: found.body } : { ...now });
      setLine({ state: "saved", version: found.theirs });
      later(50);
    },
    [later, latest, set, write],
  );

  useEffect(() => {
    const flush = () => void keep();
    window.addEventListener("pagehide", flush);
    window.addEventListener("blur", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      window.removeEventListener("blur", flush);
      flush();
    };
  }, [keep]);

  return { line, clash, keep, later, typed, settle };
}
