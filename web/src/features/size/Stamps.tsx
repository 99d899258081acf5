import type { Step } from "../../api/client";
import { words } from "../../words/common";
import { sizeWords } from "../../words/size";

const MARKS = ["assumed", "doubted", "check_the_book"] as const;

/** Whether a comparison holds; nothing for a figure that compares nothing. */
export function Verdict({ step }: { step: Step }) {
  if (step.verdict === "fails") {
    return <b className="stamp bg-live px-1.5 py-0.5 text-on-live">{sizeWords.doesNotHold}</b>;
  }
  return step.verdict === "holds" ? <b className="stamp text-proven">{sizeWords.holds}</b> : null;
}

/** What a figure stands on that is not sure, each once. */
export function Marks({ step }: { step: Step }) {
  const kinds = new Set(step.marks.map((mark) => mark.kind));
  return MARKS.map(
    (mark) =>
      kinds.has(mark) && (
        <b key={mark} className="stamp text-caution">
          {words.marks[mark]}
        </b>
      ),
  );
}
