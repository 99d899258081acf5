import { Tag } from "../../components/shapes";
import type { Circuit } from "../../diagram/useCircuit";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { type Edit, type Starter, withEdits, withoutEdit } from "./edits";
import { FromText } from "./FromNetlist";
import type { Library, Usual } from "./library";
import { Nearest } from "./Nearest";
import { NewDevice } from "./NewDevice";
import { NewWire } from "./NewWire";
import { OldDevice } from "./OldDevice";
import { Trace } from "./Trace";

/** What was changed by whom and why, what differs from the standard circuit, and every way to change more. */
export function Changes({
  works,
  given,
  circuit,
  library,
  usual,
  onChange,
}: {
  works: string;
  given: Given;
  circuit: Circuit;
  library: readonly Library[];
  usual: readonly Usual[];
  onChange: (starter: Starter) => void;
}) {
  const { starter } = given;
  const edits = starter.edits ?? [];
  const isFound = starter.standard_circuit === "found";
  const stale = new Map(circuit.stale.map((one) => [one.id, one.reason]));
  const add = (edit: Partial<Edit>, why: string) => onChange(withEdits(starter, [edit], why));
  return (
    <div className="space-y-6" data-testid="changes">
      <Trace
        works={works}
        given={given}
        circuit={circuit}
        onAdd={(wires) => onChange(withEdits(starter, wires))}
      />
      <NewDevice library={library} usual={usual} onEdit={add} />
      <NewWire circuit={circuit} onEdit={add} />
      <section aria-labelledby="differs" className="space-y-2">
        <h2 id="differs" className="stamp text-soft">
          {isFound ? drawingsWords.tracedSoFar : drawingsWords.differencesFromStandard}
        </h2>
        {circuit.changes.length === 0 ? (
          <p>{isFound ? drawingsWords.nothingTracedYet : drawingsWords.drawnStandardCircuit}</p>
        ) : (
          <ul className="text-sm" data-testid="differences">
            {circuit.changes.map((one) => (
              <li key={`${one.what} ${one.on} ${one.text}`}>{one.text}</li>
            ))}
          </ul>
        )}
        {edits.length > 0 && (
          <>
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="control"
                onClick={() => onChange(withoutEdit(starter))}
              >
                {drawingsWords.undoLastEdit}
              </button>
              <button
                type="button"
                className="control"
                onClick={() => onChange({ ...starter, edits: [] })}
              >
                {isFound ? drawingsWords.startFromEmpty : drawingsWords.backStandardCircuit}
              </button>
            </div>
            <ol className="space-y-1">
              {edits.map((edit) => (
                <li key={edit.id} className="flex flex-wrap items-baseline gap-x-3">
                  <span className="font-mono text-sm">{edit.kind.replace("_", " ")}</span>
                  {edit.by && (
                    <Tag who={edit.by} when={(edit.at ?? "").slice(0, 16).replace("T", " ")} />
                  )}
                  {edit.changed_by && (
                    <Tag
                      who={drawingsWords.changedBy(edit.changed_by)}
                      when={(edit.changed_at ?? "").slice(0, 16).replace("T", " ")}
                    />
                  )}
                  {edit.why && <span>{edit.why}</span>}
                  {stale.has(edit.id) && (
                    <span className="text-caution">
                      {drawingsWords.noLongerApplies(stale.get(edit.id) ?? "")}
                    </span>
                  )}
                  <button
                    type="button"
                    className="ask"
                    onClick={() => onChange(withoutEdit(starter, edit.id))}
                  >
                    {drawingsWords.undo}
                  </button>
                </li>
              ))}
            </ol>
          </>
        )}
      </section>
      <OldDevice circuit={circuit} library={library} onEdit={add} />
      {isFound && (
        <FromText
          works={works}
          onTake={(found) => onChange({ ...withEdits({ ...starter, edits: [] }, found) })}
        />
      )}
      {(isFound || edits.length > 0) && (
        <section aria-labelledby="nearest" className="space-y-2">
          <h2 id="nearest" className="stamp text-soft">
            {drawingsWords.nearestStandardCircuits}
          </h2>
          <Nearest works={works} given={given} />
        </section>
      )}
    </div>
  );
}
