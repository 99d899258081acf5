import type { ReactNode } from "react";
import type { Worked } from "../../../api/client";
import { sizePartsWords } from "../../../words/sizeParts";
import { failsOf, figuresOf, type PartId, withheldOf } from "../parts/parts";

const MOST_SAID = 3;

/** What a section comes to, in one line: what fails, what waits, or its first values. */
function verdictOf(worked: Worked, part: PartId): string {
  const steps = new Map(worked.steps.map((step) => [step.id, step]));
  const figures = figuresOf(worked, part);
  const found = figures.flatMap((figure) => {
    const step = figure.step ? steps.get(figure.step) : undefined;
    return step ? [step] : [];
  });
  const failing = found.find((step) => step.verdict === "fails");
  if (failing) return `${failing.label}: ${failing.working}`;
  const withheld = figures.find((figure) => figure.refusal);
  if (withheld) return withheld.refusal?.detail ?? "";
  return found
    .slice(0, MOST_SAID)
    .map((step) => `${step.label} ${step.said}`)
    .join(" · ");
}

export interface FoldProps {
  part: PartId;
  name: string;
  worked: Worked;
  /** How many rows of it the last change moved. */
  moved: number;
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
  children: ReactNode;
}

/** A section of the ledger: its verdict stands in the fold, its rows below once it is open. */
export function Fold({ part, name, worked, moved, isOpen, onOpenChange, children }: FoldProps) {
  const fails = failsOf(worked, part);
  const withheld = part === "branch" ? 0 : withheldOf(worked, part);
  return (
    <section aria-label={name} className="scroll-mt-16 border-t-2 border-ink" id={`part-${part}`}>
      <h2>
        <button
          type="button"
          className="flex min-h-10 w-full flex-wrap items-baseline gap-x-3 py-1.5 text-left hover:bg-sunk in-data-[seat=panel]:min-h-14"
          aria-expanded={isOpen}
          data-testid={`part-${part}`}
          onClick={() => onOpenChange(!isOpen)}
        >
          <svg
            viewBox="0 0 12 12"
            className={`size-3 shrink-0 self-center text-plum ${isOpen ? "rotate-90" : ""}`}
            aria-hidden="true"
          >
            <path d="M3 1l6 5l-6 5" fill="none" stroke="currentColor" strokeWidth="2.4" />
          </svg>
          <span className="stamp">{name}</span>
          <span className="min-w-0 flex-1 truncate text-sm text-soft">
            {verdictOf(worked, part)}
          </span>
          {moved > 0 && !isOpen && (
            <b className="stamp text-plum">{sizePartsWords.movedRows(moved)}</b>
          )}
          {fails > 0 ? (
            <b className="stamp bg-live px-1 text-on-live">
              {sizePartsWords.failsFailsFail(fails)}
            </b>
          ) : (
            withheld > 0 && (
              <b className="stamp text-caution">{sizePartsWords.withheld(withheld)}</b>
            )
          )}
        </button>
      </h2>
      {isOpen && <div className="space-y-3 pb-4">{children}</div>}
    </section>
  );
}
