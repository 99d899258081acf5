import { useState } from "react";
import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

type Wire = Panel["wires"][number];

/** One wire at a time in the order of the list: both ends large, landed or not, different here. */
export function Land({
  panel,
  sent,
  onAct,
}: {
  panel: Panel;
  /** Wires with an entry that is on this device only. */
  sent: ReadonlySet<string>;
  onAct: (made: Made) => void;
}) {
  const [picked, setPicked] = useState("");
  const todo = panel.wires.filter((wire) => wire.state !== "done" && !sent.has(wire.id));
  const wire = panel.wires.find((one) => one.id === picked) ?? todo[0];
  const about = (one: Wire) => ({ wire: one.id, ends: [one.start, one.end] });
  const land = (one: Wire, ok: boolean) => {
    setPicked("");
    onAct({ kind: "landed", about: about(one), body: { ok, tugged: ok } });
  };
  return (
    <section aria-labelledby="land" className="space-y-3" data-testid="land">
      <h2 id="land" className="stamp">
        {w.landTitle}
      </h2>
      <p className="text-soft">{w.landSays}</p>
      {panel.line_side.length > 0 && (
        <p className="font-semibold text-live">
          {w.lineSide} <span className="font-mono">{panel.line_side.join(", ")}</span>
        </p>
      )}
      {wire ? (
        <div className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="wire">
          <p className="font-headline text-xl">
            {wire.number} · {wire.color} {wire.size} · {w.wireStates[wire.state]}
          </p>
          <p className="grid gap-2 font-mono text-3xl font-bold sm:grid-cols-2">
            <span>{wire.start_said}</span>
            <span>{wire.end_said}</span>
          </p>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="control" onClick={() => land(wire, true)}>
              {w.landed}
            </button>
            <button type="button" className="control" onClick={() => land(wire, false)}>
              {w.notLanded}
            </button>
          </div>
          <Typed
            key={wire.id}
            label={w.found}
            does={w.different}
            isNumber={false}
            onDone={(found) => {
              setPicked("");
              onAct({ kind: "different_here", about: about(wire), body: { found } });
            }}
          />
        </div>
      ) : (
        <p className="font-semibold text-proven">{w.allLanded}</p>
      )}
      <ul className="columns-1 gap-6 md:columns-2">
        {panel.wires.map((one) => (
          <li key={one.id} className="break-inside-avoid border-t border-hair">
            <button
              type="button"
              className="flex w-full justify-between gap-3 py-1 text-left"
              aria-pressed={one.id === wire?.id}
              onClick={() => setPicked(one.id)}
            >
              <span className="font-mono">
                {one.number} {one.start_said} – {one.end_said}
              </span>
              <span className={one.state === "done" ? "text-proven" : "text-soft"}>
                {sent.has(one.id) ? "…" : w.wireStates[one.state]}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
