import type { Schemas } from "../../api/client";
import { practiceWords as w } from "../../words/practice";

/** What is known how well, what was set, and the own past. */
export function Known({
  own,
  onShare,
  onOpen,
}: {
  own: Schemas["PracticeOut"];
  onShare: (isShared: boolean) => void;
  onOpen: (one: Schemas["DrillSetOut"]) => void;
}) {
  return (
    <aside className="min-w-0 space-y-4" aria-label={w.known}>
      {own.set.length > 0 && (
        <section className="metal p-4">
          <h2 className="font-headline text-lg font-bold">{w.set}</h2>
          <ul>
            {own.set.map((one) => (
              <li key={one.seed}>
                <button type="button" className="ask" onClick={() => onOpen(one)}>
                  {w.kinds[one.kind] ?? one.kind}
                </button>{" "}
                <span className="text-soft">{one.by}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {own.boxes.length > 0 && (
        <section className="metal p-4" data-testid="known">
          <h2 className="font-headline text-lg font-bold">{w.known}</h2>
          <ul>
            {own.boxes.map((one) => (
              <li key={one.kind}>
                <span className="font-semibold">{w.kinds[one.kind] ?? one.kind}</span>{" "}
                <span className="text-soft">
                  {w.box(one.box)} · {w.counts(one.right, one.wrong)} · {w.dueFrom(one.due)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {own.past.length > 0 && (
        <details>
          <summary className="ask">{w.past}</summary>
          <label className="ask inline-flex items-center gap-2">
            <input
              type="checkbox"
              checked={own.is_shared}
              onChange={(event) => onShare(event.target.checked)}
            />
            {own.is_shared ? w.isShared : w.share}
          </label>
          <ul className="text-sm">
            {own.past.map((one) => (
              <li key={`${one.at}.${one.kind}.${one.given}`}>
                {one.person} · {w.kinds[one.kind] ?? one.kind}: {one.given}
                {!one.is_right && (
                  <span className="text-caution">
                    {" "}
                    ({one.right}) {one.slip}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
      <details>
        <summary className="ask">{w.beliefs}</summary>
        <dl className="space-y-2 text-sm">
          {own.beliefs.map(([belief, truth]) => (
            <div key={belief}>
              <dt className="text-soft">{belief}</dt>
              <dd>{truth}</dd>
            </div>
          ))}
        </dl>
      </details>
    </aside>
  );
}
