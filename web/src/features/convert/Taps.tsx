import { useState } from "react";
import { convertWords } from "../../words/convert";
import type { Transformer } from "./useConvert";

/** Primary voltages with their taps or links, as "240 H1-H3, H2-H4 / 480 H2-H3". */
export function Taps({
  taps,
  onTapsChange,
}: {
  taps: NonNullable<Transformer["taps"]>;
  onTapsChange: (taps: NonNullable<Transformer["taps"]>) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = taps.map((tap) => `${tap.volts_v} ${tap.links ?? ""}`.trim()).join(" / ");
  return (
    <label className="min-w-0">
      <span className="block text-sm text-soft">{convertWords.primaryVoltagesTheir}</span>
      <input
        className="field w-80 max-w-full"
        value={text ?? shown}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          if (text === null) return;
          onTapsChange(
            [...text.matchAll(/(\d+(?:\.\d+)?)\s*([^/]*)/g)].map(([, volts = "", links = ""]) => ({
              volts_v: volts,
              links: links.trim(),
            })),
          );
          setText(null);
        }}
      />
    </label>
  );
}
