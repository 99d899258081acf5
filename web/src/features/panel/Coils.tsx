import { panelWords as w } from "../../words/panel";
import { Typed } from "./Typed";
import type { Made, Panel } from "./usePanel";

/** Coils read on the bench: from then on each reading through one is held against it. */
export function Coils({ panel, onAct }: { panel: Panel; onAct: (made: Made) => void }) {
  if (panel.coils.length === 0) return null;
  return (
    <details data-testid="coils">
      <summary className="ask">{w.coilsTitle}</summary>
      <p className="text-soft">{w.coilsSay}</p>
      <ul className="space-y-2">
        {panel.coils.map((coil) => (
          <li key={coil.id} className="flex flex-wrap items-end gap-3 border-t border-hair pt-2">
            <span className="font-mono font-bold">
              {coil.said} {coil.ohms && `${coil.ohms} ${w.ohms}`}
            </span>
            <Typed
              label={w.coilOhms(coil.said)}
              unit={w.ohms}
              does={w.read}
              onDone={(value) =>
                onAct({ kind: "coil_ohms", about: { item: coil.id }, body: { value, unit: "ohm" } })
              }
            />
          </li>
        ))}
      </ul>
    </details>
  );
}
