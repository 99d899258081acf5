import type { ReactNode } from "react";
import type { Given } from "../../state/useJob";
import { runUpWords as w } from "../../words/runUp";
import type { RunUp } from "./useRunUp";

type Noted = NonNullable<Given["load"]["noted"]>;

const UNITS: Record<string, string> = { percent: "%", "lb ft2": "lb ft²", ohm: "Ω" };

const shown = (value: number) =>
  value >= 100 ? value.toFixed(0) : value >= 10 ? value.toFixed(1) : value.toPrecision(2);

function Facts({ facts }: { facts: RunUp["facts"] }) {
  return (
    <dl>
      {facts.map((fact) => (
        <div
          key={fact.id}
          className={`grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-t border-hair py-1 ${fact.kind === "assumed" ? "border-l-4 border-l-caution pl-2" : ""}`}
        >
          <dt className="text-soft">{fact.label}</dt>
          <dd className="text-right font-mono font-semibold">
            {fact.shown} {UNITS[fact.unit] ?? fact.unit}
          </dd>
          {fact.kind === "assumed" && (
            <dd className="col-span-2 text-sm text-caution">{fact.working}</dd>
          )}
        </div>
      ))}
    </dl>
  );
}

/** The figures a run is calculated with, what was taken as usual, and what a meter should show. */
export function StandsOn({
  sheet,
  noted,
  onNote,
  children,
}: {
  sheet: RunUp;
  /** Readings that were noted with the job, for a later comparison with a meter. */
  noted: Noted;
  onNote: () => void;
  children: ReactNode;
}) {
  const before = new Map(noted.map((one) => [one.id as string, Number(one.value)]));
  const guessed = [...sheet.facts, ...sheet.low_facts].filter((fact) => fact.kind === "assumed");
  return (
    <div className="grid gap-6 lg:grid-cols-2">
      <section aria-labelledby="facts" className="min-w-0 space-y-2" data-testid="run-facts">
        <h2 id="facts" className="stamp">
          {w.facts}
          {guessed.length > 0 && (
            <span className="ml-3 text-caution">{w.taken(guessed.length)}</span>
          )}
        </h2>
        <Facts facts={sheet.facts} />
        {sheet.low_facts.length > 0 && (
          <>
            <h3 className="stamp">{w.lowSpeed}</h3>
            <Facts facts={sheet.low_facts} />
          </>
        )}
      </section>
      <section aria-labelledby="expect" className="min-w-0 space-y-2" data-testid="expected">
        <h2 id="expect" className="stamp">
          {w.expect}
        </h2>
        <dl>
          {sheet.expected.map((one) => (
            <div key={one.id} className="flex justify-between gap-4 border-t border-hair py-1">
              <dt className="text-soft">{w.reading[one.id] ?? one.id}</dt>
              <dd className="text-right font-mono">
                {w.about(shown(one.value), UNITS[one.unit] ?? one.unit, one.percent)}
                {before.has(one.id) && (
                  <span className="block text-sm text-soft">
                    {w.notedAs(shown(before.get(one.id) ?? 0), UNITS[one.unit] ?? one.unit)}
                  </span>
                )}
              </dd>
            </div>
          ))}
        </dl>
        {sheet.expected.length > 0 && (
          <button type="button" className="control" onClick={onNote}>
            {noted.length > 0 ? w.noteAgain : w.note}
          </button>
        )}
        {children}
      </section>
    </div>
  );
}
