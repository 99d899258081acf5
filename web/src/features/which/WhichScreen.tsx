import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, told } from "../../api/client";
import { Choice } from "../../components/inputs";
import { PlantPage } from "../../components/PlantPage";
import { troubleWords as w } from "../../words/trouble";

/** Which circuit behaves like the one that is there? Ranked by what was seen, nothing tried. */
export function WhichScreen() {
  const { works = "" } = useParams();
  const [seen, setSeen] = useState<Record<string, string>>({});
  const query = useQuery({
    queryKey: ["which", seen],
    queryFn: ({ signal }) => told(api.POST("/api/trouble/which", { body: { seen }, signal })),
    placeholderData: (known) => known,
  });
  const found = query.data;
  const any = Object.keys(seen).length > 0;
  return (
    <PlantPage
      works={works}
      title={w.which}
      headline={any && found ? w.fits(found.count) : undefined}
    >
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="space-y-4" aria-label={w.which}>
          <p>{w.whichAsk}</p>
          {found?.operations.map((one) => (
            <div key={one.id}>
              <Choice
                label={w.ops[one.id] ?? one.id}
                value={seen[one.id] ?? ""}
                options={[
                  { value: "", label: w.notSeen },
                  ...one.answers.map((value) => ({
                    value,
                    label: w.opAnswers[value] ?? value,
                  })),
                ]}
                onValueChange={(value) =>
                  setSeen((known) => {
                    const { [one.id]: _, ...rest } = known;
                    return value ? { ...rest, [one.id]: value } : rest;
                  })
                }
              />
              {one.only_seen && <p className="text-sm text-caution">{w.onlySeen}</p>}
            </div>
          ))}
        </section>
        {any && found && (
          <section className="space-y-3" aria-live="polite" data-testid="alike">
            {found.why && <p className="border-2 border-ink bg-sheet p-3">{found.why}</p>}
            {found.propose && <p>{w.tryThis(w.ops[found.propose] ?? found.propose)}</p>}
            {!found.propose && found.refused.length > 0 && (
              <p className="text-caution">{w.deadOnly}</p>
            )}
            <ol className="space-y-1">
              {found.best.map((one) => (
                <li
                  key={`${one.circuit} ${one.option} ${one.fault}`}
                  className="grid grid-cols-[4rem_1fr_4rem] gap-2 border-t border-hair pt-1"
                >
                  <span className="font-mono font-bold">{one.circuit}</span>
                  <span>
                    {one.title}
                    {one.option && <span className="text-soft"> · {one.option}</span>}
                    {one.fault && <span className="text-caution"> · {one.fault}</span>}
                    {one.differs.length > 0 && (
                      <details>
                        <summary className="ask">{w.differs(one.differs.length)}</summary>
                        <ul className="list-disc pl-5 text-sm">
                          {one.differs.map((text) => (
                            <li key={text}>{text}</li>
                          ))}
                        </ul>
                      </details>
                    )}
                  </span>
                  <span className="text-right text-soft">{w.agrees(one.agrees, found.of)}</span>
                </li>
              ))}
            </ol>
          </section>
        )}
      </div>
    </PlantPage>
  );
}
