import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import { Hands, type HandsProps } from "./Hands";

/** Lamps as the drawing has them; a lamp without a color on the drawing is drawn plain. */
const COLORS: Record<string, string> = {
  red: "var(--lamp-red)",
  green: "var(--lamp-green)",
  amber: "var(--lamp-amber)",
  yellow: "var(--lamp-amber)",
  blue: "var(--lamp-blue)",
  white: "var(--lamp-white)",
};

/** The door: its lamps above, its buttons and switches below, held by pointer, key or fingers. */
export function Station({ circuit, ...hands }: HandsProps & { circuit: Circuit }) {
  const lamps = circuit.devices.filter((device) => device.type === "lamp");
  return (
    <section
      aria-label={rehearseWords.station}
      className="metal space-y-3 px-4 py-4"
      data-testid="station"
    >
      {lamps.length > 0 && (
        <ul className="flex flex-wrap gap-4" aria-label={rehearseWords.lamps}>
          {lamps.map((lamp) => {
            const isLit = ["1", "on"].includes(hands.words?.[lamp.id] ?? "");
            return (
              <li key={lamp.id} className="flex items-center gap-2" data-lit={isLit}>
                <span
                  aria-hidden="true"
                  className="block size-8 rounded-full border-2 border-ink"
                  style={{
                    background: isLit ? (COLORS[lamp.color] ?? "var(--lamp-amber)") : "transparent",
                    boxShadow: isLit ? "0 0 0 4px var(--hair)" : "none",
                    borderColor: COLORS[lamp.color] ?? "var(--ink)",
                  }}
                />
                <span>
                  <b className="font-mono">{lamp.tag}</b>
                  <span className="block text-sm">
                    {lamp.legend || lamp.color}{" "}
                    <span className="text-soft">
                      {isLit ? rehearseWords.lit : rehearseWords.dark}
                    </span>
                  </span>
                </span>
              </li>
            );
          })}
        </ul>
      )}
      <Hands {...hands} />
    </section>
  );
}
