import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, told } from "../api/client";
import type { Given, JobState, Part, Place } from "../state/useJob";
import { frameWords } from "../words/frame";
import { differences } from "./ClashSlab";
import { Sheet } from "./Sheet";
import { ProblemSlab, Tag } from "./shapes";

export interface HistorySheetProps {
  place: Place;
  step: string;
  state: JobState;
  onClose: () => void;
}

/** The Plate step holds two parts: the plate itself and the supply. */
const PARTS_OF: Record<string, readonly Part[]> = {
  plate: ["plate", "supply"],
  leads: ["leads"],
  size: ["size"],
  starter: ["starter"],
  drawings: ["starter"],
  rehearse: ["starter"],
  check: ["starter"],
};

/** Every version of one part of what was given, newest first. */
export function useVersions({ works, tag, number }: Place, state: JobState, part: Part) {
  return useQuery({
    queryKey: ["history", works, tag, number, part, state.job?.versions[part]?.n],
    queryFn: ({ signal }) =>
      told(
        api.GET("/api/w/{works}/m/{tag}/j/{number}/history/{step}", {
          params: { path: { works, tag, number, step: part } },
          signal,
        }),
      ),
  });
}

/** Every version of what was given: who, when, what changed; compare with now, bring back. */
export function HistorySheet({ place, step, state, onClose }: HistorySheetProps) {
  const parts = PARTS_OF[step] ?? [];
  const [part, setPart] = useState<Part>(parts[0] ?? "plate");
  const [open, setOpen] = useState<number | null>(null);
  const query = useVersions(place, state, part);
  const now = state.given?.[part] as unknown as Record<string, unknown> | undefined;
  return (
    <Sheet isOpen onOpenChange={(isOpen) => !isOpen && onClose()} title={frameWords.history}>
      {parts.length > 1 && (
        <div className="mb-3 flex gap-2">
          {parts.map((name) => (
            <button
              key={name}
              type="button"
              className="control"
              aria-pressed={name === part}
              onClick={() => setPart(name)}
            >
              {name === "plate" ? frameWords.nameplate : frameWords.supply}
            </button>
          ))}
        </div>
      )}
      {query.error instanceof Refused && <ProblemSlab problem={query.error.problem} />}
      {query.data?.length === 0 && <p>{frameWords.nothingWasSaved}</p>}
      <ol className="space-y-2">
        {query.data?.map((entry) => {
          const rows = now ? differences(now, entry.body) : [];
          return (
            <li key={entry.n} className="border-t border-hair pt-2" data-testid="version">
              <div className="flex flex-wrap items-center gap-3">
                <b className="font-mono">{entry.n}</b>
                <Tag who={entry.by} when={entry.at} source={entry.source} />
                <span className="text-soft">{entry.changed.join(", ") || "begun"}</span>
                {rows.length > 0 ? (
                  <button
                    type="button"
                    className="ask"
                    aria-expanded={open === entry.n}
                    onClick={() => setOpen(open === entry.n ? null : entry.n)}
                  >
                    {frameWords.compareNow}
                  </button>
                ) : (
                  <span>{frameWords.now}</span>
                )}
              </div>
              {open === entry.n && (
                <div className="mt-2 space-y-2">
                  <table className="w-full text-sm">
                    <thead>
                      <tr className="text-left">
                        <th scope="col">{frameWords.what}</th>
                        <th scope="col">{frameWords.now2}</th>
                        <th scope="col">{frameWords.version(entry.n)}</th>
                      </tr>
                    </thead>
                    <tbody>
                      {rows.map((row) => (
                        <tr key={row.field} className="border-t border-hair align-top">
                          <th scope="row" className="pr-3 text-left">
                            {row.field}
                          </th>
                          <td className="pr-3 font-mono break-all">{row.mine}</td>
                          <td className="font-mono break-all">{row.theirs}</td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                  <button
                    type="button"
                    className="control"
                    onClick={() => {
                      state.change(part, entry.body as unknown as Given[typeof part]);
                      onClose();
                    }}
                  >
                    {frameWords.restoreVersion(entry.n)}
                  </button>
                </div>
              )}
            </li>
          );
        })}
      </ol>
    </Sheet>
  );
}
