import type { Schemas } from "../../api/client";
import { starterWords } from "../../words/starter";

export type Choice = Schemas["ChoiceOut"];

/** Line current and torque at the first moment, on one scale for all. */
export function Measures({ choice }: { choice: Choice }) {
  const rows = [
    ["line", choice.line_percent, choice.line_a ? `${choice.line_a} A` : ""],
    ["torque", choice.torque_percent, ""],
  ] as const;
  return (
    <dl className="grid grid-cols-[3.4rem_minmax(0,1fr)_7.4rem] items-center gap-x-2 text-sm">
      {rows.map(([name, percent, more]) => (
        <div key={name} className="contents">
          <dt className="text-soft">{name}</dt>
          <dd className="h-2.5 border border-edge" aria-hidden="true">
            <span
              className="block h-full bg-ink"
              style={{ width: `${Math.min(100, percent ?? 0)}%` }}
            />
          </dd>
          <dd className="font-mono">
            {percent === null ? "–" : `${percent.toFixed(0)} % ${more}`}
          </dd>
        </div>
      ))}
    </dl>
  );
}

const WORD: Record<string, string> = {
  can: starterWords.can,
  cannot: starterWords.cannot,
  doubt: starterWords.chooseFirst,
};
const TONE: Record<string, string> = {
  can: "text-proven",
  cannot: "text-live",
  doubt: "text-caution",
};

/** Whether it can, with the one reason; and what it does that nobody asks for. */
export function Verdict({ choice }: { choice: Choice }) {
  return (
    <span className="block text-sm">
      <b className={`stamp ${TONE[choice.verdict] ?? ""}`}>{WORD[choice.verdict]}</b>{" "}
      {choice.reason}
      {choice.leads.length > 0 && (
        <span className="text-soft">
          {" "}
          {starterWords.needsLeads(choice.leads.join(starterWords.or))}
        </span>
      )}
      {choice.hazards.map((hazard) => (
        <span key={hazard.code} className="block font-semibold text-caution">
          {hazard.label}
        </span>
      ))}
    </span>
  );
}
