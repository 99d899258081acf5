import { useId, useState } from "react";
import { Words } from "../../components/inputs";
import { drawingsWords } from "../../words/drawings";
import { Setting } from "./DeviceSetting";
import type { Edit } from "./edits";
import type { Library, Usual } from "./library";

/** Put a device in, with what is printed on it. */
export function NewDevice({
  library,
  usual,
  onEdit,
}: {
  library: readonly Library[];
  usual: readonly Usual[];
  onEdit: (edit: Partial<Edit>, why: string) => void;
}) {
  const id = useId();
  const [chosen, setChosen] = useState("usual:contactor");
  const known = usual.find((one) => `usual:${one.key}` === chosen);
  const type = known?.type ?? chosen;
  const [tag, setTag] = useState("");
  const [given, setGiven] = useState<Record<string, string>>({});
  const kind = library.find((one) => one.type === type);
  return (
    <fieldset className="grid gap-2 sm:grid-cols-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.newDevice}</legend>
      <div className="min-w-0">
        <label htmlFor={id} className="block text-sm text-soft">
          {drawingsWords.type}
        </label>
        <select
          id={id}
          className="field"
          value={chosen}
          onChange={(event) => {
            setChosen(event.target.value);
            setGiven({});
          }}
        >
          <optgroup label={drawingsWords.usualDevices}>
            {usual.map((one) => (
              <option key={one.key} value={`usual:${one.key}`}>
                {one.label}
              </option>
            ))}
          </optgroup>
          <optgroup label={drawingsWords.anyDevice}>
            {[...library]
              .sort((one, other) => one.label.localeCompare(other.label))
              .map((one) => (
                <option key={one.type} value={one.type}>
                  {one.label}
                </option>
              ))}
          </optgroup>
        </select>
      </div>
      <Words
        label={drawingsWords.tag}
        value={tag}
        onValueChange={setTag}
        placeholder={kind ? `${kind.letters}1` : ""}
      />
      {kind?.settings
        .filter((one) => one.form !== "tag")
        .map((one) => (
          <Setting
            key={one.name}
            setting={one}
            value={given[one.name] ?? known?.parameters[one.name] ?? ""}
            onValueChange={(value) => setGiven((now) => ({ ...now, [one.name]: value }))}
          />
        ))}
      <button
        type="button"
        className="control sm:col-span-2"
        onClick={() => {
          const parameters = Object.fromEntries(
            Object.entries({ ...known?.parameters, ...given }).filter(
              ([, value]) => value.trim() !== "",
            ),
          );
          onEdit(
            { kind: "add_device", type, tag: tag.trim() || `${kind?.letters}1`, parameters },
            "",
          );
          setTag("");
        }}
      >
        {drawingsWords.addDevice}
      </button>
    </fieldset>
  );
}
