import { useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { starterWords } from "../../words/starter";

type Option = Schemas["OptionOut"];
type Starter = Schemas["StarterInputs"];

/** A number option: taken when the field is left or Enter is pressed. */
function NumberOption({ option, onTake }: { option: Option; onTake: (value: string) => void }) {
  const id = useId();
  const [text, setText] = useState(option.used);
  return (
    <div className="flex items-center gap-2">
      <label htmlFor={id} className="min-w-44">
        {option.label}
      </label>
      <input
        id={id}
        className="field w-28"
        inputMode="decimal"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => onTake(text.replace(",", "."))}
        onKeyDown={(event) => event.key === "Enter" && onTake(text.replace(",", "."))}
      />
      <span>{starterWords.to(option.unit, option.least, option.most)}</span>
    </div>
  );
}

export interface OptionsProps {
  options: readonly Option[];
  starter: Starter;
  letters: string;
  onChange: (starter: Starter) => void;
}

const TAGS = { iec: "KM1, OL1, S1", iec_k: "K1, OL1, S1", nema: "M, OL, START" } as const;

/** Every option of the standard circuit; a change redraws at once. Tags begin with the plant's letters. */
export function Options({ options, starter, letters, onChange }: OptionsProps) {
  const set = (name: string, word: string, standard: string) => {
    const next = { ...(starter.options ?? {}) };
    if (word === standard) delete next[name];
    else next[name] = word;
    onChange({ ...starter, options: next });
  };
  return (
    <section aria-labelledby="options" className="space-y-3">
      <h2 id="options" className="stamp text-soft">
        {starterWords.howBuilt}
      </h2>
      {options.map((option) =>
        option.choices.length === 0 ? (
          <NumberOption
            key={`${option.name} ${option.used}`}
            option={option}
            onTake={(value) => value !== option.used && set(option.name, value, option.default)}
          />
        ) : (
          <fieldset key={option.name} className="flex flex-wrap items-center gap-2">
            <legend className="float-left mr-2 min-w-44">{option.label}</legend>
            {option.choices.map((word, place) => (
              <button
                key={word}
                type="button"
                className="control"
                aria-pressed={word === option.used}
                onClick={() => set(option.name, word, option.default)}
              >
                {option.words[place]}
                {option.unit && ` ${option.unit}`}
              </button>
            ))}
          </fieldset>
        ),
      )}
      <fieldset className="flex flex-wrap items-center gap-2">
        <legend className="float-left mr-2 min-w-44">{starterWords.tagsDrawing}</legend>
        {(["iec", "iec_k", "nema"] as const).map((style) => (
          <button
            key={style}
            type="button"
            className="control"
            aria-pressed={(starter.naming ?? letters) === style}
            onClick={() => onChange({ ...starter, naming: style })}
          >
            {TAGS[style]}
          </button>
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap items-center gap-2">
        <legend className="float-left mr-2 min-w-44">{starterWords.symbols}</legend>
        {(["nema", "iec"] as const).map((style) => (
          <button
            key={style}
            type="button"
            className="control"
            aria-pressed={(starter.symbols ?? "nema") === style}
            onClick={() => onChange({ ...starter, symbols: style })}
          >
            {style.toUpperCase()}
          </button>
        ))}
      </fieldset>
    </section>
  );
}
