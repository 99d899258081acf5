import { useId } from "react";
import { SAMPLE_PLATE } from "../../words/common";
import { plateWords } from "../../words/plate";
import type { Run } from "./tokens";

const LIT = {
  understood: "bg-proven/12 shadow-[inset_0_-2px_0_var(--proven)]",
  doubted: "bg-caution-wash shadow-[inset_0_-3px_0_var(--caution)]",
  unread:
    "bg-[repeating-linear-gradient(-45deg,transparent_0_4px,var(--hair)_4px_6px)] shadow-[inset_0_-1px_0_var(--soft)]",
};

export interface PlateTextProps {
  text: string;
  runs: readonly Run[];
  /** Ids of elements that tell about the text. */
  describedBy: string;
  onTextChange: (text: string) => void;
  onRest: () => void;
}

/**
 * One stamped plate, typed or pasted as one text; each piece lights as it is read.
 * The lit text lies under the writing and sets the height of both.
 */
export function PlateText({ text, runs, describedBy, onTextChange, onRest }: PlateTextProps) {
  const id = useId();
  const shape =
    "px-6 py-5 font-mono text-[1.35rem] leading-[2.15rem] font-semibold whitespace-pre-wrap break-words";
  return (
    <div className="metal" data-testid="plate">
      <label htmlFor={id} className="stamp absolute -top-3 left-5 bg-ground px-2">
        {plateWords.nameplateStamped}
      </label>
      <div className="relative">
        <div aria-hidden="true" className={`${shape} min-h-36 text-transparent`}>
          {runs.map((run, place) =>
            run.token ? (
              <mark
                // biome-ignore lint/suspicious/noArrayIndexKey: runs have no other name
                key={place}
                data-status={run.token.status}
                data-field={run.token.field}
                className={`rounded-metal text-transparent ${LIT[run.token.status]}`}
              >
                {run.text}
              </mark>
            ) : (
              // biome-ignore lint/suspicious/noArrayIndexKey: runs have no other name
              <span key={place}>{run.text}</span>
            ),
          )}
          {text === "" ? SAMPLE_PLATE : "\u200b"}
        </div>
        <textarea
          id={id}
          className={`${shape} absolute inset-0 block size-full resize-none overflow-hidden border-0 bg-transparent text-ink placeholder:font-normal placeholder:text-soft`}
          value={text}
          placeholder={SAMPLE_PLATE}
          spellCheck={false}
          autoCapitalize="characters"
          autoComplete="off"
          autoCorrect="off"
          aria-describedby={describedBy}
          onChange={(event) => onTextChange(event.target.value)}
          onBlur={onRest}
        />
      </div>
    </div>
  );
}

/** What the three kinds of light mean, in words. */
export function Legend({ id }: { id: string }) {
  const kinds = [
    ["understood", "understood"],
    ["doubted", plateWords.doubtSeeCross],
    ["unread", plateWords.notRead],
  ] as const;
  return (
    <p id={id} className="flex flex-wrap gap-x-5 gap-y-1 text-sm text-soft">
      {kinds.map(([kind, said]) => (
        <span key={kind} className="inline-flex items-center gap-2">
          <span aria-hidden="true" className={`inline-block h-4 w-8 ${LIT[kind]}`} />
          {said}
        </span>
      ))}
    </p>
  );
}
