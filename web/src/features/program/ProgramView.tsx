import { useState } from "react";
import { programWords as w } from "../../words/program";
import { download } from "../run-up/csv";
import { RungList } from "./RungList";
import type { Rung } from "./rungTree";
import { TextEditor } from "./TextEditor";
import { type Relay, useProgram } from "./useProgram";
import { Versions } from "./Versions";

const PARTS = [
  ["rungs", w.rungs],
  ["text", w.text],
  ["points", w.points],
  ["files", w.files],
  ["versions", w.versions],
] as const;

/** What does the relay do, and may it? One program, as rungs and as text; kept when nothing is wrong. */
export function ProgramView({ relay, onKeep }: { relay: Relay; onKeep: (text: string) => void }) {
  const [part, setPart] = useState<(typeof PARTS)[number][0]>("rungs");
  const { draft, program, problem, shelf, isFresh, setDraft, draw, open, takeNames, save } =
    useProgram(relay);
  const wrong = problem.length > 0 ? problem : (program?.wrong ?? []);
  const isKept = draft === relay.program;
  return (
    <section aria-label={`${w.view} ${relay.tag}`} className="space-y-3 p-2" data-testid="program">
      <p className="font-headline text-2xl font-bold">
        {w.view} {relay.tag}
      </p>
      <p className="text-caution">{w.hardWired}</p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={w.view}>
        {PARTS.map(([name, label]) => (
          <button
            key={name}
            type="button"
            className="control"
            aria-pressed={part === name}
            onClick={() => setPart(name)}
          >
            {label}
          </button>
        ))}
      </div>
      <div aria-live="polite" data-testid="program-state">
        {wrong.length > 0 ? (
          <>
            <p className="font-semibold text-live">{w.wrongCount(wrong.length)}</p>
            <ul className="list-disc pl-5">
              {wrong.slice(0, 12).map((one) => (
                <li key={`${one.line}.${one.column}.${one.code}`}>
                  {one.said} <span className="text-soft">{one.hint}</span>
                </li>
              ))}
            </ul>
          </>
        ) : (
          program && (
            <p>
              {w.nothingWrong} {isKept ? w.kept : w.notKept}
            </p>
          )
        )}
      </div>
      {part === "rungs" && program && wrong.length === 0 && (
        <RungList rungs={program.rungs as Rung[]} onDraw={(rungs) => void draw(rungs)} />
      )}
      {(part === "text" || (part === "rungs" && wrong.length > 0)) && (
        <TextEditor text={draft} wrong={wrong} onChange={setDraft} />
      )}
      {part === "points" && (
        <>
          <FileField
            label={w.takeNames}
            accept=".csv,.txt"
            isOff={!isFresh || (program?.wrong ?? []).length > 0}
            onFile={takeNames}
          />
          <Points relay={relay} />
        </>
      )}
      {part === "versions" && <Versions relay={relay} draft={draft} />}
      {part === "files" && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="flex w-full flex-wrap gap-2" role="group" aria-label={w.shelf}>
            <p className="w-full font-semibold">{w.shelf}</p>
            {shelf.map((one) => (
              <button
                key={one.id}
                type="button"
                className="control"
                onClick={() => setDraft(one.text)}
              >
                {one.title}
              </button>
            ))}
          </div>
          <FileField label={w.openFile} accept=".xml,.st,.txt" onFile={open} />
          {(["ST", "LD"] as const).map((form) => (
            <button
              key={form}
              type="button"
              className="control"
              onClick={async () => {
                const made = await save(form);
                if (made) download(made, `${relay.tag}-program.xml`);
              }}
            >
              {form === "ST" ? w.asText : w.asLadder}
            </button>
          ))}
          <button
            type="button"
            className="control"
            onClick={() => download(draft, `${relay.tag}-program.st`)}
          >
            {w.asSt}
          </button>
        </div>
      )}
      {program && program.doubts.length > 0 && (
        <p className="text-caution">
          {w.doubts}:{" "}
          {program.doubts.map((one) => `${w.line(one.line)} ${one.name} ${one.figure}`).join("; ")}
        </p>
      )}
      {!isKept && (
        <div className="flex flex-wrap gap-2 border-t-2 border-ink pt-3">
          <button
            type="button"
            className="control"
            data-primary={wrong.length === 0}
            disabled={wrong.length > 0 || !isFresh}
            onClick={() => onKeep(draft)}
          >
            {w.keep}
          </button>
          <button type="button" className="control" onClick={() => setDraft(relay.program)}>
            {w.backToKept}
          </button>
        </div>
      )}
    </section>
  );
}

function FileField({
  label,
  accept,
  isOff = false,
  onFile,
}: {
  label: string;
  accept: string;
  isOff?: boolean;
  onFile: (file: File) => Promise<void>;
}) {
  return (
    <label className="ask">
      {label}
      <input
        type="file"
        accept={accept}
        className="block"
        disabled={isOff}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void onFile(file);
        }}
      />
    </label>
  );
}

function Points({ relay }: { relay: Relay }) {
  const heads = [w.point, w.name, w.terminal, w.wire, w.device];
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head}>{head}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {relay.io.map((one) => (
            <tr key={one.point} className="border-t border-hair">
              <td className="font-mono font-bold">{one.point}</td>
              <td className="font-mono">{one.name}</td>
              <td className="font-mono">{one.terminal}</td>
              <td className="font-mono">{one.wire}</td>
              <td>{one.device}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
