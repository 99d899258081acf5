import type { Schemas } from "../../api/client";
import { plateWords } from "../../words/plate";

type Finding = Schemas["FindingOut"];

const ORDER = { refusal: 0, doubt: 1, note: 2, agrees: 3 };
const SAID = {
  refusal: plateWords.stop,
  doubt: plateWords.doubt,
  note: plateWords.note,
  agrees: plateWords.agrees,
};

/** A sign drawn as a path: agreement, note or doubt. */
export function Sign({ level }: { level: Finding["level"] }) {
  const color =
    level === "agrees" ? "text-proven" : level === "note" ? "text-soft" : "text-caution";
  return (
    <svg viewBox="0 0 20 20" className={`mt-0.5 size-5 shrink-0 ${color}`} aria-hidden="true">
      {level === "agrees" && (
        <path d="M3 11l5 5L17 4" fill="none" stroke="currentColor" strokeWidth="3" />
      )}
      {level === "note" && <circle cx="10" cy="10" r="4" fill="currentColor" />}
      {(level === "doubt" || level === "refusal") && (
        <path
          d="M10 2L19 18H1ZM10 8v5M10 15v1.5"
          fill="none"
          stroke="currentColor"
          strokeWidth="2.4"
        />
      )}
    </svg>
  );
}

/** Cross-checks, doubts first; each says its reason and, if in doubt, what to do. */
export function Checks({ findings }: { findings: readonly Finding[] }) {
  const sorted = [...findings].sort((one, other) => ORDER[one.level] - ORDER[other.level]);
  return (
    <ul className="space-y-2" data-testid="checks">
      {sorted.map((found) => (
        <li
          key={`${found.code} ${found.text}`}
          data-level={found.level}
          className="flex gap-2 border-l-4 border-transparent pl-1 data-[level=doubt]:border-caution data-[level=doubt]:bg-caution-wash data-[level=doubt]:py-1.5"
        >
          <Sign level={found.level} />
          <span>
            <span className="sr-only">{SAID[found.level]}: </span>
            {found.text}
            {found.level !== "agrees" && found.hint && (
              <span className="block text-soft">{found.hint}</span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
