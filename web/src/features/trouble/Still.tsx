import type { Schemas } from "../../api/client";
import { troubleWords as w } from "../../words/trouble";
import { Bar } from "./Next";

/** What is still possible, with its odds and what the next reading would show of it. */
export function Still({ stands, odds }: { stands: Schemas["HuntStandsOut"]; odds: string }) {
  return (
    <section aria-label={w.still} className="metal space-y-2 p-4" data-testid="still">
      <h2 className="font-headline text-lg font-bold">{w.still}</h2>
      <p className="text-sm text-caution">{odds}</p>
      <ol className="space-y-2">
        {stands.groups.slice(0, 9).map((one) => (
          <li key={one.ids[0]} className="border-t border-hair pt-1">
            {one.faults.length > 1 && <p className="text-sm text-soft">{w.alike}</p>}
            {one.faults.slice(0, 3).map((fault) => (
              <p key={fault}>{fault}</p>
            ))}
            <p className="grid grid-cols-[1fr_4rem] items-center gap-2 text-sm">
              <Bar percent={one.percent} />
              <span className="text-right font-mono">{w.percent(one.percent)}</span>
            </p>
            <p className="text-sm text-soft">
              {one.shows && w.wouldShow(one.shows)}
              {!one.is_played && ` · ${w.byOdds}`}
              {one.contradicted && ` · ${w.against}`}
            </p>
          </li>
        ))}
      </ol>
      <p className="text-sm text-soft">
        {w.others(stands.others_percent)} · {w.weighed(stands.candidates)}
      </p>
      <details className="text-sm">
        <summary className="ask">{w.unplayed}</summary>
        <p>{stands.unplayed.join("; ")}</p>
      </details>
    </section>
  );
}
