import { Choice, Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** What the wires lie in. */
export function RacewayPart({ size, onSizeChange, onRest }: PartProps) {
  const set = (raceway: typeof size.raceway) => onSizeChange({ ...size, raceway: raceway ?? null });
  const { raceway } = size;
  if (!raceway) {
    return (
      <Unasked
        says={sizePartsWords.whatSizeMust}
        name={sizePartsWords.calculateRaceway}
        onAsk={() =>
          set({
            kind: "EMT",
            trade_size: "",
            is_nipple: false,
            control_count: 0,
            control_size: "14",
          })
        }
      />
    );
  }
  return (
    <Box name={sizePartsWords.raceway}>
      <Choice
        label={sizePartsWords.kind}
        options={(["EMT", "IMC", "RMC", "PVC40", "PVC80", "FMC", "LFMC"] as const).map((value) => ({
          value,
          label: value,
        }))}
        value={raceway.kind ?? "EMT"}
        onValueChange={(kind) => set({ ...raceway, kind })}
      />
      <Words
        label={sizePartsWords.existingSizeIf}
        value={raceway.trade_size}
        placeholder="3/4"
        onValueChange={(trade_size) => set({ ...raceway, trade_size })}
        onRest={onRest}
        className="w-44"
      />
      <Reading
        label={sizePartsWords.controlConductors}
        unit=""
        value={raceway.control_count ? String(raceway.control_count) : ""}
        onValueChange={(count) =>
          set({ ...raceway, control_count: count ? Number.parseInt(count, 10) : 0 })
        }
        onRest={onRest}
        className="w-16"
      />
      <Words
        label={sizePartsWords.size}
        value={raceway.control_size}
        onValueChange={(control_size) => set({ ...raceway, control_size })}
        onRest={onRest}
        className="w-20"
      />
      <YesNo
        label={sizePartsWords.nippleLess}
        value={raceway.is_nipple ?? false}
        onValueChange={(is_nipple) => set({ ...raceway, is_nipple })}
      />
      <Drop name={sizePartsWords.removeRaceway} onDrop={() => set(null)} />
    </Box>
  );
}
