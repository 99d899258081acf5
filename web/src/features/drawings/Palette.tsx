import { useId, useState } from "react";
import { drawingsWords } from "../../words/drawings";
import { Emblem } from "./Emblem";
import type { Library, Usual } from "./library";

/** What can be put in: a usual device with its usual contacts, or any type. */
export interface Choice {
  key: string;
  label: string;
  type: Library;
  parameters: Readonly<Record<string, string>>;
}

/** Usual devices first, then every type; by parts of the name, in any order. */
export function choicesOf(
  library: readonly Library[],
  usual: readonly Usual[],
  text: string,
): readonly Choice[] {
  const types = new Map(library.map((one) => [one.type, one]));
  const all: Choice[] = usual.flatMap((one) => {
    const type = types.get(one.type);
    return type
      ? [{ key: `usual:${one.key}`, label: one.label, type, parameters: one.parameters }]
      : [];
  });
  const named = [...library].sort((one, other) => one.label.localeCompare(other.label));
  all.push(...named.map((type) => ({ key: type.type, label: type.label, type, parameters: {} })));
  const parts = text.toLowerCase().split(/\s+/).filter(Boolean);
  const words = (one: Choice) => `${one.label} ${one.type.label} ${one.type.letters}`.toLowerCase();
  return all.filter((one) => parts.every((part) => words(one).includes(part)));
}

/** Devices by their trade name and symbol, searched as typed. */
export function Palette({
  library,
  usual,
  chosen,
  onChoose,
}: {
  library: readonly Library[];
  usual: readonly Usual[];
  chosen: string;
  onChoose: (choice: Choice) => void;
}) {
  const id = useId();
  const [text, setText] = useState("");
  const found = choicesOf(library, usual, text);
  return (
    <div className="space-y-2">
      <label htmlFor={id} className="block text-sm text-soft">
        {drawingsWords.searchDevices}
      </label>
      <input
        id={id}
        type="search"
        className="field"
        autoComplete="off"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && found[0]) onChoose(found[0]);
        }}
      />
      <ul className="max-h-80 space-y-1 overflow-y-auto">
        {found.map((one) => (
          <li key={one.key}>
            <button
              type="button"
              className="flex min-h-14 w-full items-center gap-3 border border-hair px-2 py-1 text-left hover:bg-sunk aria-pressed:border-2 aria-pressed:border-plum"
              aria-pressed={chosen === one.key}
              data-choice={one.key}
              onClick={() => onChoose(one)}
            >
              <Emblem picture={one.type.picture} />
              <span>{one.label}</span>
            </button>
          </li>
        ))}
      </ul>
      <p role="status" className="text-sm text-soft">
        {found.length === 0 ? drawingsWords.noDevice(text) : ""}
      </p>
    </div>
  );
}
