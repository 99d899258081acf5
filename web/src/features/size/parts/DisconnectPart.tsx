import { Choice, Reading } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

const KINDS = [
  { value: null, label: sizePartsWords.notKnown },
  { value: "motor_circuit_switch", label: sizePartsWords.motorCircuitSwitch },
  { value: "unfused_switch", label: sizePartsWords.unfusedSwitch },
  { value: "isolating_switch", label: sizePartsWords.isolatingSwitch },
  { value: "breaker", label: sizePartsWords.breaker },
  { value: "molded_case_switch", label: sizePartsWords.moldedCaseSwitch },
  { value: "manual_controller", label: sizePartsWords.manualController },
  { value: "general_use_switch", label: sizePartsWords.generalUseSwitch },
  { value: "snap_switch", label: sizePartsWords.snapSwitch },
  { value: "plug", label: sizePartsWords.cordPlug },
] as const;

/** Where the disconnects are and what they are. */
export function DisconnectPart({ size, onSizeChange, onRest }: PartProps) {
  const set = (place: typeof size.place) => onSizeChange({ ...size, place: place ?? null });
  const { place } = size;
  if (!place) {
    return (
      <Unasked
        says={sizePartsWords.disconnectMustSight}
        name={sizePartsWords.enterLocations}
        onAsk={() =>
          set({
            own_at_motor: false,
            lockable: false,
            excuse: "",
            is_portable: false,
            has_no_fuse: false,
          })
        }
      />
    );
  }
  return (
    <div className="space-y-3">
      <Box name={sizePartsWords.starterDisconnectLine}>
        <Reading
          label={sizePartsWords.distance}
          unit={sizePartsWords.ft}
          value={place.controller_ft}
          onValueChange={(controller_ft) => set({ ...place, controller_ft })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label={sizePartsWords.sight}
          value={place.controller_visible ?? null}
          onValueChange={(controller_visible) => set({ ...place, controller_visible })}
        />
        <Reading
          label={sizePartsWords.starterRating}
          unit={sizePartsWords.hp}
          value={place.controller_hp}
          onValueChange={(controller_hp) => set({ ...place, controller_hp })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.at}
          unit="V"
          value={place.controller_v}
          onValueChange={(controller_v) => set({ ...place, controller_v })}
          onRest={onRest}
          className="w-20"
        />
      </Box>
      <Box name={sizePartsWords.fromNearestDisconnect}>
        <Reading
          label={sizePartsWords.distance}
          unit={sizePartsWords.ft}
          value={place.motor_ft}
          onValueChange={(motor_ft) => set({ ...place, motor_ft })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label={sizePartsWords.sight}
          value={place.motor_visible ?? null}
          onValueChange={(motor_visible) => set({ ...place, motor_visible })}
        />
        <YesNo
          label={sizePartsWords.motor2}
          value={place.own_at_motor ?? false}
          onValueChange={(own_at_motor) => set({ ...place, own_at_motor })}
        />
        <YesNo
          label={sizePartsWords.startersDisconnectCan}
          value={place.lockable ?? false}
          onValueChange={(lockable) => set({ ...place, lockable })}
        />
        <Choice
          label={sizePartsWords.whyThereNone}
          options={[
            { value: "", label: sizePartsWords.noReason },
            { value: "impracticable", label: sizePartsWords.impracticableAddsHazard },
            { value: "procedures", label: sizePartsWords.industrialWrittenSafety },
          ]}
          value={place.excuse ?? ""}
          onValueChange={(excuse) => set({ ...place, excuse })}
        />
      </Box>
      <Box name={sizePartsWords.disconnect}>
        <Choice
          label={sizePartsWords.kind}
          options={KINDS}
          value={place.kind ?? null}
          onValueChange={(kind) => set({ ...place, kind })}
        />
        <Reading
          label={sizePartsWords.marked}
          unit="A"
          value={place.amps_a}
          onValueChange={(amps_a) => set({ ...place, amps_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label={sizePartsWords.voltage}
          unit={sizePartsWords.hp}
          value={place.rated_hp}
          onValueChange={(rated_hp) => set({ ...place, rated_hp })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label={sizePartsWords.noFuseHere}
          value={place.has_no_fuse ?? false}
          onValueChange={(has_no_fuse) => set({ ...place, has_no_fuse })}
        />
        <YesNo
          label={sizePartsWords.portableMotor}
          value={place.is_portable ?? false}
          onValueChange={(is_portable) => set({ ...place, is_portable })}
        />
        <Drop name={sizePartsWords.removeDisconnects} onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
