import { useState } from "react";
import { v7 } from "uuid";
import { Words } from "../../components/inputs";
import type { Held } from "../../state/outbox";
import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

/** What belongs to one round, kept and unsent, in the order it was made. */
function roundOf(panel: Panel, held: readonly Held[], round: string) {
  const of = (about: Record<string, unknown>) => about.round === round;
  return [
    ...panel.entries.filter((one) => of(one.about) && one.answer.startsWith("kept")),
    ...held.filter((one) => !one.refused && of(one.act.about ?? {})).map((one) => one.act),
  ];
}

/** Meter, every point, meter again: one reading at a time. */
export function Prove({
  panel,
  held,
  onAct,
}: {
  panel: Panel;
  held: readonly Held[];
  onAct: (made: Made) => void;
}) {
  const [round, setRound] = useState("");
  const [meter, setMeter] = useState("");
  const [known, setKnown] = useState("");
  const [waited, setWaited] = useState("");
  const done = roundOf(panel, held, round);
  const checks = done.filter((one) => one.kind === "meter_live");
  const read = new Set(
    done.filter((one) => one.kind === "dead_point").map((one) => String(one.about?.point)),
  );
  const left = panel.points.filter((point) => !read.has(point.id));
  const point = left[0];
  const limit = panel.expected.find((one) => one.id === point?.id)?.max ?? "1.0";
  const worst = done.filter((one) => one.kind === "dead_point").map((one) => one.body?.value);
  const isLive = worst.some((value) => Number(String(value).replace(",", ".")) > Number(limit));
  const mustWait = panel.sources.find((one) => one.id === point?.source)?.wait_s ?? 0;
  const source = Number(known.replace(",", "."));
  const proof = (phase: string) => (value: string) =>
    onAct({
      kind: "meter_live",
      about: { round },
      body: {
        phase,
        meter,
        value,
        unit: "V",
        min: (source * 0.9).toFixed(1),
        max: (source * 1.1).toFixed(1),
      },
    });
  return (
    <section aria-labelledby="prove" className="space-y-3" data-testid="prove">
      <h2 id="prove" className="stamp">
        {w.proveTitle}
      </h2>
      <p className="text-soft">{w.proveSays}</p>
      {isLive && <p className="font-headline text-2xl font-bold text-live">{w.live}</p>}
      {!round && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (meter.trim() && source > 0) setRound(v7());
          }}
        >
          <Words label={w.meter} value={meter} onValueChange={setMeter} className="w-40" />
          <Words label={w.known} value={known} unit={w.volts} isNumber onValueChange={setKnown} />
          <button type="submit" className="control">
            {w.startRound}
          </button>
        </form>
      )}
      {round && checks.length === 0 && (
        <Typed label={w.before} unit={w.volts} does={w.read} onDone={proof("before")} />
      )}
      {round && checks.length === 1 && point && (
        <div className="border-2 border-ink bg-sheet p-4 space-y-2" data-testid="point">
          <p className="text-soft">
            {w.next(panel.points.length - left.length + 1, panel.points.length)} ·{" "}
            {w.atMost(limit, w.volts)}
          </p>
          <p className="font-mono text-2xl font-bold">{w.point(point.one, point.other)}</p>
          {mustWait > 0 && (
            <label className="block text-sm text-caution">
              <span className="block">{w.waited(Math.ceil(mustWait / 60))}</span>
              <input
                className="field w-24!"
                inputMode="decimal"
                value={waited}
                onChange={(event) => setWaited(event.target.value)}
              />
            </label>
          )}
          <Typed
            key={point.id}
            label={w.volts}
            unit={w.volts}
            does={w.read}
            onDone={(value) =>
              onAct({
                kind: "dead_point",
                about: { round, point: point.id },
                body: {
                  meter,
                  value,
                  unit: "V",
                  // what a person says was waited, never what should have been
                  waited_s: String(Math.round(60 * Number(waited.replace(",", ".")) || 0)),
                },
              })
            }
          />
        </div>
      )}
      {round && checks.length === 1 && !point && (
        <Typed label={w.after} unit={w.volts} does={w.read} onDone={proof("after")} />
      )}
      {round && checks.length > 1 && (
        <p>
          {w.roundDone}{" "}
          <button type="button" className="ask" onClick={() => setRound("")}>
            {w.startRound}
          </button>
        </p>
      )}
    </section>
  );
}
