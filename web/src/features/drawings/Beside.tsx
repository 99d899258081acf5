import type { Schemas } from "../../api/client";
import type { Circuit } from "../../diagram/useCircuit";
import type { Given } from "../../state/useJob";
import { drawingsWords } from "../../words/drawings";
import { CheckCard } from "./CheckCard";
import type { Check } from "./Checks";
import { EditBar } from "./EditBar";
import { Find } from "./Find";
import type { Match } from "./matches";
import { NewDevice } from "./NewDevice";
import { TypedWire } from "./TypedWire";
import type { useHistory } from "./useHistory";
import type { Touch, useTouch } from "./useTouch";
import { Problems, Verdict } from "./Verdict";
import { type Drawn, stillOpen } from "./verdict";
import { WireCard } from "./WireCard";

/** Beside every sheet: search, edits and their verdict, the picked wire, problems. */
export function Beside({
  works,
  circuit,
  nameOf,
  isOld,
  given,
  known,
  net,
  check,
  hand,
  history,
  isAdding,
  onAdding,
  onPick,
  onStep,
  onProblem,
  onTouchWire,
  onMove,
  onAdded,
  onDo,
  onChecks,
}: {
  works: string;
  circuit: Circuit;
  nameOf: (terminal: string) => string;
  /** The drawing is of what was given before. */
  isOld: boolean;
  given: Given | null;
  known: Schemas["CatalogueOut"] | undefined;
  net: string | null;
  check: Check | null;
  hand: ReturnType<typeof useTouch>;
  history: ReturnType<typeof useHistory>;
  isAdding: boolean;
  onAdding: (isAdding: boolean) => void;
  onPick: (match: Match) => void;
  onStep: (by: number) => void;
  onProblem: (problem: Drawn) => void;
  onTouchWire: () => void;
  onMove: (touch: Touch) => void;
  onAdded: () => void;
  onDo: (check: Check) => void;
  onChecks: () => void;
}) {
  // what the last edit brought stands with its verdict already
  const open = history.before ? stillOpen(history.before, circuit.problems) : circuit.problems;
  return (
    <div className="space-y-4">
      <Find circuit={circuit} onPick={onPick} />
      <EditBar
        touch={hand.touch}
        isAdding={isAdding}
        nameOf={nameOf}
        canUndo={history.canUndo}
        canRedo={history.canRedo}
        onTouch={(touch) => (touch ? onTouchWire() : hand.setTouch(null))}
        onDevice={() => onAdding(!isAdding)}
        onUndo={history.undo}
        onRedo={history.redo}
      />
      {hand.touch?.kind === "wire" && given && (
        <TypedWire
          works={works}
          given={given}
          label={drawingsWords.oneLineShort}
          onAdd={(wires) => history.edit(wires, "")}
        />
      )}
      {isAdding && (
        <NewDevice
          library={known?.library ?? []}
          usual={known?.usual ?? []}
          onEdit={(made, why) => {
            history.edit([made], why);
            onAdded();
          }}
        />
      )}
      {history.before && (
        <Verdict before={history.before} now={circuit.problems} isOld={isOld} onShow={onProblem} />
      )}
      {check && <CheckCard check={check} onDo={() => onDo(check)} onBack={onChecks} />}
      {net ? (
        <WireCard
          circuit={circuit}
          net={net}
          onEdit={(change, why) => history.edit([change], why)}
          onMove={onMove}
        />
      ) : (
        <p className="text-soft">{drawingsWords.tapWireHighlight}</p>
      )}
      <div className="flex gap-3">
        <button type="button" className="control" onClick={() => onStep(-1)}>
          {drawingsWords.wireBefore}
        </button>
        <button type="button" className="control" onClick={() => onStep(1)}>
          {drawingsWords.nextWire}
        </button>
      </div>
      {open.length > 0 && (
        <section aria-labelledby="problems" className="space-y-2">
          <h2 id="problems" className="stamp text-soft">
            {drawingsWords.problemsHere}
          </h2>
          <Problems problems={open} onShow={onProblem} />
        </section>
      )}
      {circuit.findings
        .filter((found) => found.level === "note")
        .map((found) => (
          <p key={found.text} className="text-sm text-soft">
            {found.text}
          </p>
        ))}
    </div>
  );
}
