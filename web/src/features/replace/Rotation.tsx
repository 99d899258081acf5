import { Choice } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { replaceWords } from "../../words/replace";

type Record = Given["replace"];

const TURNS = [
  { value: "clockwise", label: replaceWords.clockwise },
  { value: "counter-clockwise", label: replaceWords.counterClockwise },
  { value: "unknown", label: replaceWords.notSeen },
] as const;
const SIDES = [
  { value: "shaft", label: replaceWords.shaftEnd },
  { value: "fan", label: replaceWords.fanEnd },
] as const;
/** Which way the old motor turned and the new one turns, and seen from where. */
export function Rotation({
  record,
  onRecordChange: set,
}: {
  record: Record;
  onRecordChange: (change: Partial<Record>) => void;
}) {
  return (
    <section aria-labelledby="turned" className="space-y-2">
      <h2 id="turned" className="stamp">
        {replaceWords.rotation}
      </h2>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <Choice
          label={replaceWords.oldMotor}
          options={TURNS}
          value={record.rotation ?? "unknown"}
          onValueChange={(rotation) => set({ rotation })}
        />
        <Choice
          label={replaceWords.seenFrom}
          options={SIDES}
          value={record.seen_from as "shaft" | "fan" | null}
          onValueChange={(seen_from) => set({ seen_from })}
        />
      </div>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <Choice
          label={replaceWords.newMotor}
          options={TURNS}
          value={record.rotation_after ?? "unknown"}
          onValueChange={(rotation_after) => set({ rotation_after })}
        />
        <Choice
          label={replaceWords.seenFrom}
          options={SIDES}
          value={record.seen_from_after as "shaft" | "fan" | null}
          onValueChange={(seen_from_after) => set({ seen_from_after })}
        />
      </div>
    </section>
  );
}
