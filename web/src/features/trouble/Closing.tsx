import { useState } from "react";
import { Words } from "../../components/inputs";
import { troubleWords as w } from "../../words/trouble";
import type { ClosingStep, Hunt } from "./useHunt";

const KINDS = ["failed", "changed", "passed"] as const;

/** What was tried and changed, in its order; whether it proves a cause is judged by the server. */
export function Closing({
  hunt,
  isBusy,
  onClose,
}: {
  hunt: Hunt;
  isBusy: boolean;
  onClose: (steps: ClosingStep[]) => Promise<unknown>;
}) {
  const [steps, setSteps] = useState<ClosingStep[]>([]);
  const [said, setSaid] = useState("");
  const groups = hunt.stands?.groups ?? [];
  const choices = groups
    .flatMap((one) => one.rows.map((row) => ({ row, said: one.faults[0] ?? row })))
    .filter((one, place, all) => all.findIndex((other) => other.row === one.row) === place);
  const [row, setRow] = useState(choices[0]?.row ?? "");
  const add = (what: ClosingStep["what"]) => {
    setSteps([...steps, { what, row: what === "changed" ? row : "", said }]);
    setSaid("");
  };
  return (
    <section className="space-y-3 border-2 border-ink bg-sheet p-4" data-testid="closing">
      <h2 className="font-headline text-lg font-bold">{w.close}</h2>
      <p>{w.closeSays}</p>
      <ol className="list-decimal pl-6">
        {steps.map((one, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the order is what they are
          <li key={place}>
            {w[one.what]} {one.said}
          </li>
        ))}
      </ol>
      <Words label={w.what} value={said} onValueChange={setSaid} />
      <label className="ask block">
        {w.kindOf}
        <select
          className="control block max-w-full"
          value={row}
          onChange={(event) => setRow(event.target.value)}
        >
          {choices.map((one) => (
            <option key={one.row} value={one.row}>
              {one.said}
            </option>
          ))}
        </select>
      </label>
      <div className="flex flex-wrap gap-2">
        {KINDS.map((what) => (
          <button key={what} type="button" className="control" onClick={() => add(what)}>
            {w[what]}
          </button>
        ))}
        <button
          type="button"
          className="control"
          disabled={steps.length === 0}
          onClick={() => setSteps(steps.slice(0, -1))}
        >
          {w.drop}
        </button>
        <button
          type="button"
          className="control"
          data-primary="true"
          disabled={steps.length === 0 || isBusy}
          onClick={() => void onClose(steps)}
        >
          {w.closeNow}
        </button>
      </div>
    </section>
  );
}
