import { Choice, Drawer, Reading } from "../../components/inputs";
import type { SupplyPlateProps } from "./SupplyPlate";

const PAIRS = ["L1-L2", "L2-L3", "L3-L1"];
const LEGS = (["L1", "L2", "L3"] as const).map((value) => ({ value, label: value }));

/** What was measured, what stands between, and under which code the job lives. */
export function SupplyFacts({ supply, worked, onSupplyChange, onRest }: SupplyPlateProps) {
  const set = (change: Partial<typeof supply>) => onSupplyChange({ ...supply, ...change });
  const system = worked.supply?.system ?? "";
  const measured = supply.measured_v ?? [];
  return (
    <Drawer
      name="More of the supply"
      hint="measured volts, fault current, own transformer, code"
      isOpen={/converter|high leg|corner|drive/.test(system)}
    >
      <div className="flex flex-wrap gap-3">
        {PAIRS.map((pair, at) => (
          <Reading
            key={pair}
            label={pair}
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
          label="Fault current"
          unit="A"
          value={supply.fault_current_a}
          onValueChange={(fault_current_a) => set({ fault_current_a })}
          onRest={onRest}
          className="w-28"
        />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <Reading
          label="Own transformer"
          unit="kVA"
          value={supply.transformer_kva}
          onValueChange={(transformer_kva) => set({ transformer_kva })}
          onRest={onRest}
        />
        <Reading
          label="its impedance"
          unit="%"
          value={supply.transformer_z_percent}
          onValueChange={(transformer_z_percent) => set({ transformer_z_percent })}
          onRest={onRest}
        />
        {supply.transformer_kva && (
          <Choice
            label="Secondary"
            options={[
              { value: true, label: "grounded" },
              { value: false, label: "not grounded" },
            ]}
            value={supply.transformer_grounded}
            onValueChange={(transformer_grounded) => set({ transformer_grounded })}
          />
        )}
      </div>
      {system.includes("converter") && (
        <Choice
          label="Leg that is made"
          options={LEGS}
          value={supply.made_leg}
          onValueChange={(made_leg) => set({ made_leg })}
        />
      )}
      {system.includes("high leg") && (
        <Choice
          label="High leg"
          options={LEGS}
          value={supply.high_leg}
          onValueChange={(high_leg) => set({ high_leg })}
        />
      )}
      {system.includes("corner") && (
        <Choice
          label="Grounded line"
          options={LEGS}
          value={supply.grounded_line}
          onValueChange={(grounded_line) => set({ grounded_line })}
        />
      )}
      {system.includes("drive") && (
        <Reading
          label="Volts into the drive"
          unit="V"
          value={supply.drive_input_v}
          onValueChange={(drive_input_v) => set({ drive_input_v })}
          onRest={onRest}
        />
      )}
      <Choice
        label="This job lives under"
        options={[
          { value: "nec", label: "the NEC" },
          { value: "other", label: "another code" },
        ]}
        value={supply.territory ?? "nec"}
        onValueChange={(territory) => set({ territory })}
      />
    </Drawer>
  );
}
