import { useQuery, useQueryClient } from "@tanstack/react-query";
import { get, set } from "idb-keyval";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { api, type Problem, Refused, type Schemas, told } from "../../api/client";
import {
  answered,
  boxOf,
  deviceName,
  dropped,
  type Held,
  heldIn,
  make,
  notTaken,
  othersIn,
  pictured,
  SealedError,
} from "../../state/outbox";
import { put } from "../../state/renew";
import { useIsOnline } from "../../state/useIsOnline";
import type { Place } from "../../state/useJob";
import { panelWords as w } from "../../words/panel";

export type Panel = Schemas["PanelOut"];
export type Made = Parameters<typeof make>[1];
export type Online = Made & { kind: "foreign_lock_removed" | "sent_back" };

const SEALED: Problem = {
  code: "sealed",
  detail: w.sealed,
  field: "",
  hint: w.sealedHint,
};

const FULL: Problem = {
  code: "storage_full",
  detail: w.storageFull,
  field: "",
  hint: w.storageFullHint,
};

/** Answers that are about the picture, not about the person, the network or the moment. */
const NO_PICTURE = new Set([400, 404, 409, 413, 415, 422]);

/** The panel with what other people did here and have not sent: a closing counts at once. */
function withOthers(panel: Panel | undefined, others: readonly string[]): Panel | undefined {
  if (!panel || others.length === 0) return panel;
  const shuts = (kinds: readonly string[]) => others.some((one) => kinds.includes(one));
  return {
    ...panel,
    ...(shuts(panel.shuts_hands) ? { hands: [], hands_said: [] } : {}),
    ...(shuts(panel.shuts_power)
      ? { may_open: null, blocked: [w.othersShut, ...panel.blocked] }
      : {}),
  };
}

const addressOf = (place: Place) => ({
  path: { works: place.works, tag: place.tag, number: place.number },
});

export interface PanelState {
  panel: Panel | undefined;
  problem: Problem | undefined;
  /** On this device only, or refused and waiting for a person. */
  held: readonly Held[];
  act: (made: Made) => Promise<void>;
  send: () => Promise<void>;
  drop: (uid: string) => Promise<void>;
  /** What is never made without network: another's lock, a question, the signature. */
  online: (made: Online) => Promise<void>;
  sign: (accepts: readonly string[], license: string) => Promise<void>;
  refusal: Problem | undefined;
  /** How the panel stood when the server told it last: a lock may have come off since. */
  isOld: boolean;
  /** Kinds of unsent entries of other people on this device. */
  others: readonly string[];
}

/** The panel as the server told last, and what this person did since. */
export function usePanel(place: Place, who: string | undefined): PanelState {
  const client = useQueryClient();
  const isOnline = useIsOnline();
  const key = ["panel", place.works, place.tag, place.number];
  const kept = `panel ${who} ${place.works}/${place.tag}/${place.number}`;
  const box = who ? boxOf(who, place.works, place.tag, place.number) : null;
  const [held, setHeld] = useState<readonly Held[]>([]);
  const [isOld, setOld] = useState(false);
  const isSending = useRef(false);
  const query = useQuery({
    queryKey: key,
    enabled: who !== undefined,
    retry: false,
    refetchInterval: 10_000,
    queryFn: async ({ signal }) => {
      try {
        const found = await told(
          api.GET("/api/w/{works}/m/{tag}/j/{number}/panel", {
            params: addressOf(place),
            signal,
          }),
        );
        if (!signal.aborted) await set(kept, found);
        setOld(false);
        return found;
      } catch (lost) {
        // without the server: as it was last told on this device
        const last = lost instanceof Refused && lost.status === 0 ? await get<Panel>(kept) : null;
        if (!last) throw lost;
        setOld(true);
        return last;
      }
    },
  });
  const [others, setOthers] = useState<readonly string[]>([]);
  const panel = useMemo(() => withOthers(query.data, others), [query.data, others]);
  // what the server has is its own from then on: counted twice, one meter check would be two
  const known = new Set(panel?.entries.map((one) => one.id));
  const unknown = held.filter((one) => one.refused || !known.has(one.act.uid));
  const { works, tag, number } = place;
  const send = useCallback(async () => {
    if (!box || isSending.current) return;
    isSending.current = true;
    try {
      // what is made while a batch is on its way goes with the next one
      for (let tried = ""; ; ) {
        const waiting = (await heldIn(box)).filter((one) => !one.refused);
        const last = waiting.at(-1)?.act.uid ?? "";
        if (!last || last === tried) return;
        tried = last;
        const bad = new Set<string>();
        for (const one of waiting) {
          if (!one.picture) continue;
          try {
            const kept = await told(
              api.POST("/api/w/{works}/m/{tag}/j/{number}/photos", {
                params: { path: { works, tag, number } },
                body: { subject: "panel", data: one.picture },
              }),
            );
            await pictured(box, one.act.uid, kept.sha256);
            one.act.body = { ...one.act.body, sha256: kept.sha256 };
          } catch (lost) {
            if (!(lost instanceof Refused) || !NO_PICTURE.has(lost.status)) throw lost;
            // the picture itself is no good: it waits for a person, the rest goes on
            bad.add(one.act.uid);
            await notTaken(box, one.act.uid, `${lost.problem.detail} ${lost.problem.hint}`.trim());
          }
        }
        const reply = await told(
          api.POST("/api/w/{works}/m/{tag}/j/{number}/panel/acts", {
            params: { path: { works, tag, number } },
            body: {
              acts: waiting
                .filter((one) => !bad.has(one.act.uid))
                .slice(0, 100)
                .map((one) => one.act),
            },
          }),
        );
        await put(client, ["panel", works, tag, number], reply.panel);
        // before the entries leave the outbox: without network the next ones build on this
        await set(kept, reply.panel);
        void client.invalidateQueries({ queryKey: ["strip", works, tag, number] });
        setHeld(await answered(box, reply.answers));
      }
    } catch (lost) {
      if (!(lost instanceof Refused)) throw lost;
      setHeld(await heldIn(box));
    } finally {
      isSending.current = false;
    }
  }, [box, kept, client, works, tag, number]);
  useEffect(() => {
    if (!box) return;
    void heldIn(box).then(setHeld);
    if (isOnline) void send();
  }, [box, isOnline, send]);
  useEffect(() => {
    if (box) void othersIn(box).then(setOthers);
  }, [box]);
  const isWaiting = held.some((one) => !one.refused);
  useEffect(() => {
    if (!isWaiting) return;
    // a network that is there again does not always say so, and a server never does
    const timer = window.setInterval(() => void send(), 3_000);
    return () => window.clearInterval(timer);
  }, [isWaiting, send]);
  const act = async (made: Made) => {
    if (!box || !panel) return;
    try {
      setHeld(await make(box, made, panel));
    } catch (lost) {
      // what could not be saved was not done: the person is told, and types it again
      setRefusal(lost instanceof SealedError ? SEALED : FULL);
      return;
    }
    await send();
  };
  const drop = async (uid: string) => {
    if (box) setHeld(await dropped(box, uid));
  };
  const [refusal, setRefusal] = useState<Problem>();
  const now = async (asked: () => Promise<Panel>) => {
    try {
      const after = await asked();
      await put(client, key, after);
      setRefusal(undefined);
      void client.invalidateQueries({ queryKey: ["strip", works, tag, number] });
      void client.invalidateQueries({ queryKey: ["review", works, tag, number] });
    } catch (lost) {
      if (!(lost instanceof Refused)) throw lost;
      setRefusal(lost.problem);
    }
  };
  const head = async (seen: Panel) => ({
    uid: v7(),
    device: await deviceName(),
    rev: seen.rev,
    based_on: seen.heads,
    observed_at: new Date().toISOString(),
  });
  const online = (made: Online) =>
    now(async () => {
      if (!panel) throw new Error("nothing is shown yet");
      return told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/panel/online", {
          params: addressOf(place),
          body: {
            ...(await head(panel)),
            kind: made.kind,
            about: made.about ?? {},
            body: made.body ?? {},
            clock_off_s: 0,
          },
        }),
      );
    });
  const sign = (accepts: readonly string[], license: string) =>
    now(async () => {
      if (!panel) throw new Error("nothing is shown yet");
      return told(
        api.POST("/api/w/{works}/m/{tag}/j/{number}/panel/sign", {
          params: addressOf(place),
          body: { ...(await head(panel)), accepts: [...accepts], license },
        }),
      );
    });
  const problem = query.error instanceof Refused && !panel ? query.error.problem : undefined;
  return { panel, problem, held: unknown, act, send, drop, online, sign, refusal, others, isOld };
}
