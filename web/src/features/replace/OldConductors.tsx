import { Words } from "../../components/inputs";
import { withoutRow, withRow } from "../../state/rows";
import type { Given } from "../../state/useJob";
import { replaceWords } from "../../words/replace";

type Conductor = NonNullable<Given["replace"]["conductors"]>[number];

/** Every conductor as found, before it is moved. */
export function OldConductors({
  conductors,
  onConductorsChange,
}: {
  conductors: readonly Conductor[];
  onConductorsChange: (conductors: Conductor[]) => void;
}) {
  const setConductor = (at: number, change: Partial<Conductor>) =>
    onConductorsChange(withRow(conductors, at, change));
  return (
    <section aria-labelledby="conductors" className="space-y-2">
      <h2 id="conductors" className="stamp">
        {replaceWords.everyConductorBefore}
      </h2>
      {conductors.map((item, at) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
          key={at}
          className="grid grid-cols-2 gap-2 md:grid-cols-[1fr_1fr_1fr_1fr_auto]"
        >
          <Words
            label={replaceWords.conductor}
            value={item.conductor}
            onValueChange={(conductor) => setConductor(at, { conductor })}
          />
          <Words
            label={replaceWords.was}
            value={item.terminal}
            onValueChange={(terminal) => setConductor(at, { terminal })}
          />
          <Words
            label={replaceWords.tag}
            value={item.tag}
            onValueChange={(tag) => setConductor(at, { tag })}
          />
          <Words
            label={replaceWords.color}
            value={item.color}
            onValueChange={(color) => setConductor(at, { color })}
          />
          <button
            type="button"
            className="ask self-end"
            onClick={() => onConductorsChange(withoutRow(conductors, at))}
          >
            {replaceWords.remove}
          </button>
        </div>
      ))}
      <button
        type="button"
        className="control"
        onClick={() =>
          onConductorsChange([
            ...conductors,
            {
              conductor: `L${Math.min(conductors.length + 1, 3)}`,
              terminal: "",
              tag: "",
              color: "",
            },
          ])
        }
      >
        {replaceWords.addConductor}
      </button>
    </section>
  );
}
