import { Working } from "../../components/Edges";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { useNearest } from "./useAnswers";

/** Which circuit of the catalogue this is nearest to. */
export function Nearest({ works, given }: { works: string; given: Given }) {
  const query = useNearest(works, given);
  if (!query.data) return <Working query={query} />;
  return (
    <ol className="space-y-2" data-testid="nearest">
      {query.data.map((one, place) => (
        <li key={one.id} className={`border-l-8 px-4 ${place ? "border-hair" : "border-plum"}`}>
          <p>
            <span className="font-mono text-soft">{one.id}</span> <b>{one.title}</b>{" "}
            <span className="stamp text-soft">
              {one.score === 0
                ? drawingsWords.sameCircuit
                : `${one.score} ${one.score === 1 ? drawingsWords.difference : drawingsWords.differences}`}
            </span>
          </p>
          <p className="text-sm text-soft">
            {drawingsWords.fitsSoFar(one.fits, one.against.length, one.lacking.length)}
          </p>
          {place === 0 && (
            <ul className="text-sm">
              {one.against.map((text) => (
                <li key={text} className="font-semibold">
                  {text}
                </li>
              ))}
              {one.lacking.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          )}
        </li>
      ))}
    </ol>
  );
}
