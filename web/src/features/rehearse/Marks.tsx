import { rehearseWords } from "../../words/rehearse";
import { clock } from "./TimeControls";

/** Moments that were kept: one tap goes back to them. */
export function Marks({
  marks,
  said,
  onSeek,
  onRemove,
  onShare,
}: {
  marks: readonly { at: number; said: string }[];
  /** What came of sharing. */
  said: string;
  onSeek: (at: number) => void;
  onRemove: (at: number) => void;
  onShare: () => void;
}) {
  return (
    <section aria-label={rehearseWords.marks} className="space-y-1" data-testid="marks">
      {marks.length === 0 && <p className="text-sm text-soft">{rehearseWords.noMarks}</p>}
      <ul className="space-y-1">
        {marks.map((mark) => (
          <li key={mark.at} className="flex items-baseline gap-2">
            <button type="button" className="ask font-mono" onClick={() => onSeek(mark.at)}>
              {clock(mark.at)}
            </button>
            <span className="min-w-0 flex-1 text-sm">{mark.said}</span>
            <button
              type="button"
              className="ask"
              aria-label={rehearseWords.unmark(clock(mark.at))}
              onClick={() => onRemove(mark.at)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="ask" onClick={onShare}>
        {rehearseWords.share}
      </button>
      <p role="status" className="text-sm text-soft">
        {said}
      </p>
    </section>
  );
}
