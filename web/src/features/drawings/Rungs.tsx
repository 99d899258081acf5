import { useState } from "react";
import { Diagram, type Picture } from "../../diagram/Diagram";
import { drawingsWords } from "../../words/drawings";

/** A narrow screen reads one rung at a time, downwards, at full size. */
export function Rungs({
  rungs,
  numbers,
  picked,
  lit,
  onPick,
}: {
  rungs: readonly Picture[];
  numbers: Readonly<Record<string, string>>;
  picked: string | null;
  lit: ReadonlySet<string> | undefined;
  onPick: (net: string | null) => void;
}) {
  const [at, setAt] = useState(0);
  const place = Math.min(at, rungs.length - 1);
  const rung = rungs[place];
  if (!rung) return null;
  const move = (by: number) => setAt((place + by + rungs.length) % rungs.length);
  return (
    <div className="space-y-3" data-testid="rung">
      <p className="stamp" aria-live="polite">
        {drawingsWords.rung(place + 1, rungs.length)}
      </p>
      <Diagram
        picture={rung}
        label={drawingsWords.rung2(place + 1)}
        numbers={numbers}
        picked={picked}
        lit={lit}
        onPick={onPick}
      />
      <p className="sr-only">{rung.twin[0]}</p>
      <div className="grid grid-cols-2 gap-3">
        <button type="button" className="control" onClick={() => move(-1)}>
          {drawingsWords.rungBefore}
        </button>
        <button type="button" className="control" onClick={() => move(1)}>
          {drawingsWords.nextRung}
        </button>
      </div>
    </div>
  );
}
