import type { Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";

const NAMES: Record<string, string> = {
  main_rule: sizePartsWords.mainRule,
  next_size_up: sizePartsWords.nextSizeUp,
  raised: sizePartsWords.willNotStart,
  ordinary: sizePartsWords.ordinaryCircuitLimit,
};

/** Every opinion on the device side by side: what it gives, whether it holds here, and why. */
export function RatingRules({ worked }: { worked: Worked }) {
  if (worked.rating_rules.length === 0) return null;
  return (
    <section aria-labelledby="rating_rules">
      <h2 id="rating_rules" className="stamp mb-2 text-soft">
        {sizePartsWords.eachReading}
      </h2>
      <div
        className="grid gap-x-3 gap-y-2 sm:grid-cols-2 md:grid-cols-4"
        data-testid="rating-rules"
      >
        {worked.rating_rules.map((row) => (
          <div
            key={row.id}
            data-chosen={row.is_chosen}
            className="border-t-4 border-hair bg-sheet px-3 pt-1.5 pb-2 data-[chosen=true]:border-plum"
          >
            <p className="flex justify-between gap-2 text-sm text-soft">
              {NAMES[row.id] ?? row.id}
              {row.is_chosen ? (
                <b className="stamp text-plum">{sizePartsWords.used}</b>
              ) : (
                !row.applies && <b className="stamp">{sizePartsWords.doesNotApply}</b>
              )}
            </p>
            <p
              className={`font-mono text-xl font-semibold ${row.applies ? "" : "line-through decoration-2"}`}
            >
              {row.amps_a} A
            </p>
            <p className="text-sm">{row.reason}</p>
          </div>
        ))}
      </div>
    </section>
  );
}
