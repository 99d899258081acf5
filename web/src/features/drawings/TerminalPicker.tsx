import { useId } from "react";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";

/** A terminal of the drawing, by its device and its own number. */
export function TerminalPicker({
  circuit,
  label,
  value,
  onValueChange,
  unknown,
}: {
  circuit: Circuit;
  label: string;
  value: string;
  onValueChange: (value: string) => void;
  /** What stands first, if the end may stay unknown. */
  unknown?: string;
}) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <select
        id={id}
        className="field font-mono"
        value={value}
        onChange={(event) => onValueChange(event.target.value)}
      >
        <option value="">{unknown ?? drawingsWords.chooseTerminal}</option>
        {circuit.devices.map((device) => (
          <optgroup key={device.id} label={device.tag}>
            {device.terminals.map((terminal) => (
              <option key={terminal} value={`${device.id}.${terminal}`}>
                {device.tag}.{terminal}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </div>
  );
}
