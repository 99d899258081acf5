import { useRef, useState } from "react";
import { Diagram, type Live } from "../../diagram/Diagram";
import type { Circuit } from "../../diagram/useCircuit";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { rehearseWords } from "../../words/rehearse";
import { LiveProgram } from "./LiveProgram";
import type { Shown } from "./programs";

const TABS = [
  ["ladder", rehearseWords.ladder],
  ["power", rehearseWords.power],
] as const;

/** Ladder and power diagram, live: side by side at the desk, one of them on a phone; a program too. */
export function LiveSheets({
  circuit,
  numbers,
  live,
  isNarrow,
  shownBy,
}: {
  circuit: Circuit;
  numbers: Readonly<Record<string, string>>;
  live: Live | undefined;
  isNarrow: boolean;
  shownBy: (relay: string) => Shown;
}) {
  const [view, setView] = useState<"ladder" | "power" | "program">("ladder");
  const places = useRef(new Map<string, View>());
  const hasLadder = circuit.ladder.shapes.length > 0;
  const programs = circuit.relays.map((relay) => (
    <LiveProgram
      key={relay.id}
      relay={relay}
      shown={shownBy(relay.id)}
      word={live?.words[relay.id] ?? ""}
    />
  ));
  if (!isNarrow && programs.length > 0) {
    // the ladder stays: what the program does is seen beside the circuit that it works on
    return (
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-3">
        <div className="border-2 border-ink bg-sheet p-1">
          <Viewer
            picture={circuit.ladder}
            label={rehearseWords.liveLadder}
            name="ladder"
            places={places.current}
            numbers={numbers}
            live={live}
            className="h-[max(20rem,calc(100dvh-27rem))]"
          />
        </div>
        <div className="h-[max(20rem,calc(100dvh-27rem))] overflow-y-auto border-2 border-ink bg-ground p-2">
          {programs}
        </div>
      </div>
    );
  }
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
        {(programs.length > 0
          ? ([...TABS, ["program", rehearseWords.program]] as const)
          : TABS
        ).map(([name, label]) => (
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
      {view === "program" ? (
        programs
      ) : (
        <Diagram
          picture={view === "ladder" && hasLadder ? circuit.ladder : circuit.power}
          label={view === "ladder" ? rehearseWords.liveLadder : rehearseWords.livePowerDiagram}
          numbers={numbers}
          live={live}
          leastWidth={820}
        />
      )}
    </div>
  );
}
