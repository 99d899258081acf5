import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { runUpWords as w } from "../../words/runUp";

type Found = Schemas["StartsInARowOut"];

const many = (count: number, most: number) => (count >= most ? w.orMore(most) : String(count));

const waits = (seconds: number | null) => {
  if (seconds === null) return w.noWait;
  if (seconds === 0) return w.waitNone;
  return w.wait(Math.ceil(seconds / 60));
};

/** How often it can be started: relay and winding remember. */
export function InARow({ found, slab }: { found: Found | undefined; slab: ReactNode }) {
  return (
    <section
      aria-labelledby="in-a-row"
      className="min-h-[11rem] min-w-0 space-y-2"
      data-testid="in-a-row"
    >
      <h2 id="in-a-row" className="stamp">
        {w.inARow}
      </h2>
      {slab}
      {found && !found.is_known && <p>{w.noStart}</p>}
      {found?.is_known && (
        <>
          <dl>
            {[
              [w.fromCold, many(found.cold, found.most)],
              [w.fromWarm, many(found.hot, found.most)],
              [w.forbids, w.forbiddenBy[found.ends_by] ?? found.ends_by],
              [w.afterStop, waits(found.wait_s)],
              [w.perHour, found.per_hour === null ? w.notOne : String(found.per_hour)],
            ].map(([name, value]) => (
              <div key={name} className="flex justify-between gap-4 border-t border-hair py-1">
                <dt className="text-soft">{name}</dt>
                <dd className="text-right font-semibold">{value}</dd>
              </div>
            ))}
          </dl>
          <p className="text-sm text-soft">{w.makerWins}</p>
        </>
      )}
    </section>
  );
}
