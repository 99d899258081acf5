import { Choice, Reading, Words } from "../../../components/inputs";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

const SERVICES = [
  { value: "short_time", label: "Short time" },
  { value: "intermittent", label: "Intermittent" },
  { value: "periodic", label: "Periodic" },
  { value: "varying", label: "Varying" },
] as const;
const RATINGS = [
  { value: "min5", label: "5 min" },
  { value: "min15", label: "15 min" },
  { value: "min30_60", label: "30 or 60 min" },
  { value: "continuous", label: "continuous" },
] as const;
const RESISTORS = [
  { value: null, label: "none apart" },
  { value: "light_starting", label: "light start" },
  { value: "heavy_starting", label: "heavy start" },
  { value: "extra_heavy_starting", label: "extra-heavy start" },
  { value: "light_intermittent", label: "light intermittent" },
  { value: "medium_intermittent", label: "medium intermittent" },
  { value: "heavy_intermittent", label: "heavy intermittent" },
  { value: "continuous", label: "continuous" },
] as const;

/** What kind of motor it is and how the machine works, where that changes the sizes. */
export function MotorPart({ size, worked, onSizeChange, onRest }: PartProps) {
  const set = (change: Partial<typeof size>) => onSizeChange({ ...size, ...change });
  const hasSpeeds = worked.steps.some((step) => step.id === "speed_1_amps_a");
  const machine = size.machine ?? "squirrel_cage";
  return (
    <div className="space-y-3">
      <Box name="Motor">
        <Choice
          label="It is"
          options={[
            { value: "squirrel_cage", label: "squirrel cage" },
            { value: "wound_rotor", label: "wound rotor" },
            { value: "synchronous", label: "synchronous" },
            { value: "high_torque", label: "made for high torque" },
            { value: "torque", label: "torque motor, made to stand" },
          ]}
          value={machine}
          onValueChange={(next) =>
            set({
              machine: next,
              rotor: next === "wound_rotor" ? (size.rotor ?? null) : null,
            })
          }
        />
        {machine === "synchronous" && (
          <Choice
            label="Power factor"
            options={([100, 90, 80] as const).map((value) => ({ value, label: `${value} %` }))}
            value={size.power_factor ?? 100}
            onValueChange={(power_factor) => set({ power_factor })}
          />
        )}
        {machine === "wound_rotor" && (
          <>
            <Reading
              label="Secondary amps, plate"
              unit="A"
              value={size.rotor?.secondary_a}
              onValueChange={(secondary_a) =>
                set({
                  rotor: secondary_a ? { resistor: null, ...size.rotor, secondary_a } : null,
                })
              }
              onRest={onRest}
            />
            {size.rotor && (
              <Choice
                label="Resistor apart, duty"
                options={RESISTORS}
                value={size.rotor.resistor ?? null}
                onValueChange={(resistor) =>
                  size.rotor && set({ rotor: { ...size.rotor, resistor } })
                }
              />
            )}
          </>
        )}
        {hasSpeeds && (
          <YesNo
            label="Each speed with overload, wires and contactor for itself"
            value={size.speeds?.each_protected ?? false}
            onValueChange={(each_protected) => set({ speeds: { each_protected } })}
          />
        )}
      </Box>
      {size.duty ? (
        <Box name="Duty">
          <Choice
            label="The machine works"
            options={SERVICES}
            value={size.duty.service}
            onValueChange={(service) => size.duty && set({ duty: { ...size.duty, service } })}
          />
          <Choice
            label="Motor rated for"
            options={RATINGS}
            value={size.duty.rating}
            onValueChange={(rating) => size.duty && set({ duty: { ...size.duty, rating } })}
          />
          <Words
            label="Why it cannot run on"
            value={size.duty.reason}
            onValueChange={(reason) => size.duty && set({ duty: { ...size.duty, reason } })}
            onRest={onRest}
            className="grow"
          />
          <Drop name="It is continuous after all" onDrop={() => set({ duty: null })} />
        </Box>
      ) : (
        <Unasked
          says="Counted as continuous duty. Only where the driven machine makes that impossible may the wire be sized by plate current and duty."
          name="It is not continuous"
          onAsk={() => set({ duty: { service: "intermittent", rating: "min30_60", reason: "" } })}
        />
      )}
      <Box name="Reduced start">
        <Reading
          label="Autotransformer tap"
          unit="%"
          value={size.start?.tap_percent}
          onValueChange={(tap_percent) => set({ start: tap_percent ? { tap_percent } : null })}
          onRest={onRest}
          className="w-20"
        />
        <p className="text-sm text-soft">Wye-delta and part-winding starts come from the leads.</p>
      </Box>
    </div>
  );
}
