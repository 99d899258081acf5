import { useState } from "react";
import { panelWords as w } from "../../words/panel";
import { bounds } from "./bounds";
import { Items } from "./Items";
import { Practice } from "./Practice";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

/** One ohm reading at a time: where, with what held, what it should be; OL has a key of its own. */
export function Readings({
  panel,
  sent,
  onAct,
}: {
  panel: Panel;
  /** Rows with an entry that is on this device only. */
  sent: ReadonlySet<string>;
  onAct: (made: Made) => void;
}) {
  const [picked, setPicked] = useState("");
  const done = (state: string) => ["as_expected", "accepted"].includes(state);
  const todo = panel.rows.filter((row) => !done(row.state) && !sent.has(row.id));
  const row = panel.rows.find((one) => one.id === picked) ?? todo[0];
  const expected = panel.expected.find((one) => one.id === row?.id);
  const take = (id: string, value: string) => {
    setPicked("");
    onAct({ kind: "dead_reading", about: { row: id }, body: { value, unit: "ohm" } });
  };
  return (
    <section aria-labelledby="readings" className="space-y-3" data-testid="readings">
      <h2 id="readings" className="stamp">
        {w.readTitle}
      </h2>
      <p className="text-soft">
        {w.readSays} {panel.asides.join("; ")}
      </p>
      <p data-testid="read-count">
        {w.readProgress(panel.rows.length - todo.length, panel.rows.length)}
      </p>
      {row ? (
        <div className="border-2 border-ink bg-sheet p-4 space-y-3" data-testid="row">
          <p className="font-mono text-2xl font-bold">{w.point(row.start_said, row.end_said)}</p>
          {row.held.length > 0 && (
            <p className="font-semibold">
              {w.held} {row.held.join("; ")}
            </p>
          )}
          <p>
            {row.expects}
            {expected && ` (${bounds(expected.min, expected.max, w.ohms)})`} ·{" "}
            {w.rowStates[row.state]}
          </p>
          {row.state === "wrong" && (
            <div data-testid="look-at">
              <p className="font-semibold text-live">{w.lookAt}</p>
              <ul className="list-disc pl-5 font-mono">
                {panel.wires
                  .filter((wire) => row.wires.includes(wire.id))
                  .map((wire) => (
                    <li key={wire.id}>
                      {wire.number} {wire.start_said} – {wire.end_said}
                    </li>
                  ))}
              </ul>
            </div>
          )}
          <Typed
            key={row.id}
            label={w.ohms}
            unit={w.ohms}
            does={w.read}
            extra={
              <button type="button" className="control" onClick={() => take(row.id, "OL")}>
                {w.openKey}
              </button>
            }
            onDone={(value) => take(row.id, value)}
          />
          <Practice key={`p${row.id}`} asked={{ kind: "dead_reading", read_at: row.id }} />
        </div>
      ) : (
        <p className="font-semibold text-proven">{w.allRead}</p>
      )}
      <Items panel={panel} onAct={onAct} />
      <ul>
        {panel.rows
          .filter((one) => one.state !== "not_read")
          .map((one) => (
            <li key={one.id} className="border-t border-hair">
              <button
                type="button"
                className="flex w-full justify-between gap-3 py-1 text-left"
                onClick={() => setPicked(one.id)}
              >
                <span className="font-mono">{w.point(one.start_said, one.end_said)}</span>
                <span className={done(one.state) ? "text-proven" : "font-semibold text-live"}>
                  {w.rowStates[one.state]}
                </span>
              </button>
            </li>
          ))}
      </ul>
    </section>
  );
}
