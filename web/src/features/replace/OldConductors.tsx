import { Words } from "../../components/inputs";
import { RowList } from "../../components/RowList";
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
  return (
    <section aria-labelledby="conductors" className="space-y-2">
      <h2 id="conductors" className="stamp">
        {replaceWords.everyConductorBefore}
      </h2>
      <RowList
        rows={conductors}
        onRowsChange={onConductorsChange}
        add={replaceWords.addConductor}
        remove={replaceWords.remove}
        className="grid grid-cols-2 gap-2 md:grid-cols-[1fr_1fr_1fr_1fr_auto]"
        newRow={() => ({
          conductor: `L${Math.min(conductors.length + 1, 3)}`,
          terminal: "",
          tag: "",
          color: "",
        })}
      >
        {(item, change) => (
          <>
            <Words
              label={replaceWords.conductor}
              value={item.conductor}
              onValueChange={(conductor) => change({ conductor })}
            />
            <Words
              label={replaceWords.was}
              value={item.terminal}
              onValueChange={(terminal) => change({ terminal })}
            />
            <Words
              label={replaceWords.tag}
              value={item.tag}
              onValueChange={(tag) => change({ tag })}
            />
            <Words
              label={replaceWords.color}
              value={item.color}
              onValueChange={(color) => change({ color })}
            />
          </>
        )}
      </RowList>
    </section>
  );
}
