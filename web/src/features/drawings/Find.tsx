import { useId, useState } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";
import { type Match, matchesOf } from "./matches";

export const FIND = "find-in-drawing";

/** A wire number, a terminal or a tag, typed: what is there, to be lit in every view. */
export function Find({ circuit, onPick }: { circuit: Circuit; onPick: (match: Match) => void }) {
  const [text, setText] = useState("");
  const listId = useId();
  const found = matchesOf(circuit, text);
  return (
    <search className="space-y-1">
      <label htmlFor={FIND} className="sr-only">
        {drawingsWords.find}
      </label>
      <input
        id={FIND}
        type="search"
        className="field"
        placeholder={drawingsWords.findShort}
        autoComplete="off"
        value={text}
        aria-controls={listId}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && found[0]) onPick(found[0]);
        }}
      />
      <ul id={listId} aria-label={drawingsWords.found} className="space-y-0.5">
        {found.map((match) => (
          <li key={match.kind === "wire" ? `wire ${match.net}` : `device ${match.device}`}>
            <button
              type="button"
              className="w-full px-2 py-1 text-left hover:bg-sunk in-data-[seat=panel]:min-h-14"
              onClick={() => onPick(match)}
            >
              <b className="font-mono">
                {match.kind === "wire" ? drawingsWords.wireNumber(match.label) : match.label}
              </b>{" "}
              <span className="text-sm text-soft">{match.ends}</span>
            </button>
          </li>
        ))}
      </ul>
      <p role="status" className="text-sm text-soft">
        {text.trim() && found.length === 0 ? drawingsWords.notFound(text.trim()) : ""}
      </p>
    </search>
  );
}
