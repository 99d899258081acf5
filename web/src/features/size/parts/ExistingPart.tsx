import { Choice, Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked } from "./Box";
import type { PartProps } from "./parts";

const CABLES = [
  { value: null, label: sizePartsWords.notKnown },
  { value: "raceway", label: sizePartsWords.conductorsRaceway },
  { value: "NM", label: sizePartsWords.nm },
  { value: "UF", label: sizePartsWords.uf },
  { value: "AC", label: sizePartsWords.ac },
  { value: "MC", label: sizePartsWords.mc },
  { value: "TC", label: sizePartsWords.tc },
  { value: "cord", label: sizePartsWords.cord },
] as const;

/** What somebody else installed. */
export function ExistingPart({ size, onSizeChange, onRest }: PartProps) {
  const existing = size.existing;
  const set = (next: typeof size.existing) => onSizeChange({ ...size, existing: next ?? null });
  if (!existing) {
    return (
      <Unasked
        says={sizePartsWords.enterExistingInstallationEach}
        name={sizePartsWords.enterExistingInstallation}
        onAsk={() =>
          set({ cable_size: "", cable_metal: "cu", cable_insulation: "THWN", terminal_c: 60 })
        }
      />
    );
  }
  const change = (next: Partial<typeof existing>) => set({ ...existing, ...next });
  return (
    <div className="space-y-3">
      <Box name={sizePartsWords.conductors}>
        <Choice
          label={sizePartsWords.kind}
          options={CABLES}
          value={existing.cable ?? null}
          onValueChange={(cable) => change({ cable })}
        />
        <Words
          label={sizePartsWords.size2}
          value={existing.cable_size}
          placeholder="10"
          onValueChange={(cable_size) => change({ cable_size })}
          onRest={onRest}
          className="w-20"
        />
        <Choice
          label={sizePartsWords.conductorMaterial}
          options={[
            { value: "cu", label: sizePartsWords.copper },
            { value: "al", label: sizePartsWords.aluminum },
          ]}
          value={existing.cable_metal ?? "cu"}
          onValueChange={(cable_metal) => change({ cable_metal })}
        />
        <Choice
          label={sizePartsWords.insulation}
          options={(["TW", "THWN", "THHN", "XHHW-2"] as const).map((value) => ({
            value,
            label: value,
          }))}
          value={existing.cable_insulation ?? "THWN"}
          onValueChange={(cable_insulation) => change({ cable_insulation })}
        />
        <Choice
          label={sizePartsWords.terminalRating}
          options={[
            { value: 60, label: sizePartsWords.cUnmarked },
            { value: 75, label: "75 °C" },
          ]}
          value={existing.terminal_c ?? 60}
          onValueChange={(terminal_c) => change({ terminal_c })}
        />
        <Reading
          label={sizePartsWords.otherLoadsCircuit}
          unit="A"
          value={existing.other_loads_a}
          onValueChange={(other_loads_a) => change({ other_loads_a })}
          onRest={onRest}
          className="w-20"
        />
      </Box>
      <Box name={sizePartsWords.protection}>
        <Reading
          label={sizePartsWords.fuseBreaker}
          unit="A"
          value={existing.device_a}
          onValueChange={(device_a) => change({ device_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.overloadTrips}
          unit="A"
          value={existing.trip_a}
          onValueChange={(trip_a) => change({ trip_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.plugReceptacle}
          unit="A"
          value={existing.plug_a}
          onValueChange={(plug_a) => change({ plug_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.voltage2}
          unit="V"
          value={existing.plug_v}
          onValueChange={(plug_v) => change({ plug_v })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.power}
          unit={sizePartsWords.hp}
          value={existing.plug_hp}
          onValueChange={(plug_hp) => change({ plug_hp })}
          onRest={onRest}
          className="w-20"
        />
        <Drop name={sizePartsWords.removeExistingInstallation} onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
