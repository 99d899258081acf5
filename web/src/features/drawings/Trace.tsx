import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, Refused, told } from "../../api/client";
import { ProblemSlab } from "../../components/shapes";
import { Diagram } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { useIsNarrow } from "../../state/device";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";

/** Trace wires: tap two terminals on the board, or type one line; the last end begins the next. */
export function Trace({
  works,
  given,
  circuit,
  onAdd,
}: {
  works: string;
  given: Given;
  circuit: Circuit;
  onAdd: (edits: readonly Partial<Edit>[]) => void;
}) {
  const id = useId();
  const isNarrow = useIsNarrow();
  const [from, setFrom] = useState("");
  const [line, setLine] = useState("");
  const tags = new Map(circuit.devices.map((device) => [device.id, device.tag]));
  const said = (terminal: string) => {
    const at = terminal.lastIndexOf(".");
    const owner = terminal.slice(0, at);
    return `${tags.get(owner) ?? owner} ${terminal.slice(at + 1)}`;
  };
  const tap = (terminal: string) => {
    if (from === terminal) return setFrom("");
    if (from) onAdd([{ kind: "add_wire", start: from, end: terminal, tag: "" }]);
    setFrom(terminal);
  };
  const read = useMutation({
    mutationFn: () =>
      told(
        api.POST("/api/w/{works}/trace", { params: { path: { works } }, body: { given, line } }),
      ),
    onSuccess: (wires) => {
      onAdd(
        wires.map((wire) => ({
          kind: "add_wire",
          start: wire.start,
          end: wire.end,
          tag: wire.number,
        })),
      );
      setFrom(wires.at(-1)?.end ?? "");
      setLine("");
    },
  });
  return (
    <section aria-labelledby={`${id}-title`} className="space-y-3" data-testid="trace">
      <h2 id={`${id}-title`} className="stamp text-soft">
        {drawingsWords.traceWires}
      </h2>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (line.trim()) read.mutate();
        }}
      >
        <div className="min-w-0 grow">
          <label htmlFor={id} className="block text-sm text-soft">
            {drawingsWords.oneLine}
          </label>
          <input
            id={id}
            className="field font-mono"
            autoComplete="off"
            spellCheck={false}
            maxLength={200}
            value={line}
            placeholder={drawingsWords.oneLineExample}
            onChange={(event) => setLine(event.target.value)}
          />
        </div>
        <button type="submit" className="control">
          {drawingsWords.addWire}
        </button>
      </form>
      {read.error instanceof Refused && <ProblemSlab problem={read.error.problem} />}
      <p role="status" className="flex flex-wrap items-baseline gap-x-3">
        {from ? (
          <>
            <span>
              {drawingsWords.fromHere} <b className="font-mono">{said(from)}</b>
              {drawingsWords.tapOther}
            </span>
            <button type="button" className="ask" onClick={() => setFrom("")}>
              {drawingsWords.startElsewhere}
            </button>
          </>
        ) : (
          drawingsWords.tapFirst
        )}
      </p>
      <Diagram
        picture={circuit.board}
        label={drawingsWords.board}
        leastWidth={isNarrow ? 760 : 420}
        terminal={from}
        onTerminal={tap}
        terminalName={said}
      />
    </section>
  );
}
