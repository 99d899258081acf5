import type { Schemas, Worked } from "../../api/client";
import { Choice, Drawer, Reading } from "../../components/inputs";
import { inPlantNames } from "../../words/names";
import { plateWords } from "../../words/plate";

export interface SupplyPlateProps {
  supply: Schemas["SupplyInputs"];
  worked: Worked;
  onSupplyChange: (supply: Schemas["SupplyInputs"]) => void;
  onRest: () => void;
}

const PAIRS = ["L1-L2", "L2-L3", "L3-L1"];
const LINES = ["L1", "L2", "L3"];
const LEGS = ["L1", "L2", "L3"] as const;

/** What was measured, what stands between, and under which code the job lives. */
export function SupplyFacts({ supply, worked, onSupplyChange, onRest }: SupplyPlateProps) {
  const set = (change: Partial<typeof supply>) => onSupplyChange({ ...supply, ...change });
  const system = worked.supply?.system ?? "";
  const measured = supply.measured_v ?? [];
  const amps = supply.measured_a ?? [];
  const legs = LEGS.map((value) => ({ value, label: inPlantNames(value) }));
  return (
    <Drawer
      name={plateWords.moreSupply}
      hint={plateWords.measuredVoltsAvailable}
      isOpen={/converter|high leg|corner|drive/.test(system)}
    >
      <div className="flex flex-wrap gap-3">
        {PAIRS.map((pair, at) => (
          <Reading
            key={pair}
            label={inPlantNames(pair)}
            unit="V"
            value={measured[at] === "0" ? "" : measured[at]}
            onValueChange={(value) => {
              const next = [0, 1, 2].map((place) =>
                place === at ? (value ?? "0") : (measured[place] ?? "0"),
              );
              set({ measured_v: next.every((volts) => volts === "0") ? [] : next });
            }}
            onRest={onRest}
          />
        ))}
        <Reading
          label={plateWords.availableFaultCurrent}
          unit="A"
          value={supply.fault_current_a}
          onValueChange={(fault_current_a) => set({ fault_current_a })}
          onRest={onRest}
          className="w-28"
        />
      </div>
      <div className="flex flex-wrap gap-3">
        {LINES.map((line, at) => (
          <Reading
            key={line}
            label={plateWords.runningAmps(inPlantNames(line))}
            unit="A"
            value={amps[at] === "0" ? "" : amps[at]}
            onValueChange={(value) => {
              const next = [0, 1, 2].map((place) =>
                place === at ? (value ?? "0") : (amps[place] ?? "0"),
              );
              set({ measured_a: next.every((amp) => amp === "0") ? [] : next });
            }}
            onRest={onRest}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <Reading
          label={plateWords.ownTransformer}
          unit={plateWords.kva}
          value={supply.transformer_kva}
          onValueChange={(transformer_kva) => set({ transformer_kva })}
          onRest={onRest}
        />
        <Reading
          label={plateWords.impedance}
          unit="%"
          value={supply.transformer_z_percent}
          onValueChange={(transformer_z_percent) => set({ transformer_z_percent })}
          onRest={onRest}
        />
        {supply.transformer_kva && (
          <Choice
            label={plateWords.secondary}
            options={[
              { value: true, label: plateWords.grounded },
              { value: false, label: plateWords.notGrounded },
            ]}
            value={supply.transformer_grounded}
            onValueChange={(transformer_grounded) => set({ transformer_grounded })}
          />
        )}
      </div>
      {system.includes("converter") && (
        <Choice
          label={plateWords.manufacturedPhase}
          options={legs}
          value={supply.made_leg}
          onValueChange={(made_leg) => set({ made_leg })}
        />
      )}
      {system.includes("high leg") && (
        <Choice
          label={plateWords.highLeg}
          options={legs}
          value={supply.high_leg}
          onValueChange={(high_leg) => set({ high_leg })}
        />
      )}
      {system.includes("corner") && (
        <Choice
          label={plateWords.groundedLine}
          options={legs}
          value={supply.grounded_line}
          onValueChange={(grounded_line) => set({ grounded_line })}
        />
      )}
      {system.includes("drive") && (
        <Reading
          label={plateWords.driveInputVoltage}
          unit="V"
          value={supply.drive_input_v}
          onValueChange={(drive_input_v) => set({ drive_input_v })}
          onRest={onRest}
        />
      )}
      <Choice
        label={plateWords.jobUnder}
        options={[
          { value: "nec", label: plateWords.nec },
          { value: "other", label: plateWords.anotherCode },
        ]}
        value={supply.territory ?? "nec"}
        onValueChange={(territory) => set({ territory })}
      />
    </Drawer>
  );
}
