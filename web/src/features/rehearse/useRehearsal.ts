import { useCallback, useEffect, useRef, useState } from "react";
import { api, Refused, told } from "../../api/client";
import type { Given } from "../../state/useJob";
import { type Act, EMPTY, frameAt, spliced, startAt, type Timeline } from "./timeline";

const TAIL_US = 4_000_000;
const DRAW_EVERY_MS = 50;
export const SPEEDS = [0.1, 0.2, 0.5, 1, 2, 5, 10] as const;

/**
 * A rehearsal on the drawing as this screen holds it. The server computes ten
 * seconds ahead; an act goes on from the last sealed state before it and
 * throws the rest away. Time runs here, on the frames that came.
 */
export function useRehearsal(works: string, given: Given | null) {
  const [line, setLine] = useState<Timeline>(EMPTY);
  const [now, setNow] = useState(0);
  const [isRunning, setRunning] = useState(true);
  const [speed, setSpeed] = useState<number>(1);
  const [acts, setActs] = useState<readonly Act[]>([]);
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const [frozenBy, setFrozenBy] = useState<number | null>(null);
  const live = useRef({
    line,
    now,
    given,
    acts,
    queue: [] as Act[],
    /** How far time should be known, beyond what acts ask for; 0 for no wish. */
    wish: 0,
    isBusy: false,
    turn: 0,
  });
  live.current.line = line;
  live.current.given = given;
  live.current.acts = acts;

  const ask = useCallback(
    async (fresh: readonly Act[], until: number) => {
      const state = live.current;
      if (!state.given) return;
      const turn = state.turn;
      const first = fresh[0]?.t ?? until;
      const start = startAt(state.line, first);
      try {
        const reply = await told(
          api.POST("/api/w/{works}/rehearse", {
            params: { path: { works } },
            body: {
              given: state.given,
              snapshot: start?.snapshot ?? "",
              actions: [...fresh],
              until,
            },
          }),
        );
        // a new drawing or a rewind in the meantime: the answer is of another line
        if (live.current.turn !== turn) return;
        const next = spliced(start ? live.current.line : EMPTY, reply);
        live.current.line = next;
        setLine(next);
        setRefusal(null);
        // time ran on while the answer came: go back to the instant of the hazard and hold
        const passed = next.hazards.find(
          (hazard) => hazard.t >= first && hazard.t <= live.current.now,
        );
        if (passed && fresh.length > 0) {
          live.current.now = passed.t;
          setNow(passed.t);
          setFrozenBy(passed.t);
          setRunning(false);
        }
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        if (live.current.turn === turn) setRefusal(error);
      }
    },
    [works],
  );

  const work = useCallback(async () => {
    const state = live.current;
    // one question at a time: answers then come in the order of the acts
    if (state.isBusy) return;
    state.isBusy = true;
    while (state.queue.length > 0 || state.wish > 0) {
      const fresh = state.queue.splice(0);
      const last = fresh[fresh.length - 1]?.t ?? 0;
      const until = Math.max(state.wish, fresh.length > 0 ? last + 10_000_000 : 0);
      state.wish = 0;
      await ask(fresh, until);
    }
    state.isBusy = false;
  }, [ask]);

  /** Do something now: a hand, a fault, the supply. */
  const act = useCallback(
    (verb: string, on = "", word = "") => {
      const state = live.current;
      const t = Math.max(
        0,
        Math.round(state.now),
        ...state.acts.filter((old) => old.t <= state.now).map((old) => old.t),
      );
      const one: Act = { t, do: verb, on, word };
      const before = state.acts.filter((old) => old.t <= t);
      state.acts = [...before, one];
      setActs(state.acts);
      state.queue.push(one);
      // letting go of what was held when the picture froze does not set it going
      if (verb !== "release") {
        setFrozenBy(null);
        setRunning(true);
      }
      void work();
    },
    [work],
  );

  const restart = useCallback(() => {
    const state = live.current;
    state.turn += 1;
    state.queue = [];
    state.now = 0;
    state.line = EMPTY;
    state.acts = [];
    setNow(0);
    setLine(EMPTY);
    setActs([]);
    setFrozenBy(null);
    setRefusal(null);
    setRunning(true);
    state.wish = 10_000_000;
    void work();
  }, [work]);

  /** Play a run again from the start and stop at a moment of it. */
  const replay = useCallback(
    async (run: readonly Act[], at: number) => {
      restart();
      const state = live.current;
      state.acts = [...run];
      setActs(state.acts);
      state.queue.push(...run);
      state.wish = at + 1_000_000;
      setRunning(false);
      await work();
      // an earlier question may have been under way: its turn ends before this one is answered
      while (state.isBusy) await new Promise((on) => setTimeout(on, 20));
      const to = Math.min(at, state.line.until);
      state.now = to;
      setNow(to);
      setRunning(false);
    },
    [restart, work],
  );

  // another drawing is another rehearsal
  const drawing = JSON.stringify(given?.starter ?? null) + JSON.stringify(given?.leads ?? null);
  const isReady = Boolean(given?.starter.standard_circuit);
  // biome-ignore lint/correctness/useExhaustiveDependencies: begins again whenever the drawing is another
  useEffect(() => {
    if (isReady) restart();
  }, [drawing, isReady, restart]);

  /** Go to a time; what lies ahead stays until somebody acts there. */
  const seek = useCallback((time: number) => {
    const state = live.current;
    const to = Math.min(Math.max(0, time), state.line.until);
    state.now = to;
    setNow(to);
    setRunning(false);
    setFrozenBy(null);
  }, []);

  const step = useCallback(
    (by: 1 | -1) => {
      const { now: at, line: known } = live.current;
      const times = known.events.map((event) => event.t);
      const next =
        by > 0 ? times.find((time) => time > at + 0.5) : times.findLast((time) => time < at - 0.5);
      seek(next ?? (by > 0 ? known.until : 0));
    },
    [seek],
  );

  useEffect(() => {
    if (!isRunning) return;
    let frame = 0;
    let before = performance.now();
    let drawn = 0;
    let shown = frameAt(live.current.line, live.current.now, true);
    const tick = (at: number) => {
      const state = live.current;
      // a frame's stamp may lie before the moment this began: time never runs back
      const to = state.now + Math.min(Math.max(at - before, 0), 250) * 1000 * speed;
      before = at;
      const hazard = state.line.hazards.find((item) => item.t > state.now && item.t <= to);
      if (hazard) {
        state.now = hazard.t;
        setNow(hazard.t);
        setFrozenBy(hazard.t);
        setRunning(false);
        return;
      }
      state.now = Math.min(to, state.line.until);
      // the hand of the clock moves twenty times a second; what happens is drawn at once
      if (at - drawn >= DRAW_EVERY_MS || frameAt(state.line, state.now, true) !== shown) {
        drawn = at;
        shown = frameAt(state.line, state.now, true);
        setNow(state.now);
      }
      if (state.line.until - state.now < TAIL_US * Math.max(1, speed) && !state.isBusy) {
        if (!state.line.neverSettles && state.line.until > 0) {
          state.wish = state.line.until + 10_000_000 * Math.max(1, speed);
          void work();
        }
      }
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [isRunning, speed, work]);

  const faster = useCallback((by: 1 | -1) => {
    setSpeed((old) => {
      const at = SPEEDS.indexOf(old as (typeof SPEEDS)[number]);
      return SPEEDS[Math.min(Math.max(at + by, 0), SPEEDS.length - 1)] ?? 1;
    });
  }, []);

  return {
    line,
    now,
    full: frameAt(line, now, true),
    acts,
    isRunning,
    speed,
    refusal,
    /** The hazards that hold the picture, if it is held. */
    held: frozenBy === null ? [] : line.hazards.filter((item) => item.t === frozenBy),
    act,
    seek,
    step,
    restart,
    replay,
    faster,
    goOn: useCallback(() => {
      setFrozenBy(null);
      live.current.now += 1;
      setNow(live.current.now);
      setRunning(true);
    }, []),
    freeze: useCallback(() => setRunning(false), []),
  };
}

export type Rehearsal = ReturnType<typeof useRehearsal>;
