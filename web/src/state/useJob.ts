import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import {
  api,
  type Conflict,
  type Job,
  Refused,
  type Schemas,
  told,
  type Worked,
} from "../api/client";

export interface Place {
  works: string;
  tag: string;
  number: number;
}

export interface Given {
  plate: Schemas["PlateInputs"];
  supply: Schemas["SupplyInputs"];
  leads: Schemas["LeadsInputs"];
  bench: Schemas["BenchInputs"];
  trust: Schemas["TrustInputs"];
  replace: Schemas["ReplaceInputs"];
  joints: Schemas["JointsInputs"];
  size: Schemas["SizeInputs"];
  starter: Schemas["StarterInputs"];
}
export type Part = keyof Given;

export type Line =
  | { state: "kept"; version: Schemas["VersionOut"] | undefined }
  | { state: "typing" }
  | { state: "keeping" }
  | { state: "refused"; problem: Refused["problem"] };

/** A second version of the same part, from somebody else. */
export interface Clash {
  part: Part;
  theirs: Conflict["theirs"];
  body: Given[Part];
}

const READ_AFTER_MS = 40;
const KEEP_AFTER_MS = 900;
const AGAIN_AFTER_MS = 3000;
const PARTS: readonly Part[] = [
  "plate",
  "supply",
  "leads",
  "bench",
  "trust",
  "replace",
  "joints",
  "size",
  "starter",
];

const givenOf = (job: Job): Given => ({
  plate: job.plate,
  supply: job.supply,
  leads: job.leads,
  bench: job.bench,
  trust: job.trust,
  replace: job.replace,
  joints: job.joints,
  size: job.size,
  starter: job.starter,
});
/** What figures stand on; readings of tagless leads and the disconnect record stay out. */
const workable = ({ bench: _, replace: __, ...rest }: Given) => rest;
const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** Keep a part and return its version; the server may stamp what it keeps. */
function put(
  place: Place,
  part: Part,
  given: Given,
  basedOn: number,
): Promise<Schemas["VersionOut"] & { body?: Given[Part] }> {
  const params = { path: { works: place.works, tag: place.tag, number: place.number } };
  // every part has the same shape of address and body; one stands for all
  const address =
    `/api/w/{works}/m/{tag}/j/{number}/${part}` as "/api/w/{works}/m/{tag}/j/{number}/supply";
  const body = { based_on: basedOn, body: given[part] } as Schemas["SupplyIn"];
  return told(api.PUT(address, { params, body, keepalive: true }));
}

/**
 * A motor's job: what is given, what comes out, and keeping it without a button.
 * Each change is worked out by the server at once and kept when the hand rests.
 */
export function useJob(place: Place) {
  const client = useQueryClient();
  const { works, tag, number } = place;
  const key = useMemo(() => ["job", works, tag, number], [works, tag, number]);
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}", {
          params: { path: { works, tag, number } },
          signal,
        }),
      ),
    refetchOnWindowFocus: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const job = query.data;
  const [draft, setDraft] = useState<Given | null>(null);
  const [worked, setWorked] = useState<Worked | null>(null);
  const [readText, setReadText] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const [line, setLine] = useState<Line>({ state: "kept", version: undefined });
  const [clash, setClash] = useState<Clash | null>(null);
  const given = draft ?? (job ? givenOf(job) : null);
  const latest = useRef<{ given: Given | null; clash: Clash | null }>({ given, clash });
  latest.current = { given, clash };
  const reading = useRef<{ timer: number; abort: AbortController | null }>({
    timer: 0,
    abort: null,
  });
  const keeping = useRef<{ timer: number; isBusy: boolean }>({ timer: 0, isBusy: false });

  const keep = useCallback(async () => {
    window.clearTimeout(keeping.current.timer);
    const { given: now, clash: open } = latest.current;
    // the cache, not the last drawing: it already knows the version that was just kept
    const base = client.getQueryData<Job>(key);
    if (!now || !base || open || keeping.current.isBusy) return;
    const part = PARTS.find((name) => !same(now[name], base[name]));
    if (!part) {
      setLine((before) =>
        before.state === "typing" ? { state: "kept", version: undefined } : before,
      );
      return;
    }
    keeping.current.isBusy = true;
    setLine({ state: "keeping" });
    try {
      const answer = await put({ works, tag, number }, part, now, base.versions[part]?.n ?? 0);
      const { body: stamped, ...version } = answer;
      const keptBody = stamped ?? now[part];
      if (stamped && latest.current.given?.[part] === now[part]) {
        // what a person decided or recorded comes back with who and when
        latest.current.given = { ...latest.current.given, [part]: stamped } as Given;
        setDraft(latest.current.given);
      }
      client.setQueryData<Job>(key, (before) =>
        before
          ? {
              ...before,
              [part]: keptBody,
              is_stale: false,
              versions: { ...before.versions, [part]: version },
              newest_plate_n: part === "plate" ? version.n : before.newest_plate_n,
            }
          : before,
      );
      void client.invalidateQueries({ queryKey: ["yard", works] });
      setLine({ state: "kept", version });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      if (error.status === 409 && error.problem.theirs) {
        const theirs = error.problem.theirs;
        setClash({ part, theirs, body: error.problem.body as unknown as Given[Part] });
      }
      setLine({ state: "refused", problem: error.problem });
      if (error.status === 0) {
        keeping.current.timer = window.setTimeout(() => void keep(), AGAIN_AFTER_MS);
      }
      return;
    } finally {
      keeping.current.isBusy = false;
    }
    // whatever was changed meanwhile, or is another part, is kept next
    keeping.current.timer = window.setTimeout(() => void keep(), 0);
  }, [client, key, works, tag, number]);

  const workOut = useCallback(
    async (next: Given): Promise<"read" | "refused" | "lost" | "overtaken"> => {
      reading.current.abort?.abort();
      const abort = new AbortController();
      reading.current.abort = abort;
      try {
        const found = await told(
          api.POST("/api/w/{works}/work-out", {
            params: { path: { works } },
            body: workable(next),
            signal: abort.signal,
          }),
        );
        setWorked(found);
        setReadText(next.plate.text ?? "");
        setRefusal(null);
        return "read";
      } catch (error) {
        if (error instanceof DOMException) return "overtaken";
        if (!(error instanceof Refused)) throw error;
        setRefusal(error);
        return error.status === 0 ? "lost" : "refused";
      }
    },
    [works],
  );

  /** Have it worked out until the line is there, then kept when the hand rests. */
  const read = useCallback(
    async function read(next: Given): Promise<void> {
      const how = await workOut(next);
      if (how === "read") {
        window.clearTimeout(keeping.current.timer);
        keeping.current.timer = window.setTimeout(() => void keep(), KEEP_AFTER_MS);
      } else if (how === "lost" && latest.current.given === next) {
        reading.current.timer = window.setTimeout(() => void read(next), AGAIN_AFTER_MS);
      }
    },
    [keep, workOut],
  );

  const change = useCallback(
    <P extends Part>(part: P, body: Given[P]) => {
      const base = latest.current.given;
      if (!base) return;
      const next = { ...base, [part]: body };
      latest.current.given = next;
      setDraft(next);
      setLine({ state: "typing" });
      window.clearTimeout(reading.current.timer);
      window.clearTimeout(keeping.current.timer);
      reading.current.timer = window.setTimeout(() => void read(next), READ_AFTER_MS);
    },
    [read],
  );

  /** Settle a clash: `theirs` drops the own change, `mine` makes it the next version. */
  const settle = useCallback(
    (whose: "theirs" | "mine") => {
      const { clash: open, given: now } = latest.current;
      if (!open || !now) return;
      client.setQueryData<Job>(key, (before) =>
        before
          ? {
              ...before,
              [open.part]: open.body,
              versions: { ...before.versions, [open.part]: open.theirs },
            }
          : before,
      );
      const next = whose === "theirs" ? { ...now, [open.part]: open.body } : now;
      setClash(null);
      latest.current.clash = null;
      setDraft(next);
      latest.current.given = next;
      setLine({ state: "kept", version: open.theirs });
      void workOut(next);
      keeping.current.timer = window.setTimeout(() => void keep(), 50);
    },
    [client, key, keep, workOut],
  );

  const takeNewestPlate = useCallback(async () => {
    const fresh = await told(
      api.POST("/api/w/{works}/m/{tag}/j/{number}/plate/newest", {
        params: { path: { works, tag, number } },
      }),
    );
    client.setQueryData(key, fresh);
    setDraft(null);
    setReadText(null);
    setWorked(fresh.worked);
  }, [client, key, works, tag, number]);

  /** Take what the server has now, after it changed the job itself. */
  const reload = useCallback(async () => {
    const fresh = await told(
      api.GET("/api/w/{works}/m/{tag}/j/{number}", { params: { path: { works, tag, number } } }),
    );
    client.setQueryData(key, fresh);
    setDraft(null);
    latest.current.given = null;
    setWorked(fresh.worked);
  }, [client, key, works, tag, number]);

  useEffect(() => {
    const flush = () => void keep();
    window.addEventListener("pagehide", flush);
    window.addEventListener("blur", flush);
    const timers = { reading: reading.current, keeping: keeping.current };
    return () => {
      window.removeEventListener("pagehide", flush);
      window.removeEventListener("blur", flush);
      window.clearTimeout(timers.reading.timer);
      timers.reading.abort?.abort();
      flush();
    };
  }, [keep]);

  return {
    job,
    given,
    worked: worked ?? job?.worked ?? null,
    /** The plate's text that `worked` was read from. */
    readText: readText ?? job?.plate.text ?? "",
    error: query.error,
    refusal,
    line,
    clash,
    change,
    keep,
    settle,
    takeNewestPlate,
    reload,
  };
}

export type JobState = ReturnType<typeof useJob>;
