import { useId, useState } from "react";
import { Diagram } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { useIsNarrow } from "../../state/device";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";
import { TypedWire } from "./TypedWire";
import { namesOf } from "./useTouch";

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
  const said = namesOf(circuit, " ");
  const tap = (terminal: string) => {
    if (from === terminal) return setFrom("");
    if (from) onAdd([{ kind: "add_wire", start: from, end: terminal, tag: "" }]);
    setFrom(terminal);
  };
  return (
    <section aria-labelledby={`${id}-title`} className="space-y-3" data-testid="trace">
      <h2 id={`${id}-title`} className="stamp text-soft">
        {drawingsWords.traceWires}
      </h2>
      <TypedWire
        works={works}
        given={given}
        label={drawingsWords.oneLine}
        onAdd={(wires) => {
          onAdd(wires);
          setFrom(wires.at(-1)?.end ?? "");
        }}
      />
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
