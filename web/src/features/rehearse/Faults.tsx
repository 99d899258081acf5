import type { Schemas } from "../../api/client";
import { Sheet } from "../../components/Sheet";
import type { Rehearsal } from "./useRehearsal";

type Device = Schemas["DeviceOut"];

interface Fault {
  label: string;
  act: readonly [string, string?, string?];
}

const OF_TYPE: Record<string, readonly [string, string, string?][]> = {
  fuse: [
    ["blow", "blows"],
    ["fit", "new fuse"],
  ],
  fdisc: [
    ["blow", "fuse of L1 blows", "1"],
    ["blow", "fuse of L2 blows", "2"],
    ["blow", "fuse of L3 blows", "3"],
    ["fit", "new fuses"],
  ],
  contactor: [
    ["weld", "poles weld"],
    ["unweld", "poles part again"],
    ["hold_out", "armature stuck out"],
    ["open_coil", "coil burnt open"],
  ],
  olr: [
    ["trip", "trips"],
    ["cool", "cools down"],
  ],
  ptc: [
    ["sensor", "loop cut", "open"],
    ["sensor", "loop whole", "ok"],
  ],
  rtdmon: [["sensor", "sensor cut", "open"]],
  ptcrelay: [["reset", "reset"]],
  source: [
    ["off", "off"],
    ["on", "back on"],
  ],
};
const MOTOR: readonly [string, string, string?][] = [
  ["jam", "jams"],
  ["free", "turns freely again"],
  ["load", "30 % overloaded", "1.3"],
  ["load", "rated load", "1"],
  ["temp", "winding at 160 °C", "160"],
  ["temp", "winding at 60 °C", "60"],
];
const SUPPLY: readonly Fault[] = [
  { label: "Supply dips 1 s", act: ["dip", "", "1"] },
  { label: "Supply off", act: ["off"] },
  { label: "Supply back", act: ["on"] },
  { label: "L1 lost", act: ["lose", "", "L1"] },
  { label: "L2 lost", act: ["lose", "", "L2"] },
  { label: "L3 lost", act: ["lose", "", "L3"] },
  { label: "L1 back", act: ["restore", "", "L1"] },
  { label: "L2 back", act: ["restore", "", "L2"] },
  { label: "L3 back", act: ["restore", "", "L3"] },
  { label: "Sag to 70 %", act: ["sag", "", "0.7"] },
  { label: "Sag to 40 %", act: ["sag", "", "0.4"] },
  { label: "Full volts again", act: ["sag", "", "1"] },
  { label: "Two lines exchanged", act: ["swaplines"] },
];

export interface FaultsProps {
  devices: readonly Device[];
  terminals: readonly string[];
  rehearsal: Rehearsal;
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
}

/** Break something: what a plant does to a circuit, sooner or later. */
export function Faults({ devices, terminals, rehearsal, isOpen, onOpenChange }: FaultsProps) {
  const run = (fault: Fault) => {
    const [verb, on, word] = fault.act;
    rehearsal.act(verb, on ?? "", word ?? "");
    onOpenChange(false);
  };
  const groups: [string, readonly Fault[]][] = [["Supply", SUPPLY]];
  for (const device of devices) {
    const known = device.type.startsWith("motor") ? MOTOR : OF_TYPE[device.type];
    const faults = (known ?? [])
      .filter(([verb]) => device.verbs.includes(verb))
      .map(([verb, label, word]): Fault => ({ label, act: [verb, device.id, word ?? ""] }));
    if (faults.length > 0) groups.push([device.tag, faults]);
  }
  return (
    <Sheet isOpen={isOpen} onOpenChange={onOpenChange} title="Break something">
      <div className="space-y-3">
        {groups.map(([name, faults]) => (
          <fieldset key={name} className="flex flex-wrap items-center gap-2">
            <legend className="float-left mr-2 min-w-24 font-mono font-semibold">{name}</legend>
            {faults.map((fault) => (
              <button
                key={fault.label}
                type="button"
                className="control"
                onClick={() => run(fault)}
              >
                {fault.label}
              </button>
            ))}
          </fieldset>
        ))}
        <form
          className="flex flex-wrap items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const chosen = new FormData(event.currentTarget).get("terminal");
            run({ label: "", act: ["ground", String(chosen)] });
          }}
        >
          <label htmlFor="ground" className="mr-2 min-w-24 font-semibold">
            Ground fault at
          </label>
          <select id="ground" name="terminal" className="field w-52!">
            {terminals.map((terminal) => (
              <option key={terminal} value={terminal}>
                {terminal}
              </option>
            ))}
          </select>
          <button type="submit" className="control">
            Ground it
          </button>
        </form>
      </div>
    </Sheet>
  );
}
