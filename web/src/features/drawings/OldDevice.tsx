import { useId, useState } from "react";
import { Words } from "../../components/inputs";
import type { Circuit } from "../../diagram/useCircuit";
import { drawingsWords } from "../../words/drawings";
import type { Edit } from "./edits";
import type { Library } from "./library";

/** Another tag, a setting, or out of the drawing. */
export function OldDevice({
  circuit,
  library,
  onEdit,
}: {
  circuit: Circuit;
  library: readonly Library[];
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const [device, setDevice] = useState("");
  const [name, setName] = useState("");
  const [value, setValue] = useState("");
  const ids = [useId(), useId()];
  const chosen = circuit.devices.find((one) => one.id === device);
  const settings = library.find((one) => one.type === chosen?.type)?.settings ?? [];
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.existingDevice}</legend>
      <div className="min-w-0">
        <label htmlFor={ids[0]} className="block text-sm text-soft">
          {drawingsWords.device}
        </label>
        <select
          id={ids[0]}
          className="field font-mono"
          value={device}
          onChange={(event) => setDevice(event.target.value)}
        >
          <option value="">{drawingsWords.chooseDevice}</option>
          {circuit.devices.map((one) => (
            <option key={one.id} value={one.id}>
              {one.tag}
            </option>
          ))}
        </select>
      </div>
      <div className="min-w-0">
        <label htmlFor={ids[1]} className="block text-sm text-soft">
          {drawingsWords.setting}
        </label>
        <select
          id={ids[1]}
          className="field"
          value={name}
          onChange={(event) => setName(event.target.value)}
        >
          <option value="">{drawingsWords.tag2}</option>
          {settings.map((one) => (
            <option key={one.name} value={one.name}>
              {one.label}
              {one.unit && `, ${one.unit}`}
            </option>
          ))}
        </select>
      </div>
      <Words label={drawingsWords.newValue} value={value} onValueChange={setValue} />
      <div className="flex flex-wrap items-end gap-2">
        <button
          type="button"
          className="control"
          onClick={() => {
            if (!device || (!name && !value.trim())) return;
            onEdit(
              name
                ? { kind: "set", device, parameters: { [name]: value.trim() } }
                : { kind: "tag", device, tag: value.trim() },
              "",
            );
          }}
        >
          {drawingsWords.set}
        </button>
        <button
          type="button"
          className="control"
          onClick={() => device && onEdit({ kind: "remove_device", device }, "")}
        >
          {drawingsWords.removeDevice}
        </button>
      </div>
    </fieldset>
  );
}
