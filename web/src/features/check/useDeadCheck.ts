import { keepPreviousData, skipToken, useQuery } from "@tanstack/react-query";
import { api, type Schemas, told } from "../../api/client";
import { named } from "../../api/question";
import { useAnswer } from "../../components/useAnswer";
import type { JobState } from "../../state/useJob";
import { checkWords } from "../../words/check";

export type Check = Schemas["DeadCheckOut"];
export type Taken = NonNullable<Schemas["StarterInputs"]["readings"]>[number];

const handsKey = (hands: readonly { verb: string; device: string; word?: string }[]) =>
  hands.map((hand) => `${hand.verb} ${hand.device} ${hand.word ?? ""}`).join("; ");

export const keyOf = (item: {
  start: string;
  end: string;
  hands?: readonly { verb: string; device: string; word?: string }[];
}) => `${item.start}|${item.end}|${handsKey(item.hands ?? [])}`;

/** The readings a dead check needs, grouped by what is operated, and those taken so far. */
export function useDeadCheck(works: string, state: JobState) {
  const { given } = state;
  const key = ["dead", works, given];
  const query = useQuery({
    queryKey: key,
    placeholderData: keepPreviousData,
    queryFn: given
      ? ({ signal }) =>
          told(
            api.POST("/api/w/{works}/dead", {
              params: { path: { works } },
              body: given,
              signal,
              ...named(key),
            }),
          )
      : skipToken,
  });
  const {
    data: found,
    isOld,
    slab,
  } = useAnswer(query, undefined, given ? { works, key } : undefined);
  const taken = given?.starter.readings ?? [];
  const take = (check: Check, ohms: string | null | undefined) => {
    if (!given) return;
    const rest = taken.filter((item) => keyOf(item) !== keyOf(check));
    const reading: Taken = {
      start: check.start,
      end: check.end,
      hands: check.hands.map(({ verb, device, word }) => ({
        verb: verb as NonNullable<Taken["hands"]>[number]["verb"],
        device,
        word,
      })),
      ohms: ohms ?? null,
      // who read it and when is set by the server
      by: "",
      at: "",
    };
    const readings = ohms === undefined ? rest : [...rest, reading];
    state.change("starter", { ...given.starter, readings });
  };
  const groups: { held: string; checks: Check[] }[] = [];
  for (const check of found?.checks ?? []) {
    const own = check.hands.filter((hand) => !hand.for_all);
    const held = own.map((hand) => hand.label).join(checkWords.and) || checkWords.nothingOperated;
    const group = groups.find((item) => item.held === held);
    if (group) group.checks.push(check);
    else groups.push({ held, checks: [check] });
  }
  return { found, isOld, slab, taken, take, groups };
}
