import { useRef, useState } from "react";
import { Diagram, type Live } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { rehearseWords } from "../../words/rehearse";

const TABS = [
  ["ladder", rehearseWords.ladder],
  ["power", rehearseWords.power],
] as const;

/** Ladder and power diagram, live: side by side at the desk, one of them on a phone. */
export function LiveSheets({
  circuit,
  numbers,
  live,
  isNarrow,
}: {
  circuit: Circuit;
  numbers: Readonly<Record<string, string>>;
  live: Live | undefined;
  isNarrow: boolean;
}) {
  const [view, setView] = useState<"ladder" | "power">("ladder");
  const places = useRef(new Map<string, View>());
  const hasLadder = circuit.ladder.shapes.length > 0;
  if (!isNarrow) {
    const sheets = TABS.filter(([name]) => name === "power" || hasLadder);
    return (
      <div
        className={`grid gap-3 ${hasLadder ? "grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]" : ""}`}
      >
        {sheets.map(([name]) => (
          <div key={name} className="border-2 border-ink bg-sheet p-1">
            <Viewer
              picture={circuit[name]}
              label={name === "ladder" ? rehearseWords.liveLadder : rehearseWords.livePowerDiagram}
              name={name}
              places={places.current}
              numbers={numbers}
              live={live}
              className="h-[max(20rem,calc(100dvh-27rem))]"
            />
          </div>
        ))}
      </div>
    );
  }
  return (
    <div className="border-2 border-ink bg-sheet p-3">
      <div className="mb-2 flex gap-2" role="group" aria-label={rehearseWords.views}>
        {TABS.map(([name, label]) => (
          <button
            key={name}
            type="button"
            className="control"
            aria-pressed={view === name}
            onClick={() => setView(name)}
          >
            {label}
          </button>
        ))}
      </div>
      <Diagram
        picture={view === "ladder" && hasLadder ? circuit.ladder : circuit.power}
        label={view === "ladder" ? rehearseWords.liveLadder : rehearseWords.livePowerDiagram}
        numbers={numbers}
        live={live}
        leastWidth={820}
      />
    </div>
  );
}
