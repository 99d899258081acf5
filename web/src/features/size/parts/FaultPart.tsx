import { Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked } from "./Box";
import type { PartProps } from "./parts";

/** What is marked about short circuits. */
export function FaultPart({ size, onSizeChange, onRest }: PartProps) {
  const set = (fault: typeof size.fault) => onSizeChange({ ...size, fault: fault ?? null });
  const { fault } = size;
  if (!fault) {
    return (
      <Unasked
        says={sizePartsWords.canFuseBreaker}
        name={sizePartsWords.compareRatings}
        onAsk={() => set({ device_ka: null, starter_ka: null, device_volts: "" })}
      />
    );
  }
  return (
    <Box name={sizePartsWords.markedRatings}>
      <Reading
        label={sizePartsWords.fuseBreakerInterrupting}
        unit={sizePartsWords.ka}
        value={fault.device_ka}
        onValueChange={(device_ka) => set({ ...fault, device_ka })}
        onRest={onRest}
        className="w-20"
      />
      <Reading
        label={sizePartsWords.starterPanelShort}
        unit={sizePartsWords.ka}
        value={fault.starter_ka}
        onValueChange={(starter_ka) => set({ ...fault, starter_ka })}
        onRest={onRest}
        className="w-20"
      />
      <Words
        label={sizePartsWords.fuseBreakerVoltage}
        value={fault.device_volts}
        placeholder="480Y/277"
        onValueChange={(device_volts) => set({ ...fault, device_volts })}
        onRest={onRest}
        className="w-36"
      />
      <Drop name={sizePartsWords.removeFaultCurrent} onDrop={() => set(null)} />
    </Box>
  );
}
