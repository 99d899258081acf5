import { Working } from "../../components/Edges";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { questionOf, useProofs } from "./useAnswers";

/** Every settled state that hands can bring the circuit to. */
export function Proofs({ works, given }: { works: string; given: Given }) {
  const query = useProofs(works, given);
  if (!query.data) return <Working query={query} question={questionOf("proofs", works, given)} />;
  return (
    <ul className="space-y-2" data-testid="proofs">
      {query.data.map((one) => {
        const tone = one.holds ? "border-proven" : "border-live";
        const word = one.holds
          ? "proven"
          : one.broken.length > 0
            ? drawingsWords.happens
            : drawingsWords.searchNotComplete;
        return (
          <li key={one.kind} className={`border-l-8 px-4 py-1.5 ${tone}`}>
            <p className="flex flex-wrap items-baseline gap-x-3">
              <b>{one.asks}</b>
              <b
                className={`stamp ${one.holds ? "text-proven" : "text-live"}`}
                data-testid={`proof-${one.kind}`}
              >
                {word}
              </b>
            </p>
            <p className="text-sm text-soft">
              {drawingsWords.statesActionsDeep(
                one.states,
                one.transitions,
                one.depth,
                one.exhausted ? drawingsWords.nothingLeft : drawingsWords.cutOff(one.whole_depth),
                one.faults.length > 0 ? drawingsWords.weldedOneTime(one.faults.join(", ")) : "",
              )}
            </p>
            {one.broken.map((broken) => (
              <div key={broken.code}>
                <b>{broken.name}</b>
                <ol className="flex flex-wrap gap-x-2 font-mono text-sm">
                  {[...broken.sequence, ...broken.chain].map((text, place) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a sequence may say the same twice
                    <li key={place}>
                      {place > 0 && <span aria-hidden="true">→ </span>}
                      {text}
                    </li>
                  ))}
                </ol>
              </div>
            ))}
          </li>
        );
      })}
    </ul>
  );
}
