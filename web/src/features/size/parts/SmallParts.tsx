import { Choice, Reading, Words } from "../../../components/inputs";
import { Box, Drop, Unasked, YesNo } from "./Box";
import type { PartProps } from "./parts";

/** What the wires lie in. */
export function RunPart({ size, onSizeChange, onRest }: PartProps) {
  const set = (raceway: typeof size.raceway) => onSizeChange({ ...size, raceway: raceway ?? null });
  const { raceway } = size;
  if (!raceway) {
    return (
      <Unasked
        says="How large must the raceway be, or does what is there hold these wires?"
        name="Work out the raceway"
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
    <Box name="Raceway">
      <Choice
        label="Kind"
        options={(["EMT", "IMC", "RMC", "PVC40", "PVC80", "FMC", "LFMC"] as const).map((value) => ({
          value,
          label: value,
        }))}
        value={raceway.kind ?? "EMT"}
        onValueChange={(kind) => set({ ...raceway, kind })}
      />
      <Words
        label="Size that is there, if any"
        value={raceway.trade_size}
        placeholder="3/4"
        onValueChange={(trade_size) => set({ ...raceway, trade_size })}
        onRest={onRest}
        className="w-44"
      />
      <Reading
        label="Control wires beside"
        unit=""
        value={raceway.control_count ? String(raceway.control_count) : ""}
        onValueChange={(count) =>
          set({ ...raceway, control_count: count ? Number.parseInt(count, 10) : 0 })
        }
        onRest={onRest}
        className="w-16"
      />
      <Words
        label="of size"
        value={raceway.control_size}
        onValueChange={(control_size) => set({ ...raceway, control_size })}
        onRest={onRest}
        className="w-20"
      />
      <YesNo
        label="A nipple, 24 in at most"
        value={raceway.is_nipple ?? false}
        onValueChange={(is_nipple) => set({ ...raceway, is_nipple })}
      />
      <Drop name="Leave the raceway out" onDrop={() => set(null)} />
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
        says="Can the device open the current that may come here, and does the starter stand it? The current itself is entered with the supply."
        name="Hold the marks against it"
        onAsk={() => set({ device_ka: null, starter_ka: null, device_volts: "" })}
      />
    );
  }
  return (
    <Box name="As marked">
      <Reading
        label="Device, interrupting"
        unit="kA"
        value={fault.device_ka}
        onValueChange={(device_ka) => set({ ...fault, device_ka })}
        onRest={onRest}
        className="w-20"
      />
      <Reading
        label="Starter or panel, short circuit"
        unit="kA"
        value={fault.starter_ka}
        onValueChange={(starter_ka) => set({ ...fault, starter_ka })}
        onRest={onRest}
        className="w-20"
      />
      <Words
        label="Device, volts"
        value={fault.device_volts}
        placeholder="480Y/277"
        onValueChange={(device_volts) => set({ ...fault, device_volts })}
        onRest={onRest}
        className="w-36"
      />
      <Drop name="Leave fault current out" onDrop={() => set(null)} />
    </Box>
  );
}

const KINDS = [
  { value: null, label: "not read" },
  { value: "motor_circuit_switch", label: "motor-circuit switch" },
  { value: "breaker", label: "breaker" },
  { value: "molded_case_switch", label: "molded-case switch" },
  { value: "manual_controller", label: "manual controller" },
  { value: "general_use_switch", label: "general-use switch" },
  { value: "snap_switch", label: "snap switch" },
  { value: "plug", label: "cord and plug" },
] as const;

/** Where the disconnects are and what they are. */
export function PlacePart({ size, onSizeChange, onRest }: PartProps) {
  const set = (place: typeof size.place) => onSizeChange({ ...size, place: place ?? null });
  const { place } = size;
  if (!place) {
    return (
      <Unasked
        says="Whoever works on motor or starter must see the switch, or be able to lock it. Pace the distances."
        name="Enter where they are"
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
      <Box name="Starter, and the switch before it">
        <Reading
          label="Distance"
          unit="ft"
          value={place.controller_ft}
          onValueChange={(controller_ft) => set({ ...place, controller_ft })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label="Can be seen"
          value={place.controller_visible ?? true}
          onValueChange={(controller_visible) => set({ ...place, controller_visible })}
        />
        <Reading
          label="Starter marked"
          unit="hp"
          value={place.controller_hp}
          onValueChange={(controller_hp) => set({ ...place, controller_hp })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="at"
          unit="V"
          value={place.controller_v}
          onValueChange={(controller_v) => set({ ...place, controller_v })}
          onRest={onRest}
          className="w-20"
        />
      </Box>
      <Box name="From the nearest switch to the motor">
        <Reading
          label="Distance"
          unit="ft"
          value={place.motor_ft}
          onValueChange={(motor_ft) => set({ ...place, motor_ft })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label="Can be seen"
          value={place.motor_visible ?? true}
          onValueChange={(motor_visible) => set({ ...place, motor_visible })}
        />
        <YesNo
          label="It stands at the motor"
          value={place.own_at_motor ?? false}
          onValueChange={(own_at_motor) => set({ ...place, own_at_motor })}
        />
        <YesNo
          label="Starter's switch locks open"
          value={place.lockable ?? false}
          onValueChange={(lockable) => set({ ...place, lockable })}
        />
        <Choice
          label="Why none is at the motor"
          options={[
            { value: "", label: "no reason" },
            { value: "impracticable", label: "impracticable or more hazard" },
            { value: "procedures", label: "written procedures, qualified only" },
          ]}
          value={place.excuse ?? ""}
          onValueChange={(excuse) => set({ ...place, excuse })}
        />
      </Box>
      <Box name="The switch itself">
        <Choice
          label="Kind"
          options={KINDS}
          value={place.kind ?? null}
          onValueChange={(kind) => set({ ...place, kind })}
        />
        <Reading
          label="Marked"
          unit="A"
          value={place.amps_a}
          onValueChange={(amps_a) => set({ ...place, amps_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="at this voltage"
          unit="hp"
          value={place.rated_hp}
          onValueChange={(rated_hp) => set({ ...place, rated_hp })}
          onRest={onRest}
          className="w-20"
        />
        <YesNo
          label="Portable motor"
          value={place.is_portable ?? false}
          onValueChange={(is_portable) => set({ ...place, is_portable })}
        />
        <Drop name="Leave the disconnects out" onDrop={() => set(null)} />
      </Box>
    </div>
  );
}

/** A drive in front of the motor. */
export function DrivePart({ size, onSizeChange, onRest }: PartProps) {
  const set = (drive: typeof size.drive) => onSizeChange({ ...size, drive: drive ?? null });
  const { drive } = size;
  return (
    <Box name="Drive">
      <Reading
        label="Rated input current"
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
            label="Bypass around it"
            value={drive.has_bypass ?? false}
            onValueChange={(has_bypass) => set({ ...drive, has_bypass })}
          />
          <YesNo
            label="Listed as motor overload"
            value={drive.has_overload ?? true}
            onValueChange={(has_overload) => set({ ...drive, has_overload })}
          />
          <Reading
            label="Output set to"
            unit="V"
            value={drive.output_v}
            onValueChange={(output_v) => set({ ...drive, output_v })}
            onRest={onRest}
          />
        </>
      ) : (
        <p className="text-soft">The drive's input current decides its wires, not the motor's.</p>
      )}
    </Box>
  );
}

const CABLES = [
  { value: null, label: "not read" },
  { value: "raceway", label: "wires in raceway" },
  { value: "NM", label: "NM" },
  { value: "UF", label: "UF" },
  { value: "AC", label: "AC" },
  { value: "MC", label: "MC" },
  { value: "TC", label: "TC" },
  { value: "cord", label: "cord" },
] as const;

/** What somebody else installed. */
export function TherePart({ size, onSizeChange, onRest }: PartProps) {
  const there = size.there;
  const set = (next: typeof size.there) => onSizeChange({ ...size, there: next ?? null });
  if (!there) {
    return (
      <Unasked
        says="Enter what is already there: each part gets its verdict, and the weakest one governs."
        name="Enter what is there"
        onAsk={() =>
          set({ cable_size: "", cable_metal: "cu", cable_insulation: "THWN", terminal_c: 60 })
        }
      />
    );
  }
  const change = (next: Partial<typeof there>) => set({ ...there, ...next });
  return (
    <div className="space-y-3">
      <Box name="Wires">
        <Choice
          label="Kind"
          options={CABLES}
          value={there.cable ?? null}
          onValueChange={(cable) => change({ cable })}
        />
        <Words
          label="Size"
          value={there.cable_size}
          placeholder="10"
          onValueChange={(cable_size) => change({ cable_size })}
          onRest={onRest}
          className="w-20"
        />
        <Choice
          label="Metal"
          options={[
            { value: "cu", label: "copper" },
            { value: "al", label: "aluminium" },
          ]}
          value={there.cable_metal ?? "cu"}
          onValueChange={(cable_metal) => change({ cable_metal })}
        />
        <Choice
          label="Insulation"
          options={(["TW", "THWN", "THHN", "XHHW-2"] as const).map((value) => ({
            value,
            label: value,
          }))}
          value={there.cable_insulation ?? "THWN"}
          onValueChange={(cable_insulation) => change({ cable_insulation })}
        />
        <Choice
          label="Lugs"
          options={[
            { value: 60, label: "60 °C or unmarked" },
            { value: 75, label: "75 °C" },
          ]}
          value={there.terminal_c ?? 60}
          onValueChange={(terminal_c) => change({ terminal_c })}
        />
        <Reading
          label="Other loads on them"
          unit="A"
          value={there.other_loads_a}
          onValueChange={(other_loads_a) => change({ other_loads_a })}
          onRest={onRest}
          className="w-20"
        />
      </Box>
      <Box name="Devices">
        <Reading
          label="Fuse or breaker"
          unit="A"
          value={there.device_a}
          onValueChange={(device_a) => change({ device_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="Overload trips at"
          unit="A"
          value={there.trip_a}
          onValueChange={(trip_a) => change({ trip_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="Plug and receptacle"
          unit="A"
          value={there.plug_a}
          onValueChange={(plug_a) => change({ plug_a })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="its volts"
          unit="V"
          value={there.plug_v}
          onValueChange={(plug_v) => change({ plug_v })}
          onRest={onRest}
          className="w-20"
        />
        <Reading
          label="its power"
          unit="hp"
          value={there.plug_hp}
          onValueChange={(plug_hp) => change({ plug_hp })}
          onRest={onRest}
          className="w-20"
        />
        <Drop name="Leave what is there out" onDrop={() => set(null)} />
      </Box>
    </div>
  );
}
