import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, told } from "../../api/client";
import { useAnswer } from "../../components/useAnswer";
import type { Given, JobState } from "../../state/useJob";
import type { Taken } from "./readings";

type Bench = Given["bench"];

/** The readings taken at the bench, what they tell, and the next reading to take. */
export function useBench(works: string, state: JobState) {
  const { given } = state;
  const bench = given?.bench;
  const set = (change: Partial<Bench>) => {
    if (bench) state.change("bench", { ...bench, ...change });
  };
  const readings: readonly Taken[] = bench?.readings ?? [];
  const count = bench?.leads ?? 0;
  const query = useQuery({
    queryKey: [
      "bench",
      works,
      count,
      bench?.groups,
      readings,
      bench?.known,
      bench?.corners,
      bench?.same_phase,
      bench?.probe_ohm,
    ],
    enabled: count > 0 && Boolean(bench),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/w/{works}/bench", {
          params: { path: { works: works } },
          body: bench as Bench,
          signal,
        }),
      ),
  });
  const answered = useAnswer(query);
  const guided = count > 0 ? answered.data : undefined;
  const ask = guided?.ask ?? null;
  // what is asked stays to be read until the next answer comes; a reading is taken for it only once
  const isAsking = !answered.isOld;
  const doubtful: readonly number[] = isAsking && guided ? guided.doubtful : [];
  const isMystery = bench?.mystery !== null && bench?.mystery !== undefined;
  const feedV = bench?.feed_v ?? "10";
  const add = (reading: Taken) => set({ readings: [...readings, reading] });
  const answer = (text: string, isOpen: boolean) => {
    if (!ask || !isAsking) return;
    const value = text.trim().replace(",", ".");
    if (ask.what === "touch") {
      add({ what: "touch", pair: ask.pair, rings: !isOpen, ohms: isOpen || !value ? null : value });
    } else if (value) {
      add({
        what: "volts",
        feed: ask.feed,
        feed_v: feedV,
        joined: ask.joined,
        read: ask.pair,
        volts: value,
      });
    }
  };
  const askMotor = async () => {
    if (!ask || !bench || !isAsking) return;
    const shown = await told(
      api.POST("/api/w/{works}/bench/read", {
        params: { path: { works: works } },
        body: { bench, what: ask.what, pair: ask.pair, feed: ask.feed, joined: ask.joined },
      }),
    );
    if (ask.what === "touch") answer(shown.ohms, !shown.rings);
    else answer(shown.volts, false);
  };
  const undo = () => set({ readings: readings.slice(0, -1) });
  return {
    bench,
    set,
    readings,
    count,
    slab: answered.slab,
    guided,
    ask,
    isAsking,
    doubtful,
    isMystery,
    feedV,
    add,
    answer,
    askMotor,
    undo,
  };
}

export type BenchState = ReturnType<typeof useBench>;
