import { useGhost } from "../state/useGhost";
import { frameWords } from "../words/frame";

/** A figure, with the one before it struck through for four seconds after a change. */
export function Ghosted({ value, className = "" }: { value: string; className?: string }) {
  const ghost = useGhost(value);
  return (
    <span className={className}>
      {value}
      {ghost !== null && ghost !== "" && (
        <del className="ghost ml-2 text-[0.6em] font-normal text-soft" data-testid="ghost">
          <span className="sr-only">{frameWords.was} </span>
          {ghost}
        </del>
      )}
    </span>
  );
}
