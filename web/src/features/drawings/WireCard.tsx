import { useState } from "react";
import { Words } from "../../components/inputs";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";
import type { Touch } from "./useTouch";

type Wire = Circuit["wires"][number];

/** One wire of a number: taken off, or one of its ends led to another screw. */
function WireRow({
  wire,
  onEdit,
  onMove,
}: {
  wire: Wire;
  onEdit: (edit: Partial<Edit>, why: string) => void;
  onMove: (touch: Touch) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const [why, setWhy] = useState("");
  return (
    <li className="border-t border-hair py-1">
      <p className="font-mono">
        {wire.start} <span className="text-soft">{drawingsWords.to2}</span> {wire.end}
      </p>
      <p className="text-sm text-soft">
        {wire.is_maker ? (
          <b className="stamp text-caution">{drawingsWords.factoryLinkVerify}</b>
        ) : (
          <>
            {drawingsWords.ferrules(wire.color, wire.size || drawingsWords.sizeUnknown)}{" "}
            <span className="font-mono">{wire.ferrules.join(" · ")}</span>
          </>
        )}
      </p>
      <button
        type="button"
        className="ask"
        aria-expanded={isOpen}
        onClick={() => setOpen((now) => !now)}
      >
        {drawingsWords.editWire}
      </button>
      {isOpen && (
        <div className="mt-1 space-y-2">
          <Words label={drawingsWords.reason} value={why} onValueChange={setWhy} />
          <div className="flex flex-wrap gap-2">
            {(["start", "end"] as const).map((side) => (
              <button
                key={side}
                type="button"
                className="control"
                onClick={() =>
                  onMove({
                    kind: "move",
                    wire: wire.id,
                    from: side === "start" ? wire.start_terminal : wire.end_terminal,
                    why,
                  })
                }
              >
                {drawingsWords.moveThisEnd(side === "start" ? wire.start : wire.end)}
              </button>
            ))}
            <button
              type="button"
              className="control"
              onClick={() => onEdit({ kind: "remove_wire", wire: wire.id }, why)}
            >
              {drawingsWords.removeWire}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => onEdit({ kind: "maker", wire: wire.id }, why)}
            >
              {wire.is_maker ? drawingsWords.notFactoryLink : drawingsWords.factoryLink}
            </button>
          </div>
        </div>
      )}
    </li>
  );
}

/** The wires of one number, from end to end, each of which can be changed. */
export function WireCard({
  circuit,
  net,
  onEdit,
  onMove,
}: {
  circuit: Circuit;
  net: string;
  onEdit: (edit: Partial<Edit>, why: string) => void;
  onMove: (touch: Touch) => void;
}) {
  const told = circuit.nets.find((one) => one.id === net);
  const wires = circuit.wires.filter((wire) => wire.net === net);
  return (
    <section aria-labelledby="wire" className="metal space-y-2 px-5 py-4" data-testid="wire-card">
      <h2 id="wire" className="font-mono text-2xl font-semibold">
        {wires[0]?.number}
      </h2>
      <p className="text-soft">
        {wires.length} {wires.length === 1 ? "wire" : "wires"}, {wires[0]?.way}
      </p>
      {told && (
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
          <dt className="text-soft">{drawingsWords.doesIt}</dt>
          <dd>{told.does}</dd>
          <dt className="text-soft">{drawingsWords.onIt}</dt>
          <dd className="font-mono">{told.on.join(" · ")}</dd>
        </dl>
      )}
      <ul>
        {wires.map((wire) => (
          <WireRow key={wire.id} wire={wire} onEdit={onEdit} onMove={onMove} />
        ))}
      </ul>
    </section>
  );
}
