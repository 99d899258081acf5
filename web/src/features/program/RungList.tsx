import { useState } from "react";
import { Words } from "../../components/inputs";
import { programWords as w } from "../../words/program";
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
const same = (one: Path | null, other: Path) =>
  one !== null && one.length === other.length && one.every((place, n) => place === other[n]);

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
                  path={[]}
                  picked={picked?.rung === place ? picked.path : null}
                  onPick={(path) => setPicked({ rung: place, path })}
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

/** At the height of the symbols, which stand below their names. */
function Wire() {
  return <span aria-hidden="true" className="mb-[9px] min-w-3 grow border-t-2 border-ink" />;
}

function Part({
  when,
  path,
  picked,
  onPick,
}: {
  when: When;
  path: Path;
  picked: Path | null;
  onPick: (path: Path) => void;
}) {
  const parts = (when.series ?? when.parallel) as When[] | undefined;
  if (parts) {
    const isRow = "series" in when;
    return (
      <div
        className={
          isRow
            ? "flex items-end"
            : "flex flex-col items-stretch border-x-2 border-ink divide-y-0 gap-1"
        }
      >
        {parts.map((part, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place
          <div key={place} className="flex items-end">
            <Part when={part} path={[...path, place]} picked={picked} onPick={onPick} />
            {!isRow && <Wire />}
          </div>
        ))}
      </div>
    );
  }
  return <Contact when={when} isPicked={same(picked, path)} onPick={() => onPick(path)} />;
}

function Contact({
  when,
  isPicked,
  onPick,
}: {
  when: When;
  isPicked: boolean;
  onPick: () => void;
}) {
  const compare = when.cmp as string[] | undefined;
  const edge = "rise" in when ? w.rise : "fall" in when ? w.fall : "";
  const name = compare
    ? `${compare[1]} ${compare[0]} ${compare[2]}`
    : said(when.no ?? when.nc ?? when.rise ?? when.fall ?? "");
  if ("always" in when)
    return (
      <button
        type="button"
        className="flex items-center px-2"
        aria-pressed={isPicked}
        onClick={onPick}
      >
        <Wire />
        <span className={`px-2 ${isPicked ? "bg-ink text-sheet" : ""}`}>{w.always}</span>
      </button>
    );
  return (
    <button
      type="button"
      className="flex min-h-11 items-end"
      aria-pressed={isPicked}
      aria-label={`${"nc" in when ? "NOT " : ""}${name}${edge ? ` ${edge}` : ""}`}
      onClick={onPick}
    >
      <span
        className={`flex flex-col items-stretch font-mono ${isPicked ? "bg-ink text-sheet" : ""}`}
      >
        <span className="px-2 text-center leading-tight">
          {name}
          {edge && <span className="block text-xs">{edge}</span>}
        </span>
        <span aria-hidden="true" className="flex items-center">
          <span className="min-w-3 grow border-t-2 border-current" />
          <svg
            aria-hidden="true"
            viewBox="0 0 20 20"
            className="h-5 w-5"
            fill="none"
            stroke="currentColor"
          >
            <path d="M0 10H5M15 10H20M5 1V19M15 1V19" strokeWidth="2" />
            {"nc" in when && <path d="M2 18L18 2" strokeWidth="2" />}
          </svg>
          <span className="min-w-3 grow border-t-2 border-current" />
        </span>
      </span>
    </button>
  );
}

/** The coil of a rung, or its block with its other inputs. */
function End({ rung }: { rung: Rung }) {
  if ("call" in rung) {
    const others = Object.entries((rung.with ?? {}) as Record<string, string>);
    return (
      <span className="border-2 border-ink px-3 py-1 font-mono">
        <b>{said(rung.call)}</b> {said(rung.input)}
        {others.map(([pin, value]) => (
          <span key={pin} className="block text-sm">
            {pin} {value}
          </span>
        ))}
      </span>
    );
  }
  const [kind, name] = ["coil", "negated", "set", "reset"]
    .filter((word) => word in rung)
    .map((word) => [word, said(rung[word])] as const)[0] ?? ["coil", ""];
  const mark = { coil: "", negated: "/", set: "S", reset: "R" }[kind] ?? "";
  return (
    <span className="flex items-center">
      <span className="rounded-full border-2 border-ink px-4 py-1 font-mono">
        {mark && <sup className="mr-1">{mark}</sup>}
        {name}
      </span>
      <span aria-hidden="true" className="ml-3 self-stretch border-l-4 border-ink" />
    </span>
  );
}
