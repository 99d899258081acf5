import { Working } from "../../components/Edges";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { questionOf, useProbes } from "./useAnswers";

/** What could start it, hold it or cross it unasked: played on this circuit, told with the count. */
export function Probes({ works, given }: { works: string; given: Given }) {
  const query = useProbes(works, given);
  if (!query.data) return <Working query={query} question={questionOf("probes", works, given)} />;
  return (
    <ul className="space-y-2" data-testid="probes">
      {query.data.map((one) => {
        const isTried = one.searched > 0;
        const tone = !isTried ? "border-hair" : one.holds ? "border-proven" : "border-live";
        return (
          <li key={one.family} className={`border-l-8 px-4 py-1.5 ${tone}`}>
            <p className="flex flex-wrap items-baseline gap-x-3">
              <b>{one.asks}</b>
              <b
                className={`stamp ${!isTried ? "text-soft" : one.holds ? "text-proven" : "text-live"}`}
              >
                {!isTried
                  ? drawingsWords.nothingTryHere
                  : one.holds
                    ? drawingsWords.noneFound
                    : drawingsWords.happens}
              </b>
              {isTried && (
                <span className="text-sm text-soft">
                  {one.searched} {one.searched === 1 ? "scenario" : "scenarios"}{" "}
                  {drawingsWords.tested}
                </span>
              )}
            </p>
            {!one.holds && (
              <ol className="flex flex-wrap gap-x-2 font-mono text-sm">
                {[...one.sequence, ...one.chain].map((text, place) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a sequence may say the same twice
                  <li key={place}>
                    {place > 0 && <span aria-hidden="true">→ </span>}
                    {text}
                  </li>
                ))}
              </ol>
            )}
          </li>
        );
      })}
    </ul>
  );
}
