import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schemas, told } from "../../api/client";
import type { Rung } from "./rungTree";

export type Relay = Schemas["RelayOut"];
export type Program = Schemas["ProgramOut"];

const pointsOf = (relay: Relay) => ({
  inputs: relay.inputs,
  outputs: relay.outputs,
  analog: relay.analog,
});

/** A draft of a relay's program: text and rungs are one, and the server says what it is. */
export function useProgram(relay: Relay) {
  const [draft, setDraft] = useState(relay.program);
  const [problem, setProblem] = useState<Schemas["WrongOut"][]>([]);
  const query = useQuery({
    queryKey: ["program", relay.id, relay.inputs, relay.outputs, relay.analog, draft],
    queryFn: ({ signal }) =>
      told(
        api.POST("/api/program/read", {
          body: { text: draft, rungs: null, points: pointsOf(relay) },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const program = query.data;
  const shelf = useQuery({
    queryKey: ["shelf"],
    queryFn: ({ signal }) => told(api.GET("/api/program/shelf", { signal })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  /** The draft that the server makes of something, or what is wrong with it; then the draft stays. */
  const take = async (asked: Parameters<typeof told<Program>>[0]) => {
    const made = await told(asked);
    setProblem(made.wrong ?? []);
    if (made.wrong.length === 0) setDraft(made.text);
  };
  const points = pointsOf(relay);
  const outside = (lost: unknown) => {
    if (!(lost instanceof Refused)) throw lost;
  };
  /** Another set of rungs: the server writes the text that they are. */
  const draw = async (rungs: readonly Rung[]) => {
    if (program) {
      await take(
        api.POST("/api/program/read", { body: { text: draft, rungs: [...rungs], points } }),
      );
    }
  };
  const open = async (file: File) => {
    const data = await file.text();
    await take(api.POST("/api/program/file", { body: { data, points } })).catch(outside);
  };
  /** The names of an I/O list, taken over into the draft. */
  const takeNames = async (file: File) => {
    const list = await file.text();
    await take(
      api.POST("/api/program/names", { body: { text: draft, rungs: null, points, list } }),
    ).catch(outside);
  };
  const save = async (form: "ST" | "LD") => {
    const { data } = await api.POST("/api/program/xml", {
      params: { query: { form } },
      body: { text: draft, rungs: null, points: pointsOf(relay) },
      parseAs: "text",
    });
    return typeof data === "string" ? data : null;
  };
  return {
    draft,
    program,
    problem,
    shelf: shelf.data ?? [],
    isFresh: !query.isPlaceholderData && query.isSuccess,
    setDraft: (text: string) => {
      setProblem([]);
      setDraft(text);
    },
    draw,
    open,
    takeNames,
    save,
  };
}
