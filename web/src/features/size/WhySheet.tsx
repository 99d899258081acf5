import type { Step, Worked } from "../../api/client";
import { CellTable } from "../../components/CellTable";
import { words } from "../../words/common";
import { sizeWords } from "../../words/size";

export interface WhySheetProps {
  worked: Worked;
  step: Step;
  /** Go on to another step that this one stands on. */
  onStepChange: (id: string) => void;
}

/** Why this number: answer, sum, where from, what would tip it over, how it stands. */
export function WhySheet({ worked, step, onStepChange }: WhySheetProps) {
  const uses = step.uses
    .map((id) => worked.steps.find((other) => other.id === id))
    .filter((other) => other !== undefined);
  const inputs = allInputs(worked, step);
  const assumed = inputs.filter((other) => other.kind === "assumed").length;
  return (
    <div className="space-y-3" data-testid="why">
      <p className="font-mono text-3xl font-semibold">{step.said}</p>
      <section>
        <h3 className="stamp text-soft">{sizeWords.calculation}</h3>
        <p className="font-mono">{step.working}</p>
      </section>
      {(uses.length > 0 || step.cell) && (
        <section className="space-y-2">
          <h3 className="stamp text-soft">{sizeWords.from}</h3>
          <ul className="space-y-1">
            {uses.map((other) => (
              <li key={other.id} className="flex items-baseline justify-between gap-3">
                <button
                  type="button"
                  className="ask min-h-7 text-left"
                  onClick={() => onStepChange(other.id)}
                >
                  {other.label}
                </button>
                <span className="text-right">
                  <span className="font-mono font-semibold">{other.said}</span>{" "}
                  <span className="text-sm text-soft">
                    {other.kind === "calculated" ? other.rule?.section : words.kinds[other.kind]}
                  </span>
                </span>
              </li>
            ))}
          </ul>
          <CellTable step={step} />
        </section>
      )}
      {step.tips.length > 0 && (
        <section>
          <h3 className="stamp text-soft">{sizeWords.whatWouldChange}</h3>
          <ul className="list-disc pl-5">
            {step.tips.map((tip) => (
              <li key={tip}>{tip}</li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h3 className="stamp text-soft">{sizeWords.basis}</h3>
        {step.marks.length > 0 && (
          <ul className="space-y-1">
            {step.marks.map((mark) => (
              <li
                key={`${mark.origin} ${mark.text}`}
                className="border-l-4 border-dashed border-caution pl-2"
              >
                <b className="stamp text-caution">{words.marks[mark.kind]}</b> {mark.text}
              </li>
            ))}
          </ul>
        )}
        <p>
          {step.rule
            ? `${step.rule.standard} ${step.rule.edition}, ${step.rule.section}. `
            : step.kind === "read"
              ? sizeWords.enteredNoRule
              : sizeWords.noRuleGuess}
          {sizeWords.basedEntered(inputs.length)}{" "}
          {inputs.length === 1 ? sizeWords.figure : sizeWords.figures}
          {sizeWords.assumed2(assumed)}
        </p>
        <p className="text-sm text-soft">{sizeWords.ourOwnWords}</p>
      </section>
    </div>
  );
}

/** All inputs, read or assumed, that a step stands on in the end. */
function allInputs(worked: Worked, step: Step): Step[] {
  const byId = new Map(worked.steps.map((other) => [other.id, other]));
  const seen = new Set<string>();
  const walk = (id: string) => {
    if (seen.has(id)) return;
    seen.add(id);
    for (const used of byId.get(id)?.uses ?? []) walk(used);
  };
  walk(step.id);
  return [...seen]
    .map((id) => byId.get(id))
    .filter((other): other is Step => other !== undefined && other.kind !== "calculated");
}
