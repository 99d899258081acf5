import { useState } from "react";
import { Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box } from "./Box";
import type { PartProps } from "./parts";

type Props = Pick<PartProps, "size" | "onSizeChange" | "onRest">;

/** How high the motor is, and what its maker lets it carry there. */
export function Site({ size, onSizeChange, onRest }: Props) {
  const site = { source: "", ...size.site };
  const set = (change: Partial<typeof site>) => {
    const next = { ...site, ...change };
    const isEmpty = !next.altitude_ft && !next.load_percent;
    onSizeChange({ ...size, site: isEmpty ? null : next });
  };
  return (
    <Box name={sizePartsWords.site}>
      <Reading
        label={sizePartsWords.altitude}
        unit={sizePartsWords.ft}
        value={site.altitude_ft}
        onValueChange={(altitude_ft) => set({ altitude_ft })}
        onRest={onRest}
      />
      <Reading
        label={sizePartsWords.mayCarry}
        unit="%"
        value={site.load_percent}
        onValueChange={(load_percent) => set({ load_percent })}
        onRest={onRest}
        className="w-20"
      />
      <Words
        label={sizePartsWords.sourceOfFactor}
        value={site.source}
        onValueChange={(source) => set({ source })}
        onRest={onRest}
        className="w-44"
      />
    </Box>
  );
}

/** A starting current that was read, with the volts at the motor while it was. */
export function MeasuredStart({ size, onSizeChange, onRest }: Props) {
  const [amps, setAmps] = useState(size.measured_start?.amps_a ?? null);
  const [volts, setVolts] = useState(size.measured_start?.volts_v ?? null);
  // one reading without the other says nothing: both are kept, or neither
  const keep = (amps_a: string | null, volts_v: string | null) => {
    setAmps(amps_a);
    setVolts(volts_v);
    onSizeChange({ ...size, measured_start: amps_a && volts_v ? { amps_a, volts_v } : null });
  };
  return (
    <Box name={sizePartsWords.measuredStart}>
      <Reading
        label={sizePartsWords.startingCurrent}
        unit="A"
        value={amps}
        onValueChange={(value) => keep(value, volts)}
        onRest={onRest}
      />
      <Reading
        label={sizePartsWords.voltsWhileStarting}
        unit="V"
        value={volts}
        onValueChange={(value) => keep(amps, value)}
        onRest={onRest}
      />
    </Box>
  );
}
