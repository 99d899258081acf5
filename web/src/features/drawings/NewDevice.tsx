import { useState } from "react";
import { Words } from "../../components/inputs";
import { drawingsWords } from "../../words/drawings";
import { Setting } from "./DeviceSetting";
import type { Edit } from "./edits";
import type { Library, Usual } from "./library";
import { type Choice, Palette } from "./Palette";

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
  const [chosen, setChosen] = useState<Choice | null>(null);
  const [tag, setTag] = useState("");
  const [given, setGiven] = useState<Record<string, string>>({});
  const letters = chosen?.type.letters ?? "";
  return (
    <fieldset className="space-y-2">
      <legend className="stamp mb-1 text-soft">{drawingsWords.newDevice}</legend>
      <Palette
        library={library}
        usual={usual}
        chosen={chosen?.key ?? ""}
        onChoose={(choice) => {
          setChosen(choice);
          setGiven({});
        }}
      />
      {chosen && (
        <div className="grid gap-2 sm:grid-cols-2">
          <Words
            label={drawingsWords.tag}
            value={tag}
            onValueChange={setTag}
            placeholder={`${letters}1`}
          />
          {chosen.type.settings
            .filter((one) => one.form !== "tag")
            .map((one) => (
              <Setting
                key={one.name}
                setting={one}
                value={given[one.name] ?? chosen.parameters[one.name] ?? ""}
                onValueChange={(value) => setGiven((now) => ({ ...now, [one.name]: value }))}
              />
            ))}
          <button
            type="button"
            className="control sm:col-span-2"
            onClick={() => {
              const parameters = Object.fromEntries(
                Object.entries({ ...chosen.parameters, ...given }).filter(
                  ([, value]) => value.trim() !== "",
                ),
              );
              const type = chosen.type.type;
              onEdit(
                { kind: "add_device", type, tag: tag.trim() || `${letters}1`, parameters },
                "",
              );
              setTag("");
            }}
          >
            {drawingsWords.addDevice}
          </button>
        </div>
      )}
    </fieldset>
  );
}
