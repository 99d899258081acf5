import { type ReactNode, useState } from "react";
import { Words } from "../../components/inputs";

/** One figure or text to type, and what is done with it; large enough for a glove. */
export function Typed({
  label,
  unit,
  does,
  isNumber = true,
  extra,
  onDone,
}: {
  label: string;
  unit?: string;
  does: string;
  isNumber?: boolean;
  extra?: ReactNode;
  onDone: (text: string) => void;
}) {
  const [text, setText] = useState("");
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!text.trim()) return;
        onDone(text.trim());
        setText("");
      }}
    >
      <Words
        label={label}
        value={text}
        unit={unit}
        isNumber={isNumber}
        onValueChange={setText}
        className={isNumber ? "w-36" : "w-64"}
      />
      <button type="submit" className="control">
        {does}
      </button>
      {extra}
    </form>
  );
}
