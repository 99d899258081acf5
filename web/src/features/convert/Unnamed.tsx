import type { Schemas } from "../../api/client";
import { Reading, Words } from "../../components/inputs";
import { RowList } from "../../components/RowList";
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
  return (
    <section aria-labelledby="unnamed" className="space-y-3">
      <h2 id="unnamed" className="stamp">
        {convertWords.tagsGone}
      </h2>
      <RowList
        rows={unnamed}
        onRowsChange={onUnnamedChange}
        add={convertWords.addStarter}
        remove={convertWords.remove}
        testIdOf={() => "unnamed"}
        newRow={(): UnnamedMotor => ({ label: convertWords.starterN(unnamed.length + 1) })}
      >
        {(item, change, at) => {
          const answer = answers[at];
          return (
            <>
              <Words
                label={convertWords.starter}
                value={item.label}
                onValueChange={(label) => label && change({ label })}
                className="w-28"
              />
              <Reading
                label={convertWords.runningAmps}
                unit="A"
                value={item.running_a}
                onValueChange={(running_a) => change({ running_a })}
              />
              <Reading
                label={convertWords.heatersTripAt}
                unit="A"
                value={item.heater_trip_a}
                onValueChange={(heater_trip_a) => change({ heater_trip_a })}
              />
              <p className="min-w-60 flex-1" data-tag={answer?.tag}>
                {answer?.tag && <b className="mr-2 font-headline text-2xl">{answer.tag}</b>}
                {answer?.text}
              </p>
            </>
          );
        }}
      </RowList>
    </section>
  );
}
