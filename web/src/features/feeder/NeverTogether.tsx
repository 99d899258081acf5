import { useState } from "react";
import { feederWords } from "../../words/feeder";
import type { FeederAnswer, FeederGiven } from "./useFeeder";

/** Motors of which only one can run at a time: the largest combination counts. */
export function NeverTogether({
  asked,
  found,
  onAskedChange,
}: {
  asked: FeederGiven;
  found: FeederAnswer;
  onAskedChange: (change: Partial<FeederGiven>) => void;
}) {
  const groups = asked.interlocked ?? [];
  const group = groups[0] ?? [];
  const [picked, setPicked] = useState<readonly string[]>(group);
  const toggle = (tag: string) => {
    const next = picked.includes(tag) ? picked.filter((one) => one !== tag) : [...picked, tag];
    setPicked(next);
    onAskedChange({ interlocked: next.length > 1 ? [next] : [] });
  };
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="stamp mb-1 text-soft">{feederWords.interlockedNeverRun}</legend>
      {found.motors
        .filter((motor) => !motor.refusal)
        .map((motor) => (
          <button
            key={motor.tag}
            type="button"
            className="control"
            aria-pressed={picked.includes(motor.tag)}
            onClick={() => toggle(motor.tag)}
          >
            {motor.tag}
          </button>
        ))}
      {picked.length === 1 && <span className="text-soft">{feederWords.whichOtherMotor}</span>}
    </fieldset>
  );
}
