import type { Circuit } from "../../diagram/useCircuit";
import { rehearseWords } from "../../words/rehearse";
import { wiringWords as w } from "../../words/wiring";
import { frameAt } from "../rehearse/timeline";
import type { Rehearsal } from "../rehearse/useRehearsal";

/** What the motors do at this instant. */
export function MotorState({ circuit, rehearsal }: { circuit: Circuit; rehearsal: Rehearsal }) {
  const latest = frameAt(rehearsal.line, rehearsal.now);
  const said = circuit.devices
    .filter((device) => device.type.startsWith("motor"))
    .map((motor) => {
      const at = latest?.motors[motor.id];
      if (!at || at.word === "off") return "";
      const state = (rehearseWords.motorStates[at.word] ?? at.word).toLowerCase();
      return `${motor.tag} ${state} ${Math.abs(at.n).toFixed(0)} %`;
    })
    .filter(Boolean)
    .join(" · ");
  return (
    <p className="font-semibold" data-testid="motor">
      {said ? w.state(said) : w.nothing}
    </p>
  );
}
