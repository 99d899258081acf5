import { Choice, Drawer, Reading } from "../../components/inputs";
import type { Given } from "../../state/useJob";
import { runUpWords as w } from "../../words/runUp";

type Load = Given["load"];
type Kind = NonNullable<Load["kind"]>;

const KINDS: readonly Kind[] = [
  "fan",
  "conveyor",
  "conveyor_empty",
  "mixer",
  "crusher",
  "flywheel",
  "downhill",
  "uncoupled",
];
const yesNo = [
  { value: true, label: w.yes },
  { value: false, label: w.no },
];

/** What is driven, and what decides the start. */
export function LoadInputs({
  load,
  kind,
  onLoadChange: set,
  onRest,
}: {
  load: Load;
  /** Of the motor, once it is known. */
  kind: string;
  onLoadChange: (change: Partial<Load>) => void;
  onRest: () => void;
}) {
  return (
    <div className="space-y-3">
      <Choice
        label={w.load}
        options={KINDS.map((value) => ({ value, label: w.kinds[value] ?? value }))}
        value={load.kind || null}
        onValueChange={(kind) => set({ kind })}
      />
      {load.kind && (
        <>
          <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
            {load.kind !== "uncoupled" && (
              <>
                <Reading
                  label={w.torque}
                  value={load.torque_percent}
                  unit={w.ofRated}
                  onValueChange={(torque_percent) => set({ torque_percent })}
                  onRest={onRest}
                />
                <Reading
                  label={w.breakaway}
                  value={load.breakaway_percent}
                  unit={w.ofRated}
                  onValueChange={(breakaway_percent) => set({ breakaway_percent })}
                  onRest={onRest}
                />
                <Reading
                  label={w.inertia}
                  value={load.inertia_lb_ft2}
                  unit={w.inertiaUnit}
                  onValueChange={(inertia_lb_ft2) => set({ inertia_lb_ft2 })}
                  onRest={onRest}
                />
              </>
            )}
            {load.kind !== "uncoupled" && (
              <Reading
                label={w.jams}
                value={load.jams_at_s}
                unit={w.seconds}
                onValueChange={(jams_at_s) => set({ jams_at_s })}
                onRest={onRest}
              />
            )}
            <Reading
              label={w.firstStep}
              value={load.first_step_s}
              unit={w.seconds}
              onValueChange={(first_step_s) => set({ first_step_s })}
              onRest={onRest}
            />
          </div>
          <Drawer name={w.more} hint={w.fromData}>
            <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
              <Reading
                label={w.motorInertia}
                value={load.motor_inertia_lb_ft2}
                unit={w.inertiaUnit}
                onValueChange={(motor_inertia_lb_ft2) => set({ motor_inertia_lb_ft2 })}
                onRest={onRest}
              />
              <Reading
                label={w.lockedTorque}
                value={load.locked_torque_percent}
                unit={w.ofRated}
                onValueChange={(locked_torque_percent) => set({ locked_torque_percent })}
                onRest={onRest}
              />
              <Reading
                label={w.breakdownTorque}
                value={load.breakdown_torque_percent}
                unit={w.ofRated}
                onValueChange={(breakdown_torque_percent) => set({ breakdown_torque_percent })}
                onRest={onRest}
              />
            </div>
            <Choice
              label={w.winding}
              options={[
                { value: false, label: w.cold },
                { value: true, label: w.hot },
              ]}
              value={load.is_hot ?? false}
              onValueChange={(is_hot) => set({ is_hot })}
            />
            <Choice
              label={w.relay}
              options={[
                { value: "plain" as const, label: w.relayPlain },
                { value: "phase_loss" as const, label: w.relayLoss },
                { value: "two_heaters" as const, label: w.relayTwo },
                { value: "melting_alloy" as const, label: w.relayAlloy },
                { value: "electronic" as const, label: w.relayElectronic },
              ]}
              value={load.relay_kind || null}
              onValueChange={(relay_kind) => set({ relay_kind })}
            />
            <Choice
              label={w.backstop}
              options={yesNo}
              value={load.has_backstop ?? false}
              onValueChange={(has_backstop) => set({ has_backstop })}
            />
            <Choice
              label={w.harmed}
              options={yesNo}
              value={load.is_harmed_backward ?? false}
              onValueChange={(is_harmed_backward) => set({ is_harmed_backward })}
            />
            {kind === "wound" && (
              <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
                <Reading
                  label={w.rotorSteps}
                  value={load.rotor_steps?.toString() ?? null}
                  unit=""
                  onValueChange={(steps) =>
                    set({ rotor_steps: steps === null ? null : Number(steps) })
                  }
                  onRest={onRest}
                />
                <Reading
                  label={w.rotorPeak}
                  value={load.rotor_peak_percent}
                  unit={w.ofRated}
                  onValueChange={(rotor_peak_percent) => set({ rotor_peak_percent })}
                  onRest={onRest}
                />
              </div>
            )}
          </Drawer>
        </>
      )}
    </div>
  );
}
