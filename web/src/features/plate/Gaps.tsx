import { type FormEvent, useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { plateWords } from "../../words/plate";

export interface GapsProps {
  missing: readonly Schemas["MissingOut"][];
  assumed: readonly Schemas["AssumedInput"][];
  labels: Readonly<Record<string, string>>;
  onAssumedChange: (assumed: Schemas["AssumedInput"][]) => void;
}

const LETTERS: Record<string, string> = {
  code_letter: "ABCDEFGHJKLMNPRSTUV",
  design_letter: "ABCD",
};

/** What the plate does not give, what that costs, and a way to put a guess in its place. */
export function Gaps({ missing, assumed, labels, onAssumedChange }: GapsProps) {
  const [open, setOpen] = useState<string | null>(null);
  const [letter, setLetter] = useState("");
  const [valueId, reasonId] = [useId(), useId()];
  const submit = (event: FormEvent<HTMLFormElement>, field: string) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const value = LETTERS[field] ? letter : String(form.get("value")).trim();
    if (!value) return;
    onAssumedChange([
      ...assumed.filter((item) => item.field !== field),
      { field, value, reason: String(form.get("reason")).trim() },
    ]);
    setOpen(null);
    setLetter("");
  };
  if (missing.length + assumed.length === 0) return null;
  return (
    <section aria-labelledby="gaps" className="space-y-2">
      <h2 id="gaps" className="stamp">
        {plateWords.notNameplate}
      </h2>
      <ul className="space-y-2">
        {assumed.map((item) => (
          <li key={item.field} className="metal px-4 py-2" data-guess="true">
            <span className="stamp float-right text-caution">{plateWords.assumed}</span>
            <b>{labels[item.field] ?? item.field}</b>{" "}
            <span className="font-mono font-semibold">{item.value}</span>
            <span className="block text-sm text-soft">
              {item.reason ? `From: ${item.reason}` : plateWords.noSourceGiven}
            </span>
            <button
              type="button"
              className="ask"
              onClick={() => onAssumedChange(assumed.filter((other) => other.field !== item.field))}
            >
              {plateWords.removeGuess}
            </button>
          </li>
        ))}
        {missing.map((gap) => (
          <li key={gap.field} className="border-l-4 border-hair pl-3">
            <span className="flex flex-wrap items-baseline justify-between gap-x-3">
              <span>{gap.cost}</span>
              <button
                type="button"
                className="ask text-sm"
                aria-expanded={open === gap.field}
                onClick={() => {
                  setOpen(open === gap.field ? null : gap.field);
                  setLetter("");
                }}
              >
                {plateWords.unreadableAssume}
              </button>
            </span>
            {open === gap.field && (
              <form
                className="metal mt-1 space-y-2 px-4 py-3"
                data-guess="true"
                onSubmit={(event) => submit(event, gap.field)}
              >
                {LETTERS[gap.field] ? (
                  <fieldset>
                    <legend className="font-semibold">{gap.label}</legend>
                    <div className="flex flex-wrap gap-1.5">
                      {[...(LETTERS[gap.field] ?? "")].map((name) => (
                        <button
                          key={name}
                          type="button"
                          className="control min-w-10 px-2 font-mono"
                          aria-pressed={letter === name}
                          onClick={() => setLetter(name)}
                        >
                          {name}
                        </button>
                      ))}
                    </div>
                  </fieldset>
                ) : (
                  <div>
                    <label htmlFor={valueId} className="font-semibold">
                      {gap.label}
                    </label>
                    <input
                      id={valueId}
                      name="value"
                      className="field"
                      autoComplete="off"
                      maxLength={60}
                      required
                    />
                  </div>
                )}
                <div>
                  <label htmlFor={reasonId} className="font-semibold">
                    {plateWords.takenFrom}
                  </label>
                  <input
                    id={reasonId}
                    name="reason"
                    className="field"
                    placeholder={plateWords.oldLabelFrame}
                    maxLength={200}
                  />
                </div>
                <button type="submit" className="control">
                  {plateWords.enterGuess}
                </button>
              </form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
