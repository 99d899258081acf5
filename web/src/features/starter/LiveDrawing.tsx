import { useRef, useState } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { starterWords } from "../../words/starter";

/** The circuit as its options draw it now: what an option changes is seen at once. */
export function LiveDrawing({ circuit }: { circuit: Circuit }) {
  const [wanted, setSheet] = useState<"ladder" | "power">("ladder");
  const places = useRef(new Map<string, View>());
  const sheet = circuit.ladder.shapes.length === 0 ? "power" : wanted;
  const tabs = [
    ["ladder", starterWords.showLadder],
    ["power", starterWords.showPower],
  ] as const;
  return (
    <section
      aria-label={starterWords.asDrawnNow}
      className="border-2 border-ink bg-sheet p-2"
      data-testid="live-drawing"
    >
      <div className="mb-1 flex gap-2">
        {tabs.map(([name, label]) => (
          <button
            key={name}
            type="button"
            className="ask aria-pressed:no-underline"
            aria-pressed={sheet === name}
            onClick={() => setSheet(name)}
          >
            {label}
          </button>
        ))}
      </div>
      <Viewer
        picture={circuit[sheet]}
        label={starterWords.asDrawnNow}
        name={sheet}
        places={places.current}
        className="h-72"
      />
    </section>
  );
}
