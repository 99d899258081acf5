import { drawingsWords } from "../../words/drawings";
import type { Check } from "./Checks";

/** What one check found, shown on the drawing, with the change that corrects it. */
export function CheckCard({
  check,
  onDo,
  onBack,
}: {
  check: Check;
  onDo: () => void;
  onBack: () => void;
}) {
  return (
    <section className="metal space-y-2 px-5 py-4" aria-label={drawingsWords.whatChecksSay}>
      <p className="font-mono text-sm text-soft">{check.rule}</p>
      <p className="font-semibold">{check.text}</p>
      <p>{check.change}</p>
      <div className="flex flex-wrap gap-2">
        {check.edits.length > 0 && (
          <button type="button" className="control" onClick={onDo}>
            {drawingsWords.makeChange}
          </button>
        )}
        <button type="button" className="control" onClick={onBack}>
          {drawingsWords.backChecks}
        </button>
      </div>
    </section>
  );
}
