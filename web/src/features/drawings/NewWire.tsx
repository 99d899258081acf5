import { useState } from "react";
import { Words } from "../../components/inputs";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";
import { TerminalPicker } from "./TerminalPicker";

/** Lead a new wire; in a panel as found one end may be unknown. */
export function NewWire({
  circuit,
  onEdit,
}: {
  circuit: Circuit;
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const [start, setStart] = useState("");
  const [end, setEnd] = useState("");
  const [number, setNumber] = useState("");
  const [why, setWhy] = useState("");
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.wire}</legend>
      <TerminalPicker
        circuit={circuit}
        label={drawingsWords.from}
        value={start}
        onValueChange={setStart}
      />
      <TerminalPicker
        circuit={circuit}
        label={drawingsWords.to}
        value={end}
        onValueChange={setEnd}
        unknown={drawingsWords.notTraced}
      />
      <Words label={drawingsWords.numberFerrule} value={number} onValueChange={setNumber} />
      <Words label={drawingsWords.reasonHowWas} value={why} onValueChange={setWhy} />
      <button
        type="button"
        className="control sm:col-span-2"
        onClick={() => {
          if (!start) return;
          onEdit({ kind: "add_wire", start, end, tag: number.trim() }, why);
          if (end) setStart(end);
          setEnd("");
          setNumber("");
        }}
      >
        {start ? drawingsWords.addWire : drawingsWords.addWireChoose}
      </button>
    </fieldset>
  );
}
