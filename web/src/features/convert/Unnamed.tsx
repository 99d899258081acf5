import type { Schemas } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { withoutRow, withRow } from "../../state/rows";
import { convertWords } from "../../words/convert";

type UnnamedMotor = Schemas["UnnamedMotor"];

/** Starters whose tags are gone: what was read on them, and which motor that is. */
export function Unnamed({
  unnamed,
  answers,
  onUnnamedChange,
}: {
  unnamed: readonly UnnamedMotor[];
  answers: readonly Schemas["NamedMotorOut"][];
  onUnnamedChange: (unnamed: UnnamedMotor[]) => void;
}) {
  const change = (at: number, next: Partial<UnnamedMotor>) =>
    onUnnamedChange(withRow(unnamed, at, next));
  return (
    <section aria-labelledby="unnamed" className="space-y-3">
      <h2 id="unnamed" className="stamp">
        {convertWords.tagsGone}
      </h2>
      {unnamed.map((item, at) => {
        const answer = answers[at];
        return (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: rows are edited in place
            key={at}
            className="metal flex flex-wrap items-end gap-3 px-5 py-3"
            data-testid="unnamed"
          >
            <Words
              label={convertWords.starter}
              value={item.label}
              onValueChange={(label) => label && change(at, { label })}
              className="w-28"
            />
            <Reading
              label={convertWords.runningAmps}
              unit="A"
              value={item.running_a}
              onValueChange={(running_a) => change(at, { running_a })}
            />
            <Reading
              label={convertWords.heatersTripAt}
              unit="A"
              value={item.heater_trip_a}
              onValueChange={(heater_trip_a) => change(at, { heater_trip_a })}
            />
            <p className="min-w-60 flex-1" data-tag={answer?.tag}>
              {answer?.tag && <b className="mr-2 font-headline text-2xl">{answer.tag}</b>}
              {answer?.text}
            </p>
            <button
              type="button"
              className="ask"
              onClick={() => onUnnamedChange(withoutRow(unnamed, at))}
            >
              {convertWords.remove}
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="control"
        onClick={() =>
          onUnnamedChange([...unnamed, { label: convertWords.starterN(unnamed.length + 1) }])
        }
      >
        {convertWords.addStarter}
      </button>
    </section>
  );
}
