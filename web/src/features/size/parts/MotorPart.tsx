import { Choice, Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked, YesNo } from "./Box";
import { MeasuredStart, Site } from "./MotorSite";
import type { PartProps } from "./parts";

const SERVICES = [
  { value: "short_time", label: sizePartsWords.shortTime },
  { value: "intermittent", label: sizePartsWords.intermittent },
  { value: "periodic", label: sizePartsWords.periodic },
  { value: "varying", label: sizePartsWords.varying },
] as const;
const RATINGS = [
  { value: "min5", label: sizePartsWords.min },
  { value: "min15", label: sizePartsWords.min2 },
  { value: "min30_60", label: sizePartsWords.min3 },
  { value: "continuous", label: sizePartsWords.continuous },
] as const;
const RESISTORS = [
  { value: null, label: sizePartsWords.noneSeparate },
  { value: "light_starting", label: sizePartsWords.lightStart },
  { value: "heavy_starting", label: sizePartsWords.heavyStart },
  { value: "extra_heavy_starting", label: sizePartsWords.extraHeavyStart },
  { value: "light_intermittent", label: sizePartsWords.lightIntermittent },
  { value: "medium_intermittent", label: sizePartsWords.mediumIntermittent },
  { value: "heavy_intermittent", label: sizePartsWords.heavyIntermittent },
  { value: "continuous", label: sizePartsWords.continuous },
] as const;

/** What kind of motor it is and how the machine works, where that changes the sizes. */
export function MotorPart({ size, worked, onSizeChange, onRest }: PartProps) {
  const set = (change: Partial<typeof size>) => onSizeChange({ ...size, ...change });
  const hasSpeeds = worked.steps.some((step) => step.id === "speed_1_amps_a");
  const machine = size.machine ?? "squirrel_cage";
  return (
    <div className="space-y-3">
      <Box name={sizePartsWords.motor}>
        <Choice
          label={sizePartsWords.type}
          options={[
            { value: "squirrel_cage", label: sizePartsWords.squirrelCage },
            { value: "wound_rotor", label: sizePartsWords.woundRotor },
            { value: "synchronous", label: sizePartsWords.synchronous },
            { value: "high_torque", label: sizePartsWords.madeHighTorque },
            { value: "torque", label: sizePartsWords.torqueMotorRated },
            { value: "listed_appliance", label: sizePartsWords.listedAppliance },
            { value: "marked_fan", label: sizePartsWords.markedFan },
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
            label={sizePartsWords.powerFactor}
            options={([100, 90, 80] as const).map((value) => ({ value, label: `${value} %` }))}
            value={size.power_factor ?? 100}
            onValueChange={(power_factor) => set({ power_factor })}
          />
        )}
        {machine === "wound_rotor" && (
          <>
            <Reading
              label={sizePartsWords.secondaryAmpsNameplate}
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
                label={sizePartsWords.separateResistorDuty}
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
            label={sizePartsWords.eachSpeedOwn}
            value={size.speeds?.each_protected ?? false}
            onValueChange={(each_protected) => set({ speeds: { each_protected } })}
          />
        )}
      </Box>
      {size.duty ? (
        <Box name={sizePartsWords.duty}>
          <Choice
            label={sizePartsWords.dutyMachine}
            options={SERVICES}
            value={size.duty.service}
            onValueChange={(service) => size.duty && set({ duty: { ...size.duty, service } })}
          />
          <Choice
            label={sizePartsWords.motorTimeRating}
            options={RATINGS}
            value={size.duty.rating}
            onValueChange={(rating) => size.duty && set({ duty: { ...size.duty, rating } })}
          />
          <Words
            label={sizePartsWords.whyCannotRun}
            value={size.duty.reason}
            onValueChange={(reason) => size.duty && set({ duty: { ...size.duty, reason } })}
            onRest={onRest}
            className="grow"
          />
          <Drop name={sizePartsWords.continuousDuty} onDrop={() => set({ duty: null })} />
        </Box>
      ) : (
        <Unasked
          says={sizePartsWords.treatedContinuousDuty}
          name={sizePartsWords.notContinuousDuty}
          onAsk={() => set({ duty: { service: "intermittent", rating: "min30_60", reason: "" } })}
        />
      )}
      <Box name={sizePartsWords.reducedVoltageStart}>
        <Reading
          label={sizePartsWords.autotransformerTap}
          unit="%"
          value={size.start?.tap_percent}
          onValueChange={(tap_percent) => set({ start: tap_percent ? { tap_percent } : null })}
          onRest={onRest}
          className="w-20"
        />
        <p className="text-sm text-soft">{sizePartsWords.wyeDeltaPart}</p>
      </Box>
      <Site size={size} onSizeChange={onSizeChange} onRest={onRest} />
      <MeasuredStart size={size} onSizeChange={onSizeChange} onRest={onRest} />
    </div>
  );
}
