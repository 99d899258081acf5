import { useId, useState } from "react";
import { Select } from "../../components/Select";
import { Stop } from "../../components/shapes";
import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import type { Edit } from "../drawings/edits";

/** A wire that is missing or landed wrong in this rehearsal only; the drawing stays right. */
export interface WireFault {
  said: string;
  edit: Partial<Edit>;
}

export function WireFaultChoice({
  wires,
  onFault,
}: {
  wires: Circuit["wires"];
  onFault: (fault: WireFault) => void;
}) {
  const [wireField, endField, toField] = [useId(), useId(), useId()];
  const [chosen, setChosen] = useState("");
  const [isEnd, setEnd] = useState(false);
  const [to, setTo] = useState("");
  const wire = wires.find((one) => one.id === chosen) ?? wires[0];
  if (!wire) return null;
  const places = new Map<string, string>();
  for (const one of wires) {
    places.set(one.start_terminal, one.start);
    places.set(one.end_terminal, one.end);
  }
  const from = isEnd ? wire.end_terminal : wire.start_terminal;
  const others = [...places]
    .filter(([place]) => place !== from)
    .sort(([, one], [, other]) => one.localeCompare(other, undefined, { numeric: true }));
  const target = others.some(([place]) => place === to) ? to : (others[0]?.[0] ?? "");
  const name = rehearseWords.wireOf(wire.start, wire.end);
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <label htmlFor={wireField} className="mr-2 min-w-24 font-semibold">
        {rehearseWords.wire}
      </label>
      <Select
        id={wireField}
        wide="w-72!"
        value={wire.id}
        options={wires.map((one) => [
          one.id,
          `${one.number ? `${one.number}: ` : ""}${one.start} – ${one.end}`,
        ])}
        onPick={setChosen}
      />
      <button
        type="button"
        className="control"
        onClick={() =>
          onFault({
            said: rehearseWords.isMissing(name),
            edit: { kind: "remove_wire", wire: wire.id },
          })
        }
      >
        {rehearseWords.missing}
      </button>
      <label htmlFor={endField} className="sr-only">
        {rehearseWords.whichEnd}
      </label>
      <Select
        id={endField}
        value={isEnd ? "end" : "start"}
        options={[
          ["start", wire.start],
          ["end", wire.end],
        ]}
        onPick={(end) => setEnd(end === "end")}
      />
      <label htmlFor={toField}>{rehearseWords.landsOn}</label>
      <Select id={toField} value={target} options={others} onPick={setTo} />
      <button
        type="button"
        className="control"
        onClick={() =>
          onFault({
            said: rehearseWords.isMoved(name, places.get(from) ?? "", places.get(target) ?? ""),
            edit: { kind: "move_end", wire: wire.id, start: from, end: target },
          })
        }
      >
        {rehearseWords.landIt}
      </button>
    </fieldset>
  );
}

/** What is wired wrong in this rehearsal, and the way back. */
export function WireFaultsHeld({
  faults,
  onMend,
}: {
  faults: readonly WireFault[];
  onMend: () => void;
}) {
  if (faults.length === 0) return null;
  return (
    <Stop strength="hold" title={rehearseWords.wiredWrong}>
      {faults.map((fault) => (
        <p key={fault.said}>{fault.said}</p>
      ))}
      <button type="button" className="control" onClick={onMend}>
        {rehearseWords.wireRight}
      </button>
    </Stop>
  );
}
