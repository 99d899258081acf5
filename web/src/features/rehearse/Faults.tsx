import { useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { Select } from "../../components/Select";
import { Sheet } from "../../components/Sheet";
import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import type { Rehearsal } from "./useRehearsal";
import { type WireFault, WireFaultChoice } from "./WireFaults";

type Device = Schemas["DeviceOut"];

interface Fault {
  label: string;
  act: readonly [string, string?, string?];
}

/** By type of device; read when shown, in the plant's names. */
const ofType = (): Record<string, readonly [string, string, string?][]> => ({
  fuse: [
    ["blow", "blows"],
    ["fit", rehearseWords.newFuse],
  ],
  fdisc: [
    ["blow", rehearseWords.fuseLBlows, "1"],
    ["blow", rehearseWords.fuseLBlows2, "2"],
    ["blow", rehearseWords.fuseLBlows3, "3"],
    ["fit", rehearseWords.newFuses],
  ],
  contactor: [
    ["weld", rehearseWords.polesWeld],
    ["unweld", rehearseWords.polesFreeAgain],
    ["hold_out", rehearseWords.armatureStuckOut],
    ["open_coil", rehearseWords.coilBurnedOpen],
  ],
  olr: [
    ["trip", "trips"],
    ["cool", rehearseWords.coolsDown],
  ],
  pilot: [
    ["on", rehearseWords.actuated],
    ["off", rehearseWords.atRest],
  ],
  thermostat: [
    ["hot", rehearseWords.hot],
    ["cool", rehearseWords.cool],
    ["follow", rehearseWords.followsWinding],
  ],
  ptc: [
    ["sensor", rehearseWords.loopCut, "open"],
    ["sensor", rehearseWords.loopShort, "short"],
    ["sensor", rehearseWords.loopWhole, "ok"],
  ],
  rtd: [
    ["sensor", rehearseWords.loopCut, "open"],
    ["sensor", rehearseWords.loopShort, "short"],
    ["sensor", rehearseWords.loopWhole, "ok"],
  ],
  rtdmon: [
    ["sensor", rehearseWords.sensorCut, "open"],
    ["sensor", rehearseWords.loopWhole, "ok"],
    ["reset", "reset"],
  ],
  zss: [
    ["forward", rehearseWords.heldForward],
    ["backward", rehearseWords.heldBackward],
    ["rest", rehearseWords.heldAtRest],
    ["follow", rehearseWords.followsShaft],
  ],
  phasemon: [
    ["trip", rehearseWords.heldTripped],
    ["follow", rehearseWords.followsSupply],
  ],
  ptcrelay: [["reset", "reset"]],
  source: [
    ["off", "off"],
    ["on", rehearseWords.back],
  ],
});
const MOTOR: readonly [string, string, string?][] = [
  ["jam", "jams"],
  ["free", rehearseWords.turnsFreelyAgain],
  ["load", rehearseWords.overloaded, "1.3"],
  ["load", rehearseWords.unloaded, "0.3"],
  ["load", rehearseWords.ratedLoad, "1"],
  ["temp", rehearseWords.windingC, "160"],
  ["temp", rehearseWords.windingC2, "60"],
];
/** Inside a motor that is calculated. */
const INSIDE: readonly [string, string, string?][] = [
  ["bars", rehearseWords.barsBroken, "1.5"],
  ["bars", rehearseWords.barsWhole, "1"],
];
/** Of a start switch. */
const START: readonly [string, string, string?][] = [
  ["stick", rehearseWords.switchSticks],
  ["stick", rehearseWords.switchFree, "free"],
];
/** Of the supply; read when shown, in the plant's names of the lines. */
const supplyFaults = (): readonly Fault[] => [
  { label: rehearseWords.supplyDipsS, act: ["dip", "", "1"] },
  { label: rehearseWords.supplyOff, act: ["off"] },
  { label: rehearseWords.supplyBack, act: ["on"] },
  { label: rehearseWords.lLost, act: ["lose", "", "L1"] },
  { label: rehearseWords.lLost2, act: ["lose", "", "L2"] },
  { label: rehearseWords.lLost3, act: ["lose", "", "L3"] },
  { label: rehearseWords.lBack, act: ["restore", "", "L1"] },
  { label: rehearseWords.lBack2, act: ["restore", "", "L2"] },
  { label: rehearseWords.lBack3, act: ["restore", "", "L3"] },
  { label: rehearseWords.sag, act: ["sag", "", "0.7"] },
  { label: rehearseWords.sag2, act: ["sag", "", "0.4"] },
  { label: rehearseWords.fullVoltageAgain, act: ["sag", "", "1"] },
  { label: rehearseWords.twoLinesExchanged, act: ["swaplines"] },
];

/** One of many, and what becomes of it. */
function Chosen({
  label,
  options,
  does,
  onDo,
}: {
  label: string;
  options: readonly (readonly [string, string])[];
  does: readonly (readonly [string, string])[];
  onDo: (chosen: string, how: string) => void;
}) {
  const id = useId();
  const [chosen, setChosen] = useState("");
  const value = chosen || options[0]?.[0] || "";
  if (options.length === 0) return null;
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <label htmlFor={id} className="mr-2 min-w-24 font-semibold">
        {label}
      </label>
      <Select id={id} wide="w-52!" value={value} options={options} onPick={setChosen} />
      {does.map(([how, said]) => (
        <button key={how} type="button" className="control" onClick={() => onDo(value, how)}>
          {said}
        </button>
      ))}
    </fieldset>
  );
}

export interface FaultsProps {
  devices: readonly Device[];
  terminals: readonly string[];
  joints: readonly string[];
  wires: Circuit["wires"];
  onWireFault: (fault: WireFault) => void;
  rehearsal: Rehearsal;
  /** The motor is calculated from its nameplate: faults inside it can be shown. */
  isOwnMotor: boolean;
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
}

/** Break something: what a plant does to a circuit, sooner or later. */
export function Faults({
  devices,
  terminals,
  joints,
  wires,
  onWireFault,
  rehearsal,
  isOwnMotor,
  isOpen,
  onOpenChange,
}: FaultsProps) {
  const run = (fault: Fault) => {
    const [verb, on, word] = fault.act;
    rehearsal.act(verb, on ?? "", word ?? "");
    onOpenChange(false);
  };
  const known = ofType();
  const groups: [string, readonly Fault[]][] = [[rehearseWords.supply, supplyFaults()]];
  for (const device of devices) {
    const isOwn = isOwnMotor && device.id === "motor";
    const own = device.type.startsWith("motor")
      ? [...MOTOR, ...(isOwn ? INSIDE : []), ...(isOwn && device.coils.includes("X") ? START : [])]
      : known[device.type];
    const faults = (own ?? [])
      .filter(([verb]) => isOwn || device.verbs.includes(verb))
      .map(([verb, label, word]): Fault => ({ label, act: [verb, device.id, word ?? ""] }));
    if (faults.length > 0) groups.push([device.tag, faults]);
  }
  return (
    <Sheet isOpen={isOpen} onOpenChange={onOpenChange} title={rehearseWords.insertFault}>
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
        <Chosen
          label={rehearseWords.contactFails}
          options={devices.flatMap((device) =>
            device.contacts.map((name): [string, string] => [
              `${device.id} ${name}`,
              `${device.tag} ${name}`,
            ]),
          )}
          does={[
            ["open", rehearseWords.doesNotMake],
            ["closed", rehearseWords.staysClosed],
            ["worn", rehearseWords.worn],
            ["ok", rehearseWords.wholeAgain],
          ]}
          onDo={(chosen, how) => {
            const [device = "", name = ""] = chosen.split(" ");
            run({ label: "", act: ["fail", device, `${name} ${how}`] });
          }}
        />
        <Chosen
          label={rehearseWords.openWinding}
          options={devices.flatMap((device) =>
            device.type.startsWith("motor")
              ? device.coils.map((name): [string, string] => [
                  `${device.id} ${name}`,
                  `${device.tag} ${name}`,
                ])
              : [],
          )}
          does={[
            ["cut", rehearseWords.opens],
            ["mend", rehearseWords.wholeAgain],
            ...(isOwnMotor
              ? ([
                  ["short", rehearseWords.turnsShort],
                  ["reverse", rehearseWords.joinedBackward],
                ] as const)
              : []),
          ]}
          onDo={(chosen, how) => {
            const [device = "", name = ""] = chosen.split(" ");
            run({ label: "", act: [how, device, name] });
          }}
        />
        <WireFaultChoice
          wires={wires}
          onFault={(fault) => {
            onWireFault(fault);
            onOpenChange(false);
          }}
        />
        <Chosen
          label={rehearseWords.looseJoint}
          options={joints.map((terminal): [string, string] => [terminal, terminal])}
          does={[
            ["1", rehearseWords.comesLoose],
            ["50", rehearseWords.comesLooser],
            ["open", rehearseWords.comesOff],
            ["", rehearseWords.tightAgain],
          ]}
          onDo={(terminal, ohms) =>
            run({ label: "", act: [ohms ? "loosen" : "tighten", terminal, ohms] })
          }
        />
        <form
          className="flex flex-wrap items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const chosen = new FormData(event.currentTarget).get("terminal");
            run({ label: "", act: ["ground", String(chosen)] });
          }}
        >
          <label htmlFor="ground" className="mr-2 min-w-24 font-semibold">
            {rehearseWords.groundFault}
          </label>
          <select id="ground" name="terminal" className="field w-52!">
            {terminals.map((terminal) => (
              <option key={terminal} value={terminal}>
                {terminal}
              </option>
            ))}
          </select>
          <button type="submit" className="control">
            {rehearseWords.ground}
          </button>
        </form>
      </div>
    </Sheet>
  );
}
