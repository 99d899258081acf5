import { Choice, Reading, Words } from "../../../components/inputs";
import { sizePartsWords } from "../../../words/sizeParts";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** What the wires lie in. */
export function RunPart({ size, onSizeChange, onRest }: PartProps) {
  const set = (raceway: typeof size.raceway) => onSizeChange({ ...size, raceway: raceway ?? null });
  const { raceway } = size;
  if (!raceway) {
    return (
      <Unasked
        says={sizePartsWords.howLargeRaceway}
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

const KINDS = [
  { value: null, label: sizePartsWords.notKnown },
  { value: "motor_circuit_switch", label: sizePartsWords.motorCircuitSwitch },
  { value: "breaker", label: "breaker" },
  { value: "molded_case_switch", label: sizePartsWords.moldedCaseSwitch },
  { value: "manual_controller", label: "manual controller" },
  { value: "general_use_switch", label: sizePartsWords.generalUseSwitch },
  { value: "snap_switch", label: sizePartsWords.snapSwitch },
  { value: "plug", label: sizePartsWords.cordPlug },
] as const;

/** Where the disconnects are and what they are. */
export function PlacePart({ size, onSizeChange, onRest }: PartProps) {
  const set = (place: typeof size.place) => onSizeChange({ ...size, place: place ?? null });
  const { place } = size;
  if (!place) {
    return (
      <Unasked
        says={sizePartsWords.disconnectSight}
        name={sizePartsWords.enterLocations}
        onAsk={() =>
          set({
            controller_visible: true,
            motor_visible: true,
            own_at_motor: false,
            lockable: false,
            excuse: "",
            is_portable: false,
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
          value={place.controller_visible ?? true}
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
          value={place.motor_visible ?? true}
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
          label={sizePartsWords.portableMotor}
          value={place.is_portable ?? false}
          onValueChange={(is_portable) => set({ ...place, is_portable })}
        />
        <Drop name={sizePartsWords.removeDisconnects} onDrop={() => set(null)} />
      </Box>
    </div>
  );
}

/** A drive in front of the motor. */
export function DrivePart({ size, onSizeChange, onRest }: PartProps) {
  const set = (drive: typeof size.drive) => onSizeChange({ ...size, drive: drive ?? null });
  const { drive } = size;
  return (
    <Box name={sizePartsWords.drive}>
      <Reading
        label={sizePartsWords.ratedInputCurrent}
        unit="A"
        value={drive?.input_a}
        onValueChange={(input_a) =>
          set(
            input_a
              ? { has_bypass: false, has_overload: true, output_v: null, ...drive, input_a }
              : null,
          )
        }
        onRest={onRest}
      />
      {drive ? (
        <>
          <YesNo
            label={sizePartsWords.bypassAround}
            value={drive.has_bypass ?? false}
            onValueChange={(has_bypass) => set({ ...drive, has_bypass })}
          />
          <YesNo
            label={sizePartsWords.listedMotorOverload}
            value={drive.has_overload ?? true}
            onValueChange={(has_overload) => set({ ...drive, has_overload })}
          />
          <Reading
            label={sizePartsWords.outputCurrentSet}
            unit="V"
            value={drive.output_v}
            onValueChange={(output_v) => set({ ...drive, output_v })}
            onRest={onRest}
          />
        </>
      ) : (
        <p className="text-soft">{sizePartsWords.drivesInputCurrent}</p>
      )}
    </Box>
  );
}

const CABLES = [
  { value: null, label: sizePartsWords.notKnown },
  { value: "raceway", label: sizePartsWords.conductorsRaceway },
  { value: "NM", label: sizePartsWords.nm },
  { value: "UF", label: sizePartsWords.uf },
  { value: "AC", label: sizePartsWords.ac },
  { value: "MC", label: sizePartsWords.mc },
  { value: "TC", label: sizePartsWords.tc },
  { value: "cord", label: "cord" },
] as const;

/** What somebody else installed. */
export function TherePart({ size, onSizeChange, onRest }: PartProps) {
  const there = size.there;
  const set = (next: typeof size.there) => onSizeChange({ ...size, there: next ?? null });
  if (!there) {
    return (
      <Unasked
        says={sizePartsWords.enterExisting}
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
            { value: "cu", label: "copper" },
            { value: "al", label: "aluminium" },
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
