import { useEffect, useRef, useState } from "react";
import { CellTable } from "../../components/CellTable";
import { Words } from "../../components/inputs";
import { practiceWords as w } from "../../words/practice";
import type { Drill, Verdict } from "./usePractice";

export interface QuestionProps {
  drill: Drill;
  verdict: Verdict | null;
  /** The table or section is named before the figure. */
  isBook: boolean;
  place: string;
  onAnswer: (given: string, section: string) => void;
  onNext: () => void;
}

/** A question with its facts, some of them not needed; then the way to its answer. */
export function Question({ drill, verdict, isBook, place, onAnswer, onNext }: QuestionProps) {
  const [typed, setTyped] = useState("");
  const [parts, setParts] = useState<readonly string[]>(() => drill.parts.map(() => ""));
  const [section, setSection] = useState("");
  const asked = useRef(Date.now());
  const [spent, setSpent] = useState(0);
  useEffect(() => {
    if (verdict) setSpent(Math.round((Date.now() - asked.current) / 6000) / 10);
  }, [verdict]);
  const isWhole = drill.parts.length > 0;
  const given = isWhole ? parts.map((one) => one.trim()).join("; ") : typed.trim();
  const isFilled = isWhole ? parts.some((one) => one.trim()) : typed.trim() !== "";
  const mayAnswer = isFilled && (!isBook || section.trim() !== "" || !drill.unit);
  return (
    <section className="space-y-3 border-2 border-ink bg-sheet p-4" data-testid="question">
      {place && <p className="text-soft">{place}</p>}
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {drill.facts.map((one) => (
          <div key={one.label} className="contents">
            <dt className="text-soft">{one.label}</dt>
            <dd className="font-semibold">{one.value}</dd>
          </div>
        ))}
      </dl>
      {!verdict && drill.choices.length > 0 && (
        <div className="flex flex-wrap gap-2" role="group" aria-label={drill.asked}>
          {drill.choices.map((one) => (
            <button key={one} type="button" className="control" onClick={() => onAnswer(one, "")}>
              {one}
            </button>
          ))}
        </div>
      )}
      {!verdict && drill.choices.length === 0 && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (mayAnswer) onAnswer(given, isBook ? section.trim() : "");
          }}
        >
          {isBook && <Words label={w.section} value={section} onValueChange={setSection} />}
          {isWhole ? (
            drill.parts.map((part, at) => (
              <Words
                key={part.asked}
                className="w-48"
                label={part.asked}
                unit={part.unit}
                isNumber={part.unit !== ""}
                value={parts[at] ?? ""}
                onValueChange={(value) =>
                  setParts(parts.map((one, place) => (place === at ? value : one)))
                }
              />
            ))
          ) : (
            <Words
              label={w.yourAnswer}
              unit={drill.unit}
              isNumber
              value={typed}
              onValueChange={setTyped}
            />
          )}
          <button type="submit" className="control" data-primary="true" disabled={!mayAnswer}>
            {w.answer}
          </button>
        </form>
      )}
      {verdict && (
        <div className="space-y-3" aria-live="polite" data-testid="verdict">
          <p className="font-headline text-2xl font-bold">
            {verdict.is_right ? w.right : w.wrong}
            {!isWhole && ` ${w.isRight(verdict.right, verdict.unit)}.`}
          </p>
          {isWhole && (
            <table className="w-full" data-testid="parts">
              <thead>
                <tr>
                  {[w.part, w.given, w.rightOne].map((one) => (
                    <th key={one} scope="col" className="text-left font-normal text-soft">
                      {one}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {verdict.parts.map((one) => (
                  <tr key={one.asked} className="border-t border-hair align-top">
                    <th scope="row" className="py-1 pr-3 text-left font-normal">
                      {one.asked}
                      {one.said && <p className="text-caution">{one.said}</p>}
                    </th>
                    <td className={`pr-3 font-mono ${one.is_right ? "" : "text-live"}`}>
                      {one.given || "–"}
                    </td>
                    <td className="font-mono font-semibold">
                      {one.right} {one.unit}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {verdict.is_section_right !== null && (
            <p>{verdict.is_section_right ? w.sectionRight : w.sectionWrong}</p>
          )}
          {verdict.said && !isWhole && <p className="font-semibold text-caution">{verdict.said}</p>}
          <h2 className="font-headline text-lg font-bold">{w.path}</h2>
          <ul className="list-disc pl-6">
            {verdict.path.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          <h2 className="font-headline text-lg font-bold">{w.working}</h2>
          <ol className="list-decimal pl-6 font-mono">
            {verdict.working.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ol>
          {verdict.steps.some((one) => one.cell) && (
            <details data-testid="evidence">
              <summary className="ask">{w.evidence}</summary>
              <div className="space-y-4">
                {verdict.steps
                  .filter((one) => one.cell)
                  .map((one, place) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: three motors have one step each
                    <div key={place}>
                      <p>
                        {one.label}: <b className="font-mono">{one.said}</b>
                      </p>
                      <CellTable step={one} />
                    </div>
                  ))}
              </div>
            </details>
          )}
          {verdict.surplus.length > 0 && (
            <p className="text-soft">{w.surplus(verdict.surplus.join(", "))}</p>
          )}
          {verdict.slips.length > 0 && (
            <details>
              <summary className="ask">{w.routes}</summary>
              <ul>
                {verdict.slips.map((one) => (
                  <li key={one.value}>
                    <span className="font-mono font-semibold">
                      {one.value} {verdict.unit}
                    </span>{" "}
                    {one.said}
                  </li>
                ))}
              </ul>
            </details>
          )}
          <p className="text-soft">
            {w.minutes(spent)} · {w.dueAgain(verdict.due)}
          </p>
          <button type="button" className="control" data-primary="true" onClick={onNext}>
            {w.next}
          </button>
        </div>
      )}
    </section>
  );
}
