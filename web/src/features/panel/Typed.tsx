import { type ReactNode, useId, useState } from "react";

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
  const id = useId();
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
      <div>
        <label htmlFor={id} className="block text-sm text-soft">
          {label}
        </label>
        <span className="flex items-center gap-2">
          <input
            id={id}
            className={`field ${isNumber ? "w-28!" : "w-64!"}`}
            inputMode={isNumber ? "decimal" : "text"}
            autoComplete="off"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          {unit}
        </span>
      </div>
      <button type="submit" className="control">
        {does}
      </button>
      {extra}
    </form>
  );
}
