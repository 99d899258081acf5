import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { api, type Schemas, told } from "../../api/client";
import { useTried } from "../../state/useTried";
import { withEdits, withoutEdit } from "../drawings/edits";
import type { Act } from "../rehearse/timeline";

export type Begin = "bare" | "power";
export type Reading = "volts" | "ohms" | "amps";
type Given = Schemas["JobInputs"];

const STILL = { staleTime: Number.POSITIVE_INFINITY, refetchOnWindowFocus: false };

/** A panel to be wired by hand: what was landed, read and asked. */
export function usePanel(works: string) {
  const [circuit, setCircuit] = useState("3A");
  const [start, setStart] = useState<Begin>("power");
  const [round, setRound] = useState(0);
  const [given, setGiven] = useState<Given | null>(null);
  const [asked, setAsked] = useState<Schemas["PanelAskedOut"] | null>(null);
  const [read, setRead] = useState<readonly { id: number; where: string; shown: string }[]>([]);
  const { problem, isBusy, tried } = useTried();
  const path = { works };
  const begun = useQuery({
    queryKey: ["panel to wire", works, circuit, start],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/practice/panel", {
          params: { path, query: { circuit, start } },
          signal,
        }),
      ),
    ...STILL,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: another round begins with the same panel
  useEffect(() => {
    setGiven(begun.data?.given ?? null);
    setAsked(null);
    setRead([]);
  }, [begun.data, round]);
  const mine = useMemo(
    () => (given?.starter.edits ?? []).filter((one) => one.kind === "add_wire"),
    [given],
  );
  const change = (starter: Given["starter"]) => {
    if (!given) return;
    setAsked(null);
    setGiven({ ...given, starter });
  };
  return {
    begun: begun.data,
    given,
    mine,
    asked,
    read,
    problem,
    isBusy,
    circuit,
    start,
    setCircuit,
    setStart,
    startOver: () => setRound(round + 1),
    land: (from: string, to: string) => {
      if (given && from && to && from !== to)
        change(withEdits(given.starter, [{ kind: "add_wire", start: from, end: to, tag: "" }]));
    },
    takeOff: (id: string) => given && change(withoutEdit(given.starter, id)),
    meter: async (
      kind: Reading,
      from: string,
      to: string,
      acts: readonly Act[],
      at: number,
      where: string,
    ) => {
      if (!given) return;
      const found = await tried(() =>
        told(
          api.POST("/api/w/{works}/practice/panel/meter", {
            params: { path },
            body: {
              given,
              actions: acts.filter((one) => one.t <= at).map((one) => ({ ...one })),
              at_us: Math.round(at),
              kind,
              start: from,
              end: kind === "amps" ? "" : to,
            },
          }),
        ),
      );
      if (found) setRead((known) => [{ id: known.length, where, shown: found.shown }, ...known]);
    },
    ask: async () => {
      if (!given) return;
      setAsked(
        await tried(() =>
          told(
            api.POST("/api/w/{works}/practice/panel/ask", {
              params: { path },
              body: { given },
            }),
          ),
        ),
      );
    },
  };
}

export type PanelToWire = ReturnType<typeof usePanel>;
