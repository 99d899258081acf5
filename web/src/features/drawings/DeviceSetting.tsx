import { useId } from "react";
import { Words } from "../../components/inputs";
import type { Library } from "./library";

/** One thing printed on a device: typed, or one of the words it takes. */
export function Setting({
  setting,
  value,
  onValueChange,
}: {
  setting: Library["settings"][number];
  value: string;
  onValueChange: (value: string) => void;
}) {
  const id = useId();
  const label = `${setting.label}${setting.unit ? `, ${setting.unit}` : ""}`;
  if (!setting.form.includes("|")) {
    return (
      <Words
        label={label}
        value={value}
        onValueChange={onValueChange}
        placeholder={setting.default}
      />
    );
  }
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-sm text-soft">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value || setting.default}
        onChange={(event) => onValueChange(event.target.value)}
      >
        {setting.form.split("|").map((word) => (
          <option key={word} value={word}>
            {word}
          </option>
        ))}
      </select>
    </div>
  );
}
