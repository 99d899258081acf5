import type { ReactNode } from "react";
import type { Problem } from "../api/client";
import { frameWords } from "../words/frame";

/** The first line of a screen: one sentence, read at arm's length. */
export function Shout({ children, id }: { children: ReactNode; id?: string }) {
  return (
    <h1 id={id ?? "headline"} className="headline text-balance" tabIndex={-1}>
      {children}
    </h1>
  );
}

export interface PlateProps {
  children: ReactNode;
  /** Nobody read it: dashed, with the word ASSUMED. */
  isGuess?: boolean;
  className?: string;
}

/** Read off the world: a stamped plate with four rivets. A guess is the same, dashed. */
export function Plate({ children, isGuess = false, className = "" }: PlateProps) {
  return (
    <div className={`metal px-4 py-3 ${className}`} data-guess={isGuess}>
      {isGuess && (
        <span className="stamp absolute top-1 right-4 text-caution">{frameWords.assumed}</span>
      )}
      {children}
    </div>
  );
}

/** The notched lower edge that makes a slip a slip. */
export function Notches() {
  return (
    <svg
      aria-hidden="true"
      className="absolute inset-x-0 -bottom-[7px] h-[8px] w-full text-ink"
      preserveAspectRatio="none"
    >
      <defs>
        <pattern id="notch" width="12" height="8" patternUnits="userSpaceOnUse">
          <path d="M0 0L6 6L12 0" fill="var(--sheet)" stroke="none" />
          <path d="M0 0L6 6L12 0" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </pattern>
      </defs>
      <rect width="100%" height="8" fill="url(#notch)" />
    </svg>
  );
}

export interface StopProps {
  /** `hold`: a fact is missing. `stop`: someone could be hurt. */
  strength?: "hold" | "stop";
  title: string;
  children?: ReactNode;
}

/** A refusal: what is wrong, why, and what to do; eight sides, hatched on the left. */
export function Stop({ strength = "stop", title, children }: StopProps) {
  return (
    <div className="stop" data-strength={strength} role="alert">
      <div>
        <p
          className={`font-headline text-xl leading-tight font-bold ${strength === "hold" ? "text-caution" : "text-live"}`}
        >
          <span className="sr-only">
            {strength === "hold" ? frameWords.blocked : frameWords.stop}
          </span>
          {title}
        </p>
        {children && <div className="mt-1 space-y-2">{children}</div>}
      </div>
    </div>
  );
}

/** A refusal in the one problem shape. A lost line is a hold, not a stop. */
export function ProblemSlab({ problem, children }: { problem: Problem; children?: ReactNode }) {
  const isHold = ["missing", "no_line", "conflict", "not_in_table", "not_allowed"].includes(
    problem.code,
  );
  return (
    <Stop strength={isHold ? "hold" : "stop"} title={problem.detail}>
      <p>{problem.hint}</p>
      {children}
    </Stop>
  );
}

/** Ask the server again for what it did not answer. */
export function AskAgain({ query }: { query: { refetch: () => unknown } }) {
  return (
    <button type="button" className="control" onClick={() => void query.refetch()}>
      {frameWords.tryAgain}
    </button>
  );
}

/** A person's act: who and when, on a tag with a hole. */
export function Tag({ who, when, source }: { who: string; when: string; source?: string }) {
  return (
    <span className="inline-flex items-center gap-2 border-2 border-signed bg-sheet py-0.5 pr-3 pl-2 text-sm [clip-path:polygon(0_0,calc(100%-9px)_0,100%_9px,100%_100%,0_100%)]">
      <span aria-hidden="true" className="size-2.5 rounded-full border-2 border-signed" />
      <span className="font-semibold">{who}</span>
      <span className="font-mono text-soft">{when}</span>
      {source && <span className="text-caution">{source}</span>}
    </span>
  );
}
