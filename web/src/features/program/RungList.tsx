import { useState } from "react";
import { Words } from "../../components/inputs";
import { programWords as w } from "../../words/program";
import { Contact, contactOf, End, Part, Wire } from "./RungPicture";
import {
  at,
  inParallel,
  inSeries,
  moved,
  type Path,
  type Rung,
  renamed,
  toggled,
  type When,
  without,
} from "./rungTree";

const said = (value: unknown) => String(value ?? "");
const same = (one: Path, other: Path) =>
  one.length === other.length && one.every((place, n) => place === other[n]);

/** Programs as rungs: what is in series stands in a row, what is parallel stands one below the other. */
export function RungList({
  rungs,
  onDraw,
}: {
  rungs: readonly Rung[];
  onDraw: (rungs: readonly Rung[]) => void;
}) {
  const [picked, setPicked] = useState<{ rung: number; path: Path } | null>(null);
  const [name, setName] = useState("");
  const [coil, setCoil] = useState("");
  const rung = picked ? rungs[picked.rung] : undefined;
  const when = rung?.when as When | undefined;
  const draw = (next: When) => {
    if (!picked) return;
    onDraw(rungs.map((one, place) => (place === picked.rung ? { ...one, when: next } : one)));
    setPicked(null);
  };
  const contact = { no: name.trim() || "I1" };
  return (
    <div className="space-y-3" data-testid="rungs">
      <p className="text-soft">{w.pick}</p>
      <ol className="space-y-2">
        {rungs.map((one, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a rung is its place, two may be alike
          <li key={place} className="border-2 border-hair bg-sheet p-2 overflow-x-auto">
            <p className="stamp text-soft">{w.rung(place + 1)}</p>
            {"text" in one ? (
              <>
                <pre className="font-mono text-sm">{said(one.text)}</pre>
                <p className="text-sm text-soft">{w.textNetwork}</p>
              </>
            ) : (
              <div className="flex items-end">
                <span aria-hidden="true" className="self-stretch border-l-4 border-ink" />
                <Part
                  when={one.when as When}
                  contact={(when, path) => {
                    const isPicked = picked?.rung === place && same(picked.path, path);
                    return (
                      <button
                        type="button"
                        className="flex min-h-11 items-end"
                        aria-pressed={isPicked}
                        aria-label={contactOf(when).said}
                        onClick={() => setPicked({ rung: place, path })}
                      >
                        <Contact when={when} className={isPicked ? "bg-ink text-sheet" : ""} />
                      </button>
                    );
                  }}
                />
                <Wire />
                <End rung={one} />
              </div>
            )}
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap items-end gap-2">
        <Words label={w.newName} value={name} onValueChange={setName} className="w-36" />
        {picked && when && (
          <>
            <button
              type="button"
              className="control"
              onClick={() => draw(inSeries(when, picked.path, contact))}
            >
              {w.series}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => draw(inParallel(when, picked.path, contact))}
            >
              {w.parallel}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => draw(toggled(when, picked.path))}
            >
              {w.toggle}
            </button>
            <button
              type="button"
              className="control"
              disabled={!name.trim() || "series" in at(when, picked.path)}
              onClick={() => draw(renamed(when, picked.path, name.trim()))}
            >
              {w.rename}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => draw(without(when, picked.path))}
            >
              {w.remove}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => onDraw(moved(rungs, picked.rung, -1))}
            >
              {w.rungUp}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => onDraw(moved(rungs, picked.rung, 1))}
            >
              {w.rungDown}
            </button>
            <button
              type="button"
              className="control"
              onClick={() => {
                onDraw(rungs.filter((_, place) => place !== picked.rung));
                setPicked(null);
              }}
            >
              {w.rungAway}
            </button>
          </>
        )}
      </div>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (coil.trim()) onDraw([...rungs, { when: contact, coil: coil.trim() }]);
        }}
      >
        <Words label={w.coilOf} value={coil} onValueChange={setCoil} className="w-36" />
        <button type="submit" className="control">
          {w.addRung}
        </button>
      </form>
      <p className="text-sm text-soft">{w.declared}</p>
    </div>
  );
}
