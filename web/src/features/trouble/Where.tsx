import { useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { Diagram } from "../../diagram/Diagram";
import { numbersOf } from "../../diagram/numbers";
import { useCircuit } from "../../diagram/useCircuit";
import { Viewer } from "../../diagram/Viewer";
import type { View } from "../../diagram/view";
import { useIsNarrow } from "../../state/device";
import type { Given } from "../../state/useJob";
import { troubleWords as w } from "../../words/trouble";

const VIEWS = ["ladder", "power"] as const;
/** A suspect is lit where it has at least this part of the odds of the first. */
const LIT_FROM = 0.3;

/** Where the suspects are: the drawing with the likeliest of them lit. */
export function Where({
  works,
  given,
  stands,
}: {
  works: string;
  given: Given | null;
  stands: Schemas["HuntStandsOut"];
}) {
  const { data: circuit } = useCircuit(works, given);
  const [view, setView] = useState<(typeof VIEWS)[number]>("ladder");
  const places = useRef(new Map<string, View>());
  const isNarrow = useIsNarrow();
  if (!circuit) return null;
  const most = stands.groups[0]?.percent ?? 0;
  const lit = new Set(
    stands.groups.filter((one) => one.percent >= LIT_FROM * most).flatMap((one) => one.devices),
  );
  const drawing = {
    picture: circuit[view],
    label: `${w.where}: ${w.views[view]}`,
    numbers: numbersOf(circuit),
    lit,
  };
  return (
    <section aria-label={w.where} className="space-y-2">
      <div className="flex flex-wrap gap-2" role="group" aria-label={w.where}>
        {VIEWS.map((one) => (
          <button
            key={one}
            type="button"
            className="control"
            aria-pressed={one === view}
            onClick={() => setView(one)}
          >
            {w.views[one]}
          </button>
        ))}
      </div>
      <div className="overflow-x-auto border-2 border-ink bg-sheet p-1">
        {isNarrow ? (
          <Diagram {...drawing} leastWidth={520} />
        ) : (
          <Viewer {...drawing} name={view} places={places.current} className="h-[22rem]" />
        )}
      </div>
    </section>
  );
}
