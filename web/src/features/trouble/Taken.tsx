import { Tag } from "../../components/shapes";
import { troubleWords as w } from "../../words/trouble";
import type { Hunt } from "./useHunt";

/** What was read so far, by whom, and how it was closed. */
export function Taken({
  hunt,
  isBusy,
  onBack,
}: {
  hunt: Hunt;
  isBusy: boolean;
  onBack: () => void;
}) {
  const { closed } = hunt;
  return (
    <>
      {hunt.taken.length > 0 && (
        <section aria-label={w.taken} data-testid="taken">
          <h2 className="font-headline text-lg font-bold">{w.taken}</h2>
          <ol className="list-decimal pl-6">
            {hunt.taken.map((one) => (
              <li key={`${one.at}.${one.reading}`}>
                {one.said}{" "}
                <span className="font-mono font-semibold">
                  {one.how === "cannot" ? w.cannot : one.answer}
                </span>
                {one.how === "unsure" && <span className="text-caution"> · {w.unsure}</span>}
                {!one.counts && <span className="text-caution"> · {w.lost}</span>}
              </li>
            ))}
          </ol>
          {!closed && (
            <button type="button" className="control" disabled={isBusy} onClick={onBack}>
              {w.back}
            </button>
          )}
        </section>
      )}
      {closed && (
        <section className="space-y-2 border-2 border-ink bg-sheet p-4" data-testid="closed">
          <p className="font-headline text-xl font-bold">{closed.said}</p>
          <ol className="list-decimal pl-6">
            {closed.steps.map((one, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: steps of a closed hunt never change
              <li key={place}>
                {w[one.what as "failed"]} {one.said}
              </li>
            ))}
          </ol>
          <p>{closed.row}</p>
          <Tag who={closed.by} when={closed.at} />
        </section>
      )}
    </>
  );
}
