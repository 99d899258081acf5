import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { Choice } from "../../components/inputs";
import { troubleWords as w } from "../../words/trouble";
import type { Symptom } from "./useHunt";

export interface BeginProps {
  symptoms: readonly Symptom[];
  /** Of the motor, in all its jobs. */
  hunts: readonly Schemas["HuntLineOut"][];
  /** Address of the motor, and the number of this job. */
  motor: string;
  job: number;
  isBusy: boolean;
  onBegin: (given: Schemas["HuntBeginIn"]) => Promise<void>;
  onOpen: (n: number) => void;
}

/** The symptom in the trade's words, how old the panel is, and whether someone worked on it. */
export function Begin({ symptoms, hunts, motor, job, isBusy, onBegin, onOpen }: BeginProps) {
  const [symptom, setSymptom] = useState("");
  const [age, setAge] = useState<"y0" | "y1" | "y2">("y1");
  const [afterWork, setAfterWork] = useState("no");
  const chosen = symptoms.find((one) => one.id === symptom);
  return (
    <div className="space-y-4">
      <div className="flex flex-wrap gap-2" role="group" aria-label={w.ask}>
        {symptoms.map((one) => (
          <button
            key={one.id}
            type="button"
            className="control"
            aria-pressed={one.id === symptom}
            title={one.wording}
            onClick={() => setSymptom(one.id)}
          >
            {one.name}
          </button>
        ))}
      </div>
      {chosen && (
        <section className="metal space-y-3 p-4" data-testid="chosen">
          <p className="font-headline text-xl font-bold">{w.wordOf(chosen.wording)}</p>
          <div className="flex flex-wrap gap-4">
            <Choice
              label={w.age}
              value={age}
              options={(["y0", "y1", "y2"] as const).map((one) => ({
                value: one,
                label: w.ages[one] ?? one,
              }))}
              onValueChange={(value) => setAge(value as typeof age)}
            />
            <Choice
              label={w.afterWork}
              value={afterWork}
              options={[
                { value: "no", label: w.no },
                { value: "yes", label: w.yes },
              ]}
              onValueChange={setAfterWork}
            />
          </div>
          <button
            type="button"
            className="control"
            data-primary="true"
            disabled={isBusy}
            onClick={() =>
              void onBegin({ symptom: chosen.id, age, after_work: afterWork === "yes" })
            }
          >
            {w.begin}
          </button>
          {isBusy && <p role="status">{w.playing}</p>}
          <details>
            <summary className="ask">{w.general}</summary>
            <dl className="space-y-2 pt-2">
              {(
                [
                  [w.causes, chosen.causes.join(" · ")],
                  [w.firstAsk, chosen.first_question],
                  [w.firstDead, chosen.first_dead],
                  [w.firstLive, chosen.first_live],
                ] as const
              ).map(([name, said]) => (
                <div key={name}>
                  <dt className="text-sm text-soft">{name}</dt>
                  <dd>{said}</dd>
                </div>
              ))}
            </dl>
          </details>
        </section>
      )}
      {hunts.length > 0 && (
        <section aria-label={w.before}>
          <h2 className="font-headline text-lg font-bold">{w.before}</h2>
          <ul className="space-y-1">
            {hunts.map((one) => (
              <li key={`${one.job} ${one.n}`}>
                {one.job === job ? (
                  <button type="button" className="ask" onClick={() => onOpen(one.n)}>
                    {one.symptom}
                  </button>
                ) : (
                  <Link className="ask" to={`${motor}/j/${one.job}/trouble?hunt=${one.n}`}>
                    {one.symptom}
                  </Link>
                )}{" "}
                <span className="text-soft">
                  {one.job !== job && `${w.ofJob(one.job)} · `}
                  {one.cause && `${one.cause} · `}
                  {one.by} · {one.at} · {one.is_closed ? one.said : w.open}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
