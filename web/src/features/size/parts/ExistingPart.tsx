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
  const there = size.there;
  const set = (next: typeof size.there) => onSizeChange({ ...size, there: next ?? null });
  if (!there) {
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
  const change = (next: Partial<typeof there>) => set({ ...there, ...next });
  return (
    <div className="space-y-3">
      <Box name={sizePartsWords.conductors}>
        <Choice
          label={sizePartsWords.kind}
          options={CABLES}
          value={there.cable ?? null}
          onValueChange={(cable) => change({ cable })}
        />
        <Words
          label={sizePartsWords.size2}
          value={there.cable_size}
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
          value={there.cable_metal ?? "cu"}
          onValueChange={(cable_metal) => change({ cable_metal })}
        />
        <Choice
          label={sizePartsWords.insulation}
          options={(["TW", "THWN", "THHN", "XHHW-2"] as const).map((value) => ({
            value,
            label: value,
          }))}
          value={there.cable_insulation ?? "THWN"}
          onValueChange={(cable_insulation) => change({ cable_insulation })}
        />
        <Choice
          label={sizePartsWords.terminalRating}
          options={[
            { value: 60, label: sizePartsWords.cUnmarked },
            { value: 75, label: "75 °C" },
          ]}
          value={there.terminal_c ?? 60}
          onValueChange={(terminal_c) => change({ terminal_c })}
        />
        <Reading
          label={sizePartsWords.otherLoadsCircuit}
          unit="A"
          value={there.other_loads_a}
          onValueChange={(other_loads_a) => change({ other_loads_a })}
          onRest={onRest}
          className="w-20"
        />
      </Box>
      <Box name={sizePartsWords.protection}>
        <Reading
          label={sizePartsWords.fuseBreaker}
          unit="A"
          value={there.device_a}
          onValueChange={(device_a) => change({ device_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.overloadTrips}
          unit="A"
          value={there.trip_a}
          onValueChange={(trip_a) => change({ trip_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.plugReceptacle}
          unit="A"
          value={there.plug_a}
          onValueChange={(plug_a) => change({ plug_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.voltage2}
          unit="V"
          value={there.plug_v}
          onValueChange={(plug_v) => change({ plug_v })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.power}
          unit={sizePartsWords.hp}
          value={there.plug_hp}
          onValueChange={(plug_hp) => change({ plug_hp })}
          onRest={onRest}
          className="w-20"
        />
        <Drop name={sizePartsWords.removeExistingInstallation} onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
